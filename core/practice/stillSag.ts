import type { SuspensionUnit } from '#contract/unit'
import { normalFrom } from '../numeric/random.ts'
import { netPressurePsi, strokeShareAt, type AirSpringShape } from '../spring/air.ts'
import { shareBounds, shareSpreadLn } from '../spring/solver.ts'
import { unitAir } from '../spring/unitSpring.ts'

/** The air spring of one unit, which is not quite that of its kind. */
export function ownShape(unit: Pick<SuspensionUnit, 'end' | 'airSpring'>, of: () => number): AirSpringShape {
  const { shape } = unitAir(unit)
  const drawn = shape.negativeShare * Math.exp(shareSpreadLn * normalFrom(of))
  return { ...shape, negativeShare: Math.min(shareBounds[1], Math.max(shareBounds[0], drawn)) }
}

/**
 * Still sag of a rider whose target sag stands at one pressure, at another: the load is what the spring holds there.
 * By the air spring of docs/models.md, "Pressure for a sag target".
 *
 * @returns % of the stroke
 */
export function stillSagPct(
  shape: AirSpringShape,
  target: { sagPct: number; psi: number },
  psi: number,
  spacers: number,
): number {
  const load = netPressurePsi(target.sagPct / 100, target.psi, shape, { spacers })
  return 100 * strokeShareAt(load, psi, shape, { spacers })
}
