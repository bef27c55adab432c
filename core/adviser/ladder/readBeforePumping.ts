import type { End } from '#contract/common'
import type { Cause } from '#contract/proposal'
import { knownSagPct } from '../../setup/sagOf.ts'
import { adjusterName } from '../../adjusters/words.ts'
import { reason } from '../cards.ts'
import { movedToday } from '../decide.ts'
import { hasAskedEnough, type Climb, type Rung } from './climb.ts'
import { sagFirst } from './sagFirst.ts'
import { sensorSays } from './sensorSays.ts'
import { usefulOf } from './turn.ts'

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
  if (!spring || !unit || movedToday(c.h).has(spring.adjuster.id) || !isAlive(c, spring.end)) return null
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

const aliveFrom = 0.1
/** A ride rated so has nothing to look for at the pump, unless a word speaks of a spring, or there was none. */
const wellRated = 7
const kinds: readonly Cause['kind'][] = [
  'spring-soft',
  'spring-firm',
  'ramp-low',
  'ramp-high',
  'nose-low',
  'nose-high',
]

function isAlive(c: Climb, end: End): boolean {
  const last = c.onNow[c.onNow.length - 1]?.feel ?? null
  return (
    (last?.rating !== null && last?.rating !== undefined && last.rating < wellRated) ||
    last?.marks.length === 0 ||
    c.causes().some((x) => kinds.includes(x.kind) && (x.end ?? end) === end && x.probability >= aliveFrom)
  )
}
