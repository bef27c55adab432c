import { normalFrom, seededRandom } from '../numeric/random.ts'
import { rideTrail } from '../sim/ride.ts'
import { shaftMm } from '../sim/sensors.ts'
import { sectionOf, testBike } from './simulated.ts'
import type { SectionKind } from '#contract/trail'

/** How the gas in a chamber behaves that a test rides. */
export interface Gas {
  compressionRatio: number
  baselinePsi: number
  noisePsi: number
  /** Absolute temperature of the walls over that at calibration. */
  wallWarmth: (tS: number) => number
  /** Share of the gas still inside. */
  left?: (tS: number) => number
  /** Time constant of heat through the walls, s. */
  heatS?: number
}

export const rate = 200

/** Shares of the stroke as a half-car rides the sections. */
export function rideShares(end: 'front' | 'rear', kinds: readonly SectionKind[], seed: number): Float64Array {
  const bike = testBike()
  const ride = rideTrail(
    bike,
    kinds.map((k) => sectionOf(k, 150)),
    { ground: seed, run: seed + 1 },
    rate,
  )
  const stroke = bike[end]!.unit.strokeMm
  return shaftMm(bike, ride, end).map((mm) => mm / stroke)
}

const airPsi = 14.696
const gamma = 1.4

/**
 * Gauge pressure of a closed chamber whose gas is squeezed and exchanges heat with its walls: first law for an ideal gas,
 * T' = −(γ−1)·T·V'/V − (T − T_wall)/τ, integrated sample by sample. No exponent of anybody's choosing.
 */
export function pressureOf(share: Float64Array, gas: Gas, seed: number): Float64Array {
  const random = seededRandom(seed)
  const k = 1 - 1 / gas.compressionRatio
  const filled = gas.baselinePsi + airPsi
  const heatS = gas.heatS ?? 6
  let t = gas.wallWarmth(0)
  let before = 1 - k * share[0]
  return share.map((u, i) => {
    const volume = 1 - k * u
    const wall = gas.wallWarmth(i / rate)
    t *= Math.pow(before / volume, gamma - 1)
    t += (wall - t) * (1 - Math.exp(-1 / (rate * heatS)))
    before = volume
    const psi = (filled * (gas.left?.(i / rate) ?? 1) * t) / volume - airPsi
    return psi + gas.noisePsi * normalFrom(random)
  })
}
