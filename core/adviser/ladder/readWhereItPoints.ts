import type { CauseKind } from '#contract/proposal'
import { isComplaint } from '../../causes/words.ts'
import { knownSagPct } from '../../setup/sagOf.ts'
import { movedToday } from '../decide.ts'
import { hasAskedEnough, type Rung } from './climb.ts'
import { pointedOut } from './pointing.ts'
import { sagFirst } from './sagFirst.ts'
import { sensorSays } from './sensorSays.ts'
import { happyRating } from './settle.ts'

/** What sag tells apart. */
const springOrRamp: readonly CauseKind[] = ['spring-soft', 'spring-firm', 'ramp-low', 'ramp-high']

/**
 * Nothing was complained of, it was no good ride, and a ring or an answer points at the spring of one end: its sag is read
 * before anything is tried at the other.
 */
export const readWhereItPoints: Rung = (c) => {
  const last = c.onNow[c.onNow.length - 1]
  if (!c.now || !last || (last.feel?.rating ?? happyRating) >= happyRating || hasAskedEnough(c)) return null
  if (c.onNow.some((r) => r.feel?.marks.some((m) => isComplaint(m.word)))) return null
  const cause = pointedOut(c)
  const unit = cause?.end && c.space[cause.end]
  if (!cause?.end || !unit || !springOrRamp.includes(cause.kind)) return null
  const spring = unit.adjusters.find((a) => a.role === 'main-pressure' || a.role === 'spring-rate')
  if (!spring || movedToday(c.h).has(spring.id) || sensorSays(c, cause.end)) return null
  if (knownSagPct(c.h.setups, c.now, unit) !== null) return null
  return sagFirst(
    c,
    cause.end,
    'Nobody said what was wrong, and this points at the spring there. A minute tells whether it is, or whether it wants more or less ramp.',
    cause.evidence.filter((e) => e.weight > 0),
  )
}
