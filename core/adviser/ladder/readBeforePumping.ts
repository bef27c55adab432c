import { knownSagPct } from '../../setup/sagOf.ts'
import { adjusterName } from '../../adjusters/words.ts'
import { reason } from '../cards.ts'
import { movedToday } from '../decide.ts'
import { hasAskedEnough, type Rung } from './climb.ts'
import { sagFirst } from './sagFirst.ts'
import { sensorSays } from './sensorSays.ts'
import { usefulOf } from './useful.ts'

/**
 * The next turn would be a main spring whose sag nobody has read: reading it costs a minute and says how far, or that it is
 * not the spring. Asked once; who turned it without reading is not asked again.
 */
export const readBeforePumping: Rung = (c) => {
  const [best] = usefulOf(c)
  if (!best || !c.now || hasAskedEnough(c)) return null
  const { dials } = c.outlook()
  const spring = best.steps
    .map((s) => dials[s.dial])
    .find((d) => d.adjuster.role === 'main-pressure' || d.adjuster.role === 'spring-rate')
  const unit = spring && c.space[spring.end]
  if (!spring || !unit || movedToday(c.h).has(spring.adjuster.id)) return null
  if (sensorSays(c, spring.end) || knownSagPct(c.h.setups, c.now, unit) !== null) return null
  return sagFirst(
    c,
    spring.end,
    'The next turn would be its spring. A minute tells how far, or that the spring is right and it is something else.',
    [
      reason(
        `The ${spring.end} ${adjusterName(spring.adjuster).toLowerCase()} promises most, and nobody has read sag there`,
      ),
    ],
  )
}
