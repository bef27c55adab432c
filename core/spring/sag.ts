import { InputError } from '../errors.ts'
import { ringPrecisionMm } from './reading.ts'

/**
 * Sag as a share of the unit's own travel.
 * sagPct = 100 · ringMm / strokeMm. Definition of the trade; fork: travel, shock: stroke.
 *
 * @param ringMm   wiper to the ring's edge that faces it, mm, 0 … strokeMm
 * @param strokeMm > 0
 * @throws InputError 'sag.stroke', 'sag.negative', 'sag.ring-beyond-stroke'
 */
export function sagPct(ringMm: number, strokeMm: number): number {
  if (!(strokeMm > 0)) throw new InputError('sag.stroke', { got: strokeMm })
  if (!(ringMm >= 0)) throw new InputError('sag.negative')
  if (ringMm > strokeMm) throw new InputError('sag.ring-beyond-stroke', { ringMm, strokeMm })
  return (100 * ringMm) / strokeMm
}

/** Half the width of the target window where the reading is fine enough for it, % points. */
const finestWindowPct = 1.5

/**
 * Half the width of the target window, % points: on the sag ruler, the printed strip and in every verdict. Never finer
 * than a ring can be read: ±1 mm is ±1.8 % of 55 mm.
 *
 * @param strokeMm > 0
 */
export const sagWindowPct = (strokeMm: number): number =>
  Math.max(finestWindowPct, (100 * ringPrecisionMm) / strokeMm)

/** Ring reading that a sag target asks for, mm. @throws InputError 'sag.stroke' */
export function sagTargetMm(targetPct: number, strokeMm: number): number {
  if (!(strokeMm > 0)) throw new InputError('sag.stroke', { got: strokeMm })
  return (targetPct / 100) * strokeMm
}
