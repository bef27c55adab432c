import { wordRules } from '../../causes/words.ts'
import { markCauses } from '../../causes/marks.ts'
import { knownSagPct } from '../../setup/sagOf.ts'
import { reason } from '../cards.ts'
import { answersOf } from '../remedies.ts'
import { hasAskedEnough, type Rung } from './climb.ts'
import { complaintsOf } from './complaint.ts'
import { sagFirst } from './sagFirst.ts'
import { bestOf } from './useful.ts'

/**
 * What the sensors ask for is the opposite of what every cause of the rider's word asks of the same dial. Both may be
 * right where the spring is wrong: sag is read before the dial is turned against the word.
 */
export const wordAgainstFigure: Rung = (c) => {
  const best = bestOf(c)
  const last = c.onNow[c.onNow.length - 1]
  if (!best || !c.now || !last?.analysis || hasAskedEnough(c)) return null
  const { dials } = c.outlook()
  for (const step of best.steps) {
    const { adjuster, end } = dials[step.dial]
    const unit = c.space[end]
    const spring = unit?.adjusters.some((a) => a.role === 'main-pressure' || a.role === 'spring-rate')
    if (!unit || !spring || knownSagPct(c.h.setups, c.now, unit) !== null) continue
    const against = complaintsOf(c).find((m) => {
      if (m.end !== end && m.end !== 'both') return false
      const turns = markCauses(m.word, end, null)
        .flatMap((x) => answersOf(x.kind, x.end, c.space))
        .filter((t) => t.adjuster.id === adjuster.id)
      return turns.length > 0 && turns.every((t) => t.direction !== Math.sign(step.to - step.from))
    })
    if (against)
      return sagFirst(
        c,
        end,
        'The sensor asks for one turn, the word for the other. A spring that is wrong makes both: a minute tells.',
        [
          reason(`“${wordRules[against.word].label}” on run ${last.number}`, last.run.id),
          ...(c
            .causes()[0]
            ?.evidence.filter((e) => e.link.kind === 'metric' && e.weight > 0)
            .slice(0, 2) ?? []),
        ],
      )
  }
  return null
}
