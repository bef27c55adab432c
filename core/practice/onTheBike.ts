import { adjusterRange, clampToRange } from '../adjusters/range.ts'
import type { Dial } from '../adviser/dials.ts'
import type { Positions } from './landscape.ts'

/** Where everything stands, and where it is written to stand: a count may be wrong, a pressure may have gone. */
export interface OnTheBike {
  stands: Positions
  written: Positions
}

/**
 * Turns to what is wanted, as a hand does it. A pump shows what is in there, so that a pressure ends where it was wanted.
 * Clicks are counted from where the dial is believed to stand; one that comes to its stop on the way tells where it is.
 *
 * @param to wanted positions, canonical, as they would be written
 * @returns the bike after it, and what came to its stop before it was turned as far as wanted
 */
export function turnedTo(
  now: OnTheBike,
  to: Positions,
  dials: readonly Dial[],
): { now: OnTheBike; stopped: string[] } {
  const stands = { ...now.stands }
  const written = { ...now.written }
  const stopped: string[] = []
  for (const [id, wanted] of Object.entries(to)) {
    const dial = dials.find((d) => d.adjuster.id === id)
    written[id] = wanted
    if (dial?.adjuster.kind !== 'click') {
      stands[id] = wanted
      continue
    }
    const reached = now.stands[id] + wanted - now.written[id]
    const { min, max } = adjusterRange(dial.adjuster)
    stands[id] = Math.min(max, Math.max(min, reached))
    if (stands[id] === reached) continue
    written[id] = stands[id]
    stopped.push(id)
  }
  return { now: { stands, written }, stopped }
}

/** Counts a dial to its stop and back, or puts a gauge on: what is written is what is there. */
export const looked = (now: OnTheBike, id: string): OnTheBike => ({
  ...now,
  written: { ...now.written, [id]: now.stands[id] },
})

/** What a run takes out of what leaks. @param perRun click-equivalents a run, by dial */
export function leaked(
  now: OnTheBike,
  perRun: ReadonlyMap<string, number>,
  dials: readonly Dial[],
): OnTheBike {
  const stands = { ...now.stands }
  for (const [id, clicks] of perRun) {
    const dial = dials.find((d) => d.adjuster.id === id)
    if (dial) stands[id] = clampToRange(dial.adjuster, dial.fromClicks(dial.toClicks(stands[id]) - clicks))
  }
  return { ...now, stands }
}

/** Dials that do not stand where they are written to, canonical difference. */
export const gaps = ({ stands, written }: OnTheBike): Positions =>
  Object.fromEntries(
    Object.keys(stands)
      .filter((id) => stands[id] !== written[id])
      .map((id) => [id, stands[id] - written[id]]),
  )
