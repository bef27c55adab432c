import type { SuspensionUnit } from '#contract/unit'
import { paPerPsi } from '../units/convert.ts'
import { chamberShare, seaLevelPa } from './air.ts'
import { unitAir } from './unitSpring.ts'

/** What a gauge shows for a true pressure. @param readsHighPsi what it shows too much */
export const shownByGaugePsi = (truePsi: number, readsHighPsi: number) => truePsi + readsHighPsi
/** The true pressure behind what a gauge shows. */
export const truePressurePsi = (shownPsi: number, readsHighPsi: number) => shownPsi - readsHighPsi

/** Positive chamber at full extension, cm³: swept volume over k. */
export function chamberCc(
  unit: Pick<SuspensionUnit, 'end' | 'airSpring' | 'strokeMm'>,
  spacers: number,
): number {
  const { shape, pistonAreaCm2 } = unitAir(unit)
  return (pistonAreaCm2 * unit.strokeMm) / 10 / chamberShare(shape, spacers)
}

/**
 * Pressure left after a pump is put on and its empty hose filled: (Pabs·Vc + Pa·Vh)/(Vc + Vh), Boyle–Mariotte.
 * @returns psi gauge
 */
export function afterReconnectPsi(
  gaugePsi: number,
  chamberVolumeCc: number,
  hoseCc: number,
  ambient = seaLevelPa,
): number {
  const outside = ambient / paPerPsi
  return ((gaugePsi + outside) * chamberVolumeCc + outside * hoseCc) / (chamberVolumeCc + hoseCc) - outside
}
