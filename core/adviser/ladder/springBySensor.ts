import { clampToRange } from '../../adjusters/range.ts'
import { rideHeightOffPct, springBandPct } from '../../causes/metricRules.ts'
import { knownSagPct } from '../../setup/sagOf.ts'
import { forAndAgainst, plain } from '../cards.ts'
import { cautionFor, stepWords } from '../change.ts'
import { rideHeightTargets } from '../history.ts'
import { oneStep } from '../remedies.ts'
import { solveOne } from '../sagWish.ts'
import type { Rung } from './climb.ts'
import { sensorSays } from './sensorSays.ts'
import { wasRiddenNear } from './riddenNear.ts'
import { bestOf } from './useful.ts'

/**
 * The next turn is a main pressure that a sensor shows to be far off, and nobody has read its sag: it goes to the edge of
 * what a right spring may show under way, by the solver. Ride height is not sag on the bench, so no further; a usual step
 * would take a day for it.
 */
export const springBySensor: Rung = (c) => {
  const best = bestOf(c)
  const last = c.onNow[c.onNow.length - 1]
  if (!best || best.steps.length !== 1 || !c.now || !last?.analysis) return null
  const [step] = best.steps
  const { adjuster: air, end } = c.outlook().dials[step.dial]
  const unit = c.space[end]
  const m = last.analysis.whole[end]
  const from = c.positions.get(air.id)
  const target = rideHeightTargets(c.space, last.analysis.rearAt)[end]
  if (!unit || !m || target === null || from === undefined) return null
  if (air.kind !== 'pressure' || air.role !== 'main-pressure') return null
  if (!sensorSays(c, end) || knownSagPct(c.h.setups, c.now, unit) !== null) return null
  const offPct = rideHeightOffPct(m, target)
  if (Math.sign(offPct) !== Math.sign(step.to - step.from)) return null
  const spacerDial = unit.adjusters.find((a) => a.role === 'spacers')
  // Where the sensor sits at the wheel, a point of its travel is so much of the stroke.
  const ofStroke = unit.sagTargetPct / target
  const edgePct = Math.sign(offPct) * springBandPct
  const { pressurePsi } = solveOne({ ...unit, sagTargetPct: (target + edgePct) * ofStroke }, air, {
    sagPct: (target + offPct) * ofStroke,
    pressurePsi: from,
    spacers: (spacerDial && c.positions.get(spacerDial.id)) ?? 0,
  })
  const to = clampToRange(air, Math.round(pressurePsi / air.stepPsi) * air.stepPsi)
  const usual = oneStep(air, from, offPct > 0 ? 1 : -1)
  if (usual === null || Math.abs(to - from) <= Math.abs(usual - from) || wasRiddenNear(c, air.id, to))
    return null
  const cause = c
    .causes()
    .find((x) => x.end === end && x.kind === (offPct > 0 ? 'spring-soft' : 'spring-firm'))
  return {
    ...plain(
      'change',
      stepWords(end, air, from, to, c.space),
      'The spring first: to where its sensor may stand on a right one. Read sag there before you ride: that has the last word. Its rebound follows: check it at the kerb.',
      'If ride height comes right and the complaint stays, it was a damper.',
    ),
    moves: [{ end, adjusterId: air.id, from, to }],
    ...(cause ? forAndAgainst(cause) : {}),
    caution: cautionFor(air),
    causes: c.causes(),
  }
}
