import type { Evidence } from '#contract/proposal'
import { reason } from '../cards.ts'
import { comparable } from '../comparable.ts'
import type { Climb } from './climb.ts'

/** What a rating has to fall by on the very same settings, rating points and scatters of the difference. */
const leastFall = 1
const scatters = 1.5
/**
 * How far the last run fell below the earlier ones on the same settings, where that is more than scatter.
 * @param besides `air`: also against those in other air, to find what that did
 */
export function fallHere(c: Climb, besides: { air?: true } = {}): Evidence | null {
  const last = c.onNow[c.onNow.length - 1]
  const rating = last.feel?.rating ?? null
  const before = c.onNow
    .slice(0, -1)
    .filter((r) => typeof r.feel?.rating === 'number' && comparable(c.h, r, last, undefined, besides).equal)
  if (rating === null || before.length === 0) return null
  // The rider's own comparison says more than two numbers do.
  if (last.feel!.verdicts.some((v) => v.value >= 0 && before.some((r) => r.run.id === v.againstRunId)))
    return null
  const { surface } = c.outlook()
  const noiseSd = surface.noiseSd.reduce((t, x) => t + x, 0) / surface.samples
  const mean = before.reduce((t, r) => t + r.feel!.rating!, 0) / before.length
  if (mean - rating < Math.max(leastFall, scatters * noiseSd * Math.sqrt(1 + 1 / before.length))) return null
  const runs = before.map((r) => r.number)
  return reason(
    `Rated ${rating} on run ${last.number}; on the same settings ${mean.toFixed(1)} on run${runs.length > 1 ? 's' : ''} ${runs.join(', ')}`,
    last.run.id,
  )
}
