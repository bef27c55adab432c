import type { Cause } from '#contract/proposal'
import { answersOf } from '../remedies.ts'
import type { Climb } from './climb.ts'

const leadsFrom = 0.35
/** An opposite cause this near keeps a leader from leading. */
const clearOf = 1.5

/** The cause that clearly leads, if one does: likely by itself, and no rival of the opposite turn near it. */
export function leadingCause(c: Climb): Cause | null {
  const [top] = c.causes()
  if (!top || top.kind === 'none' || top.kind === 'line-or-rider' || top.probability < leadsFrom) return null
  const turns = answersOf(top.kind, top.end, c.space)
  const opposed = c
    .causes()
    .slice(1)
    .some(
      (x) =>
        top.probability < clearOf * x.probability &&
        answersOf(x.kind, x.end, c.space).some((a) =>
          turns.some((t) => t.adjuster.id === a.adjuster.id && t.direction !== a.direction),
        ),
    )
  return opposed ? null : top
}
