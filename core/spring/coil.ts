import { InputError } from '../errors.ts'
import { ratioAt, type Leverage } from '../linkage/leverage.ts'
import { rootOfRising } from '../numeric/root.ts'
import { lbInToNPerMm, nPerMmToLbIn } from '../units/convert.ts'

/** Collar turns a linear coil should not exceed; beyond, another spring. */
export const mostPreloadTurns = 2

/** A coil: one rate, or a rate table over its compression. */
export interface CoilSpring {
  rateNPerMm: number
  /** Progressive springs: rate at points of the spring's compression, rising; null = linear. */
  ratePoints: readonly { atMm: number; nPerMm: number }[] | null
}

/**
 * Force of a coil compressed by shaft travel and preload: F = K·(x + preload); progressive: the integral of the rate,
 * straight between the rows, the last rate beyond them.
 *
 * @param travelMm ≥ 0
 * @returns N
 * @throws InputError 'coil.rate', 'coil.table'
 */
export function coilForceN(spring: CoilSpring, travelMm: number, preloadMm: number): number {
  const x = travelMm + preloadMm
  if (!spring.ratePoints) {
    if (!(spring.rateNPerMm > 0)) throw new InputError('coil.rate', { got: spring.rateNPerMm })
    return spring.rateNPerMm * x
  }
  const rows = spring.ratePoints
  if (rows.length < 2 || rows.some((r, i) => i > 0 && r.atMm <= rows[i - 1].atMm))
    throw new InputError('coil.table')
  let force = rows[0].nPerMm * Math.min(x, rows[0].atMm)
  for (let i = 1; i < rows.length && x > rows[i - 1].atMm; i++) {
    const [a, b] = [rows[i - 1], rows[i]]
    const d = Math.min(x, b.atMm) - a.atMm
    force += d * (a.nPerMm + (((b.nPerMm - a.nPerMm) / (b.atMm - a.atMm)) * d) / 2)
  }
  const end = rows[rows.length - 1]
  return x > end.atMm ? force + end.nPerMm * (x - end.atMm) : force
}

/** The unit a coil sits in. */
export interface CoilUnit {
  strokeMm: number
  pitchMm: number
  /** null at the front, or where the linkage is not known: then `meanLeverage` holds over the stroke. */
  leverage: Leverage | null
  /** Wheel travel over stroke; 1 at the front. */
  meanLeverage: number
}

const leverageAt = (unit: CoilUnit, shaftMm: number) =>
  unit.leverage ? ratioAt(unit.leverage, shaftMm).ratio : unit.meanLeverage

/** Still load at the axle behind a sag that was read: spring force over leverage there, N. */
export function axleLoadFromSagN(
  spring: CoilSpring,
  preloadTurns: number,
  sagMm: number,
  unit: CoilUnit,
): number {
  return coilForceN(spring, sagMm, preloadTurns * unit.pitchMm) / leverageAt(unit, sagMm)
}

/**
 * Where a coil stands under a still load at the axle: F(x) = W·LR(x).
 * @returns sag in mm of the shaft; 0 when preload alone holds the load, the stroke when it cannot
 */
export function coilSagMm(
  spring: CoilSpring,
  preloadTurns: number,
  axleLoadN: number,
  unit: CoilUnit,
): number {
  const miss = (x: number) =>
    coilForceN(spring, x, preloadTurns * unit.pitchMm) - axleLoadN * leverageAt(unit, x)
  if (miss(0) >= 0) return 0
  if (miss(unit.strokeMm) <= 0) return unit.strokeMm
  return rootOfRising(miss, 0, unit.strokeMm)
}

/** Rate that meets a target with no preload: K = W·LR/x_target, N/mm. */
export function wantedRateNPerMm(axleLoadN: number, targetPct: number, unit: CoilUnit): number {
  const x = (targetPct / 100) * unit.strokeMm
  return (axleLoadN * leverageAt(unit, x)) / x
}

export interface CoilChoice {
  spring: CoilSpring
  preloadTurns: number
  sagPct: number
  /** Off the target by less than this many % points counts as met. */
  meets: boolean
}

const metWithinPct = 1

/**
 * Springs for a target, best first. A spring softer than wanted is brought to the target by up to two turns of
 * preload; one firmer than wanted stands at no preload, short of the target.
 *
 * @throws InputError 'coil.no-rates'
 */
export function chooseCoil(
  springs: readonly CoilSpring[],
  axleLoadN: number,
  targetPct: number,
  unit: CoilUnit,
): CoilChoice[] {
  if (springs.length === 0) throw new InputError('coil.no-rates')
  const pctAt = (s: CoilSpring, turns: number) => (100 * coilSagMm(s, turns, axleLoadN, unit)) / unit.strokeMm
  return springs
    .map((spring) => {
      const miss = (turns: number) => targetPct - pctAt(spring, turns)
      const exact =
        miss(0) >= 0
          ? 0
          : miss(mostPreloadTurns) <= 0
            ? mostPreloadTurns
            : rootOfRising(miss, 0, mostPreloadTurns)
      // Collars are set by quarter turns.
      const preloadTurns = Math.round(exact * 4) / 4
      const sagPct = pctAt(spring, preloadTurns)
      return { spring, preloadTurns, sagPct, meets: Math.abs(sagPct - targetPct) <= metWithinPct }
    })
    .sort(
      (a, b) =>
        Number(b.meets) - Number(a.meets) ||
        (a.meets
          ? a.preloadTurns - b.preloadTurns
          : Math.abs(a.sagPct - targetPct) - Math.abs(b.sagPct - targetPct)),
    )
}

/** Standard rates around a wish: steps of 25 lb/in, two below and two above. @returns N/mm */
export function standardRatesNear(wantedNPerMm: number): number[] {
  const step = 25
  const middle = Math.round(nPerMmToLbIn(wantedNPerMm) / step) * step
  return [-2, -1, 0, 1, 2]
    .map((i) => middle + i * step)
    .filter((lb) => lb >= step)
    .map(lbInToNPerMm)
}

/** Refuses preload beyond the collar's range. @throws InputError 'coil.preload' */
export function checkPreload(turns: number, most = mostPreloadTurns): number {
  if (!(turns >= 0 && turns <= most)) throw new InputError('coil.preload', { got: turns, max: most })
  return turns
}
