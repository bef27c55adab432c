/** A second tap within this is of the same hand, and no second wish. */
export const twiceMs = 700
/** A run takes longer than a hand in a glove between two taps. */
export const runAgainMs = 1500

/**
 * An act that is not begun again while it is under way: a hand in a glove taps twice, and who sees nothing happen on a
 * slow line presses once more. Whoever asks meanwhile gets the answer of the one that is under way.
 *
 * @param restMs counted from its beginning: so long it is not begun again, however quick the answer was
 * @param by     acts with another key do not wait for each other
 */
export function oneAtATime<A extends unknown[], R>(
  act: (...args: A) => Promise<R>,
  { restMs = 0, by = () => '' }: { restMs?: number; by?: () => string } = {},
): (...args: A) => Promise<R> {
  const under = new Map<string, Promise<R>>()
  return (...args) => {
    const key = by()
    const before = under.get(key)
    if (before) return before
    const rested = new Promise((resolve) => setTimeout(resolve, restMs))
    const done = act(...args)
    under.set(key, done)
    void Promise.allSettled([done, ...(restMs > 0 ? [rested] : [])]).then(() => under.delete(key))
    return done
  }
}
