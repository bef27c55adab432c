import type { Cause, CauseKind, Proposal } from '#contract/proposal'
import { adjusterName } from '../../adjusters/words.ts'
import { causeLabel } from '../../causes/kinds.ts'
import { forAndAgainst, plain, reason } from '../cards.ts'
import { cautionFor, stepWords } from '../change.ts'
import { movedToday } from '../decide.ts'
import { answersOf, oneStep, ownOrStandIn, remedyMoves } from '../remedies.ts'
import { leadingCause } from './leading.ts'
import { hasAskedEnough, type Climb, type Rung } from './climb.ts'

/** What would answer a cause, where it is fitted. */
const dialFor: Partial<Record<CauseKind, string>> = {
  'rebound-fast': 'rebound dial',
  'rebound-slow': 'rebound dial',
  'lsc-closed': 'compression dial',
  'hsc-closed': 'compression dial',
}

/** Nothing fitted answers it: said so, before anything else is turned in its place. */
function notThere(c: Climb, cause: Cause): Proposal | null {
  const dial = dialFor[cause.kind]
  const isSaid = cause.evidence.some((e) => ['mark', 'answer'].includes(e.link.kind) && e.weight > 0)
  if (!dial || !cause.end || !isSaid || c.outlook().dials.length === 0) return null
  return {
    ...plain(
      'check-first',
      `The ${cause.end} has no ${dial} to turn`,
      `Everything speaks for ${causeLabel(cause.kind, cause.end)}, and nothing fitted answers that. Tyres and sag first, they are free; then it is oil or shims, for a workshop, or another unit.`,
      'Another word on the next run.',
    ),
    ...forAndAgainst(cause),
    causes: c.causes(),
  }
}

/**
 * The right dial for the leading cause (or all that stands in for one that is not fitted) stands at its stop: said so, then the nearest real substitute with its side
 * effect, then hardware. Never the same dial the other way.
 */
export const usedUp: Rung = (c) => {
  const cause = leadingCause(c)
  return cause && usedUpFor(c, cause)
}

/** The same for a cause that is known otherwise than by leading. */
export function usedUpFor(c: Climb, cause: Cause): Proposal | null {
  const answers = answersOf(cause.kind, cause.end, c.space)
  if (answers.length === 0) return hasAskedEnough(c) ? null : notThere(c, cause)
  const right = ownOrStandIn(answers)
  const read = right.filter((a) => c.positions.has(a.adjuster.id))
  const spent = read.filter((a) => oneStep(a.adjuster, c.positions.get(a.adjuster.id)!, a.direction) === null)
  if (read.length === 0 || spent.length < read.length) return null
  const [dial] = spent
  const name = `${dial.end} ${adjusterName(dial.adjuster).toLowerCase()}`
  const says = reason(
    dial.adjuster.kind === 'pressure'
      ? `The ${name} is at the ${dial.direction > 0 ? 'highest' : 'lowest'} that its unit may have`
      : `The ${name} is at its stop: its clicks are used up`,
  )
  const substitute = remedyMoves(cause.kind, cause.end, c.space, c.positions).find(
    (m) => m.adjuster.id !== dial.adjuster.id,
  )
  // Once a day: whether it helped is for the runs to say.
  if (substitute ? movedToday(c.h).has(substitute.adjuster.id) : hasAskedEnough(c)) return null
  const { speaksFor, speaksAgainst } = forAndAgainst(cause)
  if (substitute)
    return {
      ...plain(
        'change',
        stepWords(substitute.end, substitute.adjuster, substitute.from, substitute.to, c.space),
        `${dial.adjuster.kind === 'pressure' ? `The ${name} can go no further` : `The right dial, ${name}, is at its stop`}. This stands in for it: watch what else it changes.`,
        'If it costs more than it brings, turn it back: then it is hardware, or a workshop.',
      ),
      moves: [
        {
          end: substitute.end,
          adjusterId: substitute.adjuster.id,
          from: substitute.from,
          to: substitute.to,
        },
      ],
      speaksFor: [says, ...speaksFor],
      speaksAgainst,
      caution: [substitute.sideEffect, cautionFor(substitute.adjuster)].filter(Boolean).join(' '),
      causes: c.causes(),
    }
  return {
    ...plain(
      'check-first',
      `${name.charAt(0).toUpperCase()}${name.slice(1)}: no click left this way`,
      `Everything speaks for ${causeLabel(cause.kind, cause.end)}, and the dial is at its stop. Check the spring it works against first; then it is a matter of oil or shims, for a workshop.`,
      'Another word on the next run.',
    ),
    speaksFor: [says, ...speaksFor],
    speaksAgainst,
    causes: c.causes(),
  }
}
