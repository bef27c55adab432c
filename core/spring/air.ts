import { InputError } from '../errors.ts'
import { rootOfRising } from '../numeric/root.ts'
import { paPerPsi } from '../units/convert.ts'

/** Geometry of an air spring, all ratios; defaults are stated starting points, editable per unit. */
export interface AirSpringShape {
  /** Compression ratio without spacers. */
  cr0: number
  /** One spacer's volume over swept volume. */
  spacerShare: number
  /** Negative chamber volume at full extension over swept volume. */
  negativeShare: number
  /** Negative piston area over positive. */
  areaShare: number
  /** Stroke share at which the chambers equalise. */
  equaliseAt: number
}

export const forkAir: AirSpringShape = {
  cr0: 2.2,
  spacerShare: 0.06,
  negativeShare: 0.25,
  areaShare: 0.92,
  equaliseAt: 0.04,
}
export const shockAir: AirSpringShape = {
  cr0: 2.6,
  spacerShare: 0.05,
  negativeShare: 0.45,
  areaShare: 0.85,
  equaliseAt: 0.04,
}

export const seaLevelPa = 101325

/**
 * Net gauge pressure on the positive piston at stroke share u; force = area · this.
 * Polytropic chambers: p·V^m constant; the negative chamber is filled through the transfer port at `equaliseAt`.
 * Ignores: bushing friction, heat exchange during the stroke, seal stretch.
 *
 * @param u           0 … 1 stroke share
 * @param pressurePsi gauge at full extension, > 0
 * @param options     spacers [pieces] = 0; exponent m = 1 (static; 1.3 moving); ambientPa = sea level
 * @returns psi
 * @throws InputError 'air.pressure', 'air.spacers'
 */
export function netPressurePsi(
  u: number,
  pressurePsi: number,
  shape: AirSpringShape,
  options: { spacers?: number; exponent?: number; ambientPa?: number } = {},
): number {
  const { spacers = 0, exponent = 1, ambientPa = seaLevelPa } = options
  if (!(pressurePsi > 0)) throw new InputError('air.pressure', { got: pressurePsi })
  const k = chamberShare(shape, spacers)
  const ambientPsi = ambientPa / paPerPsi
  const absolute = pressurePsi + ambientPsi
  const positive = absolute * Math.pow(1 / (1 - k * u), exponent)
  const atPort = absolute / (1 - k * shape.equaliseAt)
  const negative =
    atPort * Math.pow((shape.negativeShare + shape.equaliseAt) / (shape.negativeShare + u), exponent)
  return positive - ambientPsi - shape.areaShare * (negative - ambientPsi)
}

/** Share of the stroke that the gas has settled at, and how warm it is against the moment it was filled. */
export interface Settled {
  restShare: number
  /** Absolute temperature of the gas over that at filling. */
  warmth: number
}

/**
 * Chamber pressures while riding: the gas is as warm as its surroundings at the depth it dwells at (static, m = 1, up
 * to there) and follows p·V^m = constant for quick moves about it. The negative chamber is small and all wall, so it
 * stays isothermal.
 *
 * @param u 0 … 1 stroke share
 * @returns gauge psi of the positive chamber, and net on the positive piston; at u = restShare and warmth 1 the net is
 * that of `netPressurePsi` with m = 1
 */
export function ridingPressurePsi(
  u: number,
  pressurePsi: number,
  shape: AirSpringShape,
  settled: Settled,
  options: { spacers?: number; exponent?: number; ambientPa?: number } = {},
): { chamberPsi: number; netPsi: number } {
  const { spacers = 0, exponent = 1.3, ambientPa = seaLevelPa } = options
  const k = chamberShare(shape, spacers)
  const ambientPsi = ambientPa / paPerPsi
  const filled = (pressurePsi + ambientPsi) * settled.warmth
  const { restShare } = settled
  const { negativeShare: nu, equaliseAt: ue } = shape
  const positive = (filled / (1 - k * restShare)) * Math.pow((1 - k * restShare) / (1 - k * u), exponent)
  const negative = ((filled / (1 - k * ue)) * (nu + ue)) / (nu + u)
  return {
    chamberPsi: positive - ambientPsi,
    netPsi: positive - ambientPsi - shape.areaShare * (negative - ambientPsi),
  }
}

const mostPsi = 500

/**
 * Pressure at which the spring holds a load at a stroke share; static, m = 1.
 *
 * @param loadPsi the load over the piston area, as `netPressurePsi` gives it
 * @returns psi gauge at full extension
 * @throws InputError 'root.not-bracketed' when no pressure between 1 and 500 psi does it
 */
export function pressureForLoadPsi(
  loadPsi: number,
  u: number,
  shape: AirSpringShape,
  options: { spacers?: number; ambientPa?: number } = {},
): number {
  return rootOfRising((p) => netPressurePsi(u, p, shape, options) - loadPsi, 1, mostPsi)
}

/**
 * Stroke share at which the spring holds a load; static, m = 1.
 * @returns 0 … 1; 0 when it holds the load at full extension, 1 when it cannot hold it at all
 */
export function strokeShareAt(
  loadPsi: number,
  pressurePsi: number,
  shape: AirSpringShape,
  options: { spacers?: number; ambientPa?: number } = {},
): number {
  const miss = (u: number) => netPressurePsi(u, pressurePsi, shape, options) - loadPsi
  if (miss(0) >= 0) return 0
  if (miss(1) <= 0) return 1
  return rootOfRising(miss, 0, 1)
}

/** Slope of `netPressurePsi` over the stroke share, psi per whole stroke; analytic. */
export function netSlopePsi(
  u: number,
  pressurePsi: number,
  shape: AirSpringShape,
  options: { spacers?: number; exponent?: number; ambientPa?: number } = {},
): number {
  const { spacers = 0, exponent: m = 1, ambientPa = seaLevelPa } = options
  const k = chamberShare(shape, spacers)
  const absolute = pressurePsi + ambientPa / paPerPsi
  const positive = absolute * m * k * Math.pow(1 - k * u, -m - 1)
  const { negativeShare: nu, equaliseAt: ue, areaShare } = shape
  const negative = ((absolute / (1 - k * ue)) * m * Math.pow((nu + ue) / (nu + u), m)) / (nu + u)
  return positive + areaShare * negative
}

/** k = swept over chamber volume; each spacer takes its share off the chamber. @throws InputError 'air.spacers' */
export function chamberShare(shape: AirSpringShape, spacers: number): number {
  const k0 = 1 - 1 / shape.cr0
  const k = 1 / (1 / k0 - spacers * shape.spacerShare)
  if (!(k > 0 && k < 1)) {
    throw new InputError('air.spacers', { max: Math.floor((1 / k0 - 1) / shape.spacerShare - 1e-9) })
  }
  return k
}
