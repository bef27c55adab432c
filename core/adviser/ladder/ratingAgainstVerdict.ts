import { comparable } from '../comparable.ts'
import { reason, repeatCard } from '../cards.ts'
import type { Rung } from './climb.ts'

/** Numbers that part so far from what was said are no scatter: rating points, and scatters of a difference. */
const leastApart = 1.5
const scatters = 1.5

/**
 * Rated clearly better than a run it was said to be worse than, or the other way round: one of the two was a slip of the
 * hand. The same again, before anything is turned on either; once.
 */
export const ratingAgainstVerdict: Rung = (c) => {
  const [last, ...more] = c.onNow
  const rating = last?.feel?.rating ?? null
  if (rating === null || more.length > 0) return null
  for (const v of last.feel!.verdicts) {
    const other = c.counted.find((r) => r.run.id === v.againstRunId)
    const before = other?.feel?.rating ?? null
    if (!other || before === null || v.value === 0 || !comparable(c.h, other, last).equal) continue
    const by = rating - before
    if (Math.sign(by) !== -Math.sign(v.value) || Math.abs(by) < Math.max(leastApart, scatterOf(c))) continue
    return repeatCard(
      `Rated ${by > 0 ? 'better' : 'worse'} than run ${other.number}, and said to be ${by > 0 ? 'worse' : 'better'}: one of the two was a slip. Ride it again, then say it against run ${other.number}.`,
      [
        reason(
          `Rated ${rating} on run ${last.number}, ${before} on run ${other.number}; “${v.value > 0 ? 'better' : 'worse'}” than that`,
          last.run.id,
        ),
      ],
      c.causes(),
    )
  }
  return null
}

function scatterOf(c: Parameters<Rung>[0]): number {
  const { noiseSd, samples } = c.outlook().surface
  return (scatters * Math.SQRT2 * noiseSd.reduce((t, x) => t + x, 0)) / samples
}
