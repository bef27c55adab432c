import { facts } from '../../causes/factRules.ts'
import { causeLabel, springCauses } from '../../causes/kinds.ts'
import { knownSagPct } from '../../setup/sagOf.ts'
import { reason } from '../cards.ts'
import type { Rung } from './climb.ts'
import { byAir } from './springToTarget.ts'
import { bestOf } from './useful.ts'

/**
 * The next turn is air, and sag was read on the side it leaves, inside of its window but not at its target: it goes there,
 * not by a usual step.
 */
export const restOfTheWay: Rung = (c) => {
  const [step, ...more] = bestOf(c)?.steps ?? []
  if (!step || more.length > 0 || !c.now) return null
  const { adjuster: air, end } = c.outlook().dials[step.dial]
  const unit = c.space[end]
  const sag = unit ? knownSagPct(c.h.setups, c.now, unit) : null
  if (!unit || sag === null || air.kind !== 'pressure' || air.role !== 'main-pressure') return null
  const by = sag - unit.sagTargetPct
  if (Math.abs(by) < facts.sagRightPct || Math.sign(by) !== Math.sign(step.to - step.from)) return null
  const card = byAir(c, end, air, sag)
  const cause = c.causes().find((x) => x.end === end && springCauses.includes(x.kind))
  return (
    card && {
      ...card,
      speaksFor: [
        reason(`The ${end} sag was read at ${Math.round(sag)} %, its target is ${unit.sagTargetPct} %`),
        ...(cause ? [reason(`It may be the ${causeLabel(cause.kind, end)}`)] : []),
      ],
      causes: c.causes(),
    }
  )
}
