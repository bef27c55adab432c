import type { End } from '#contract/common'
import type { Proposal } from '#contract/proposal'
import { clampToRange } from '../../adjusters/range.ts'
import { springCauses } from '../../causes/kinds.ts'
import { wordRules } from '../../causes/words.ts'
import { knownSagPct } from '../../setup/sagOf.ts'
import { say, canonicalUnits } from '../../units/choice.ts'
import { plain, reason } from '../cards.ts'
import { cautionFor, stepWords } from '../change.ts'
import { hasAskedEnough, saidOf, type Climb, type Rung } from './climb.ts'
import { wasRiddenNear } from './riddenNear.ts'

/** This far from its own chart, as a share, a pressure is looked at before any damper. */
const farFrom = 0.15

/**
 * Sag is unread, but the unit's own chart gives another pressure for this rider, and it sounds like it: the pressure goes
 * to the chart first. The chart is where a maker would start; sag, read there, has the last word.
 */
export const springByChart: Rung = (c) => atEnd(c, 'front') ?? atEnd(c, 'rear')

function atEnd(c: Climb, end: End): Proposal | null {
  const unit = c.space[end]
  const air = unit?.adjusters.find((a) => a.role === 'main-pressure')
  const psi = air && c.positions.get(air.id)
  const chart = c.h.ownCharts.find((x) => x.unitId === unit?.id)
  if (!unit || air?.kind !== 'pressure' || psi === undefined || !chart || !c.now || hasAskedEnough(c))
    return null
  if (knownSagPct(c.h.setups, c.now, unit) !== null || c.onNow[c.onNow.length - 1]?.analysis?.whole[end])
    return null
  if (Math.abs(chart.psi / psi - 1) < farFrom) return null
  const firmer = chart.psi > psi
  const wrong = springCauses[firmer ? 0 : 1]
  const said = saidOf(c, end).find(({ mark }) =>
    wordRules[mark.word].causes.some((x) => x.kind === wrong && (x.at === 'same' || x.at === end)),
  )
  const to = clampToRange(air, Math.round(chart.psi / air.stepPsi) * air.stepPsi)
  if (!said || wasRiddenNear(c, air.id, to)) return null
  const units = c.space.units ?? canonicalUnits
  return {
    ...plain(
      'change',
      stepWords(end, air, psi, to, c.space),
      'The spring first, by its own chart. Then read sag: that has the last word. Its rebound follows: check it at the kerb.',
      'If sag reads right where it stands now, the chart does not fit this bike.',
    ),
    moves: [{ end, adjusterId: air.id, from: psi, to }],
    speaksFor: [
      reason(
        `${say('pressure', psi, units)} now; its own chart (${chart.source}) gives ${say('pressure', chart.psi, units)} for this rider`,
      ),
      reason(`“${wordRules[said.mark.word].label}” on run ${said.run.number}`, said.run.run.id),
      reason('Nobody has read sag at this pressure'),
    ],
    caution: cautionFor(air),
    causes: c.causes(),
  }
}
