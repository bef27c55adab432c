import type { RiddenOn } from '#contract/bikeSetups'

/** With fewer repeats chance alone says what comes out. */
export const leastRepeats = 4

/**
 * How ratings on the same settings of the same day scatter, over all days of a bike.
 *
 * Source: pooled standard deviation, √(Σ(x − mean of its group)² / Σ(n − 1)).
 * @returns rating points, and the repeats it rests on; null with fewer than `leastRepeats`
 */
export function ratingScatter(
  ridden: readonly Pick<RiddenOn, 'ratings'>[],
): { sd: number; repeats: number } | null {
  let [squares, repeats] = [0, 0]
  for (const { ratings } of ridden) {
    if (ratings.length < 2) continue
    const mean = ratings.reduce((s, x) => s + x, 0) / ratings.length
    squares += ratings.reduce((s, x) => s + (x - mean) ** 2, 0)
    repeats += ratings.length - 1
  }
  return repeats < leastRepeats ? null : { sd: Math.sqrt(squares / repeats), repeats }
}
