import { adjusterName, positionWords } from '../../adjusters/words.ts'
import { adjusterRange } from '../../adjusters/range.ts'
import { wordRules } from '../../causes/words.ts'
import { plain, reason } from '../cards.ts'
import { cautionFor, stepWords } from '../change.ts'
import { movedToday } from '../decide.ts'
import { rememberedPlace } from '../memory/words.ts'
import { remedyMoves } from '../remedies.ts'
import type { Rung } from './climb.ts'
import { complaintsOf } from './complaint.ts'
import { leadingCause } from './leading.ts'

/** Nearer than so many steps to where earlier days liked it, a dial stands there. */
const awaySteps = 1.5

/**
 * Today's complaint asks for a dial further away from where earlier days found it best. Something else may have changed:
 * looked for first; said again on the same settings, today's word goes before what earlier days knew.
 */
export const againstMemory: Rung = (c) => {
  const cause = leadingCause(c)
  const mark = cause && complaintsOf(c).find((m) => cause.evidence.some((e) => e.link.word === m.word))
  const move = mark && remedyMoves(cause.kind, cause.end, c.space, c.positions)[0]
  if (!mark || !move || move.sideEffect || movedToday(c.h).has(move.adjuster.id)) return null
  const dial = c.outlook().dials.find((d) => d.adjuster.id === move.adjuster.id)
  const place = c.h.memory?.dials.find((x) => x.adjusterId === move.adjuster.id)?.place
  if (!dial || !place || move.adjuster.kind !== 'click') return null
  const best = rememberedPlace(dial, place)
  // A place that is hardly known is no other way.
  const away = Math.max(awaySteps * adjusterRange(move.adjuster).step, place.sd)
  if (Math.sign(best - move.from) === move.direction || Math.abs(best - move.from) < away) return null
  const name = `${move.end} ${adjusterName(move.adjuster).toLowerCase()}`
  const last = c.onNow[c.onNow.length - 1]
  const known = reason(
    `Earlier days: ${name} is best near ${positionWords(move.adjuster, best, c.space.units)}, the other way`,
  )
  const word = reason(`“${wordRules[mark.word].label}” on run ${last.number}`, last.run.id)
  if (c.onNow.length === 1)
    return {
      ...plain(
        'check-first',
        'Not as on your earlier days: look what has changed',
        `“${wordRules[mark.word].label}” asks for the ${name} further away from where it was best. Air, tyres, temperature, a new part, another line? Put right what is found, and ride the same again.`,
        `“${wordRules[mark.word].label}” again, with nothing else changed: then today counts.`,
      ),
      speaksFor: [word],
      speaksAgainst: [known],
      causes: c.causes(),
    }
  return {
    ...plain(
      'change',
      stepWords(move.end, move.adjuster, move.from, move.to, c.space),
      'Said more than once today, with nothing else found: today goes before earlier days.',
      'If it is worse, turn it back: then it was not this dial.',
    ),
    moves: [{ end: move.end, adjusterId: move.adjuster.id, from: move.from, to: move.to }],
    speaksFor: [word],
    speaksAgainst: [known],
    caution: cautionFor(move.adjuster),
    causes: c.causes(),
  }
}
