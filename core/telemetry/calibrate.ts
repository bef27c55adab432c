import type { ColumnMapping, ManyPoint, PressureCalibration, TwoPoint } from '#contract/recording'
import { InputError } from '../errors.ts'
import { mmPerInch } from '../units/convert.ts'

type Calibration = NonNullable<ColumnMapping['calibration']>

export const isTwoPoint = (c: Calibration | null): c is TwoPoint => c !== null && 'extendedReading' in c
export const isManyPoint = (c: Calibration | null): c is ManyPoint => c !== null && 'points' in c
export const isPressure = (c: Calibration | null): c is PressureCalibration =>
  c !== null && 'compressionRatio' in c

/**
 * Turns readings of a travel channel into mm along the unit, in place: by two points, by many (straight between them and
 * on beyond the outer ones), or from its unit.
 *
 * @throws InputError 'calibration.equal', 'calibration.wrong-kind'
 */
export function readingsToMm(x: Float64Array, c: ColumnMapping, strokeMm: number): void {
  const { calibration } = c
  if (isPressure(calibration)) throw new InputError('calibration.wrong-kind')
  if (isTwoPoint(calibration)) {
    const { extendedReading, compressedReading, compressedMm } = calibration
    if (extendedReading === compressedReading)
      throw new InputError('calibration.equal', { got: extendedReading })
    const mmPerReading = compressedMm / (compressedReading - extendedReading)
    for (let i = 0; i < x.length; i++) x[i] = (x[i] - extendedReading) * mmPerReading
  } else if (isManyPoint(calibration)) {
    const rising = [...calibration.points].sort((a, b) => a.reading - b.reading)
    for (let i = 0; i < x.length; i++) x[i] = mmAt(rising, x[i])
  } else {
    const mmPer = mmPerUnit(c.unit, strokeMm)
    if (mmPer !== 1) for (let i = 0; i < x.length; i++) x[i] *= mmPer
  }
}

/** mm for one of a unit of travel. @param fullMm what 100 % stands for */
export function mmPerUnit(unit: ColumnMapping['unit'], fullMm: number): number {
  switch (unit) {
    case 'pct':
      return fullMm / 100
    case 'fraction':
      return fullMm
    case 'cm':
      return 10
    case 'in':
      return mmPerInch
    case 'm':
      return 1000
    default:
      return 1
  }
}

function mmAt(points: readonly { reading: number; mm: number }[], reading: number): number {
  if (reading !== reading) return NaN
  let k = 1
  while (k < points.length - 1 && reading > points[k].reading) k++
  const [a, b] = [points[k - 1], points[k]]
  return a.mm + ((b.mm - a.mm) * (reading - a.reading)) / (b.reading - a.reading)
}
