import { InputError } from '../errors.ts'

/**
 * Sag as a share of the unit's own travel.
 * sagPct = 100 · ringMm / strokeMm. Definition of the trade; fork: travel, shock: stroke.
 * What a ring can read is checked where it is read (`readRing`); a stroke corrected later may leave more than 100.
 *
 * @param ringMm   wiper to the ring's edge that faces it, mm
 * @param strokeMm > 0
 */
export const strokePct = (ringMm: number, strokeMm: number): number => (100 * ringMm) / strokeMm

/** What one reading of a ring is good for, mm either way. */
export const ringPrecisionMm = 1

/** Half the width of the target window where the reading is fine enough for it, % points. */
const finestWindowPct = 1.5

/**
 * Half the width of the target window, % points: on the sag ruler, the printed strip and in every verdict. Never finer
 * than a ring can be read: ±1 mm is ±1.8 % of 55 mm.
 *
 * @param strokeMm > 0
 */
export const sagWindowPct = (strokeMm: number): number =>
  Math.max(finestWindowPct, strokePct(ringPrecisionMm, strokeMm))

/** Ring reading that a sag target asks for, mm. @throws InputError 'sag.stroke' */
export function sagTargetMm(targetPct: number, strokeMm: number): number {
  if (!(strokeMm > 0)) throw new InputError('sag.stroke', { got: strokeMm })
  return (targetPct / 100) * strokeMm
}
