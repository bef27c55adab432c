import type { End } from '#contract/common'
import type { Proposal } from '#contract/proposal'
import { facts } from '../../causes/factRules.ts'
import { mostPreloadTurns } from '../../spring/coil.ts'
import { strokePct } from '../../spring/sag.ts'
import { plain } from '../cards.ts'
import { cautionFor, stepWords } from '../change.ts'
import type { Climb } from './climb.ts'
import { wasRiddenNear } from './riddenNear.ts'

const collarStepTurns = 0.25

/**
 * The collar of a coil for the target sag: under the same load what it takes up of the spring the sag loses, mm for mm.
 * A spring that stands too high gets its preload out first, as far as there is any; one that stands too deep gets up to two
 * turns, and only where they are enough. null: that is a matter of another spring.
 *
 * Source: F = K·(x + preload) of `core/spring/coil.ts`, at the same F.
 */
export function byPreload(c: Climb, end: End, sagPct: number): Proposal | null {
  const unit = c.space[end]!
  const collar = unit.adjusters.find((a) => a.role === 'preload')
  const from = collar && c.positions.get(collar.id)
  if (unit.spring !== 'coil' || collar?.kind !== 'turn' || from === undefined) return null
  const turnsIn = collar.turns - from
  const missingMm = ((sagPct - unit.sagTargetPct) / 100) * unit.strokeMm
  const step = Math.max(collarStepTurns, collar.stepTurns)
  const wanted = Math.round((turnsIn + missingMm / unit.preloadPitchMm) / step) * step
  const most = Math.max(turnsIn, Math.min(mostPreloadTurns, collar.turns))
  const to = collar.turns - Math.min(most, Math.max(0, wanted))
  const left = sagPct + strokePct((to - from) * unit.preloadPitchMm, unit.strokeMm)
  const goesIn = to < from
  if (Math.abs(to - from) < step / 2 || wasRiddenNear(c, collar.id, to, step / 2)) return null
  if (goesIn && Math.abs(left - unit.sagTargetPct) > facts.sagRightPct) return null
  const short = Math.abs(left - unit.sagTargetPct) > facts.sagRightPct
  return {
    ...plain(
      'change',
      stepWords(end, collar, from, to, c.space),
      `The spring first: it should stand near ${Math.round(left)} % there.${short ? ' The rest is a softer spring.' : ''} Read sag again before you ride.`,
      'If sag is right and the complaint stays, it was a damper.',
    ),
    moves: [{ end, adjusterId: collar.id, from, to }],
    caution: cautionFor(collar),
  }
}
