import { isComplaint } from '../../causes/words.ts'
import { knownSagPct } from '../../setup/sagOf.ts'
import { answerTo } from '../answers.ts'
import { reason } from '../cards.ts'
import { movedToday } from '../decide.ts'
import { hasAskedEnough, isRemembered, type Rung } from './climb.ts'
import { pointedOut } from './pointing.ts'
import { sagFirst } from './sagFirst.ts'
import { usefulOf } from './useful.ts'

/** Rated below, something is clearly wrong. */
const poorBelow = 6
const otherEnd = { front: 'rear', rear: 'front' } as const

/**
 * A poor ride of which nobody said where or how: before a damper is turned on a guess, sag is read at both ends. A spring
 * that is wrong is found in a minute, and no damper repairs it. Not again on an end whose spring was turned today.
 */
export const readWhereNothingPoints: Rung = (c) => {
  const rating = c.onNow[c.onNow.length - 1]?.feel?.rating ?? null
  if (!c.now || rating === null || rating >= poorBelow || hasAskedEnough(c)) return null
  if (c.onNow.some((r) => r.feel?.marks.some((m) => isComplaint(m.word)))) return null
  if (pointedOut(c)) return null
  const worse = answerTo(c.onNow, 'which-end', null)?.answer
  const [best] = usefulOf(c)
  const { dials } = c.outlook()
  // What earlier days know of a dial points there.
  if (!best || best.steps.some((s) => isRemembered(c, dials[s.dial].adjuster.id))) return null
  const moved = movedToday(c.h)
  for (const end of ['rear', 'front'] as const) {
    if (worse === otherEnd[end]) continue
    const unit = c.space[end]
    const spring = unit?.adjusters.find((a) => a.role === 'main-pressure' || a.role === 'spring-rate')
    if (!unit || !spring || moved.has(spring.id) || knownSagPct(c.h.setups, c.now, unit) !== null) continue
    return sagFirst(
      c,
      end,
      'Nothing was said that points anywhere. A minute tells whether the spring is right, before a dial is turned on a guess.',
      [reason('Rated low, and nobody said where or how: a spring that is wrong no dial repairs')],
    )
  }
  return null
}
