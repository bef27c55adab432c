import { paPerPsi } from '../units/convert.ts'
import { chamberShare, netPressurePsi, pressureForLoadPsi, seaLevelPa, type AirSpringShape } from './air.ts'

/** Moving exponent: a fast stroke has no time to shed heat. */
const moving = 1.3

/** A spring with a number of spacers, brought to the same sag. */
export interface SpacerCase {
  spacers: number
  /** Gauge pressure for the same sag under the same load, psi. */
  pressurePsi: number
  /** Force at full travel over force at sag, both moving. */
  endRatio: number
  /** Energy to full travel over that of the present number. */
  energyRatio: number
}

/**
 * Force curve over the stroke, as multiples of the still load, moving (m = 1.3).
 * @param points number of equal steps; the result has points + 1 values, u = 0 … 1
 */
export function forceCurve(
  pressurePsi: number,
  spacers: number,
  loadPsi: number,
  shape: AirSpringShape,
  points = 100,
): Float64Array {
  const y = new Float64Array(points + 1)
  for (let i = 0; i <= points; i++)
    y[i] = netPressurePsi(i / points, pressurePsi, shape, { spacers, exponent: moving }) / loadPsi
  return y
}

/** Energy taken up to each depth: running integral of a force curve by the trapezium rule, load × stroke. */
export function energyCurve(force: Float64Array): Float64Array {
  const e = new Float64Array(force.length)
  const du = 1 / (force.length - 1)
  for (let i = 1; i < e.length; i++) e[i] = e[i - 1] + ((force[i - 1] + force[i]) / 2) * du
  return e
}

/** Energy to full travel over load × stroke: ∫ G du at m = 1.3, closed form. */
export function energyToBottom(
  pressurePsi: number,
  spacers: number,
  loadPsi: number,
  shape: AirSpringShape,
  ambientPa = seaLevelPa,
): number {
  const ambient = ambientPa / paPerPsi
  const absolute = pressurePsi + ambient
  const k = chamberShare(shape, spacers)
  const { negativeShare: nu, equaliseAt: ue, areaShare } = shape
  const m = moving
  const positive = (absolute * (Math.pow(1 - k, 1 - m) - 1)) / (k * (m - 1))
  const atPort = absolute / (1 - k * ue)
  const negative = (atPort * Math.pow(nu + ue, m) * (Math.pow(nu, 1 - m) - Math.pow(nu + 1, 1 - m))) / (m - 1)
  return (positive - ambient - areaShare * (negative - ambient)) / loadPsi
}

/**
 * What other numbers of spacers would do at the same sag.
 *
 * @param now     where it stands: still sag %, pressure at that sag, spacers
 * @param allowed most that the unit takes
 * @returns one case per number from now − 1 to now + 1 inside 0 … allowed; the present one always included
 * @throws InputError 'root.not-bracketed', 'air.spacers'
 */
export function spacerCases(
  now: { sagPct: number; pressurePsi: number; spacers: number },
  allowed: number,
  shape: AirSpringShape,
): SpacerCase[] {
  const u = now.sagPct / 100
  const load = netPressurePsi(u, now.pressurePsi, shape, { spacers: now.spacers })
  const base = energyToBottom(now.pressurePsi, now.spacers, load, shape)
  return [now.spacers - 1, now.spacers, now.spacers + 1]
    .filter((n) => n === now.spacers || (n >= 0 && n <= allowed))
    .map((spacers) => {
      const pressurePsi =
        spacers === now.spacers ? now.pressurePsi : pressureForLoadPsi(load, u, shape, { spacers })
      const at = (x: number) => netPressurePsi(x, pressurePsi, shape, { spacers, exponent: moving })
      return {
        spacers,
        pressurePsi,
        endRatio: at(1) / at(u),
        energyRatio: energyToBottom(pressurePsi, spacers, load, shape) / base,
      }
    })
}
