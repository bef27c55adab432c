import { knownSagPct } from '../../setup/sagOf.ts'
import { adjusterName } from '../../adjusters/words.ts'
import { plain, reason } from '../cards.ts'
import { movedToday } from '../decide.ts'
import { hasAskedEnough, type Rung } from './climb.ts'
import { usefulOf } from './turn.ts'

/**
 * The next turn would be a main spring whose sag nobody has read: reading it costs a minute and says how far, or that it is
 * not the spring. Asked once; who turned it without reading is not asked again.
 */
export const readBeforePumping: Rung = (c) => {
  const [best] = usefulOf(c)
  if (!best || !c.now || hasAskedEnough(c)) return null
  const { dials } = c.standing()
  const spring = best.steps
    .map((s) => dials[s.dial])
    .find((d) => d.adjuster.role === 'main-pressure' || d.adjuster.role === 'spring-rate')
  const unit = spring && c.space[spring.end]
  if (!spring || !unit || movedToday(c.h).has(spring.adjuster.id)) return null
  const seen = c.onNow[c.onNow.length - 1]?.analysis?.whole[spring.end]
  if (seen || knownSagPct(c.h.setups, c.now, unit) !== null) return null
  return {
    ...plain(
      'read',
      `Read the ${spring.end} sag first`,
      'The next turn would be its spring. A minute tells how far, or that the spring is right and it is something else.',
      'Sag read on this very pressure.',
    ),
    speaksFor: [
      reason(
        `The ${spring.end} ${adjusterName(spring.adjuster).toLowerCase()} promises most, and nobody has read sag there`,
      ),
    ],
    readEnd: spring.end,
    causes: c.causes(),
  }
}
