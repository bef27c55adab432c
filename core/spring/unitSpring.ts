import type { SuspensionUnit } from '#contract/unit'
import { forkAir, shockAir, type AirSpringShape } from './air.ts'

/** Air spring of a unit with its piston area. */
export interface UnitAir {
  shape: AirSpringShape
  pistonAreaCm2: number
  /** Whether these are the unit's own figures or the usual ones for its kind. */
  own: boolean
}

/**
 * Piston areas for which the default shapes agree with the trade's 1:1 rules at 80 kg: 80 psi at 20 % (fork),
 * 176 psi at 30 % behind a leverage of 2.7 (shock). Starting points, not measurements.
 */
const usualAreaCm2 = { front: 12.5, rear: 17 }

export function unitAir(unit: Pick<SuspensionUnit, 'end' | 'airSpring'>): UnitAir {
  const { airSpring, end } = unit
  if (!airSpring) {
    return { shape: end === 'front' ? forkAir : shockAir, pistonAreaCm2: usualAreaCm2[end], own: false }
  }
  const { pistonAreaCm2, ...shape } = airSpring
  return { shape, pistonAreaCm2, own: true }
}
