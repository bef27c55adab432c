import type { End } from '#contract/common'
import { shaftMmAt } from '../linkage/leverage.ts'
import { ridingPressurePsi } from '../spring/air.ts'
import { unitAir } from '../spring/unitSpring.ts'
import type { EndSetting, SimBike } from './bike.ts'
import type { Ride } from './halfCar.ts'
import { normalFrom } from '../numeric/random.ts'
import type { Fix } from '../geo/fix.ts'

/** Fork along its legs or shock along its shaft, mm, as it truly moved; a unit cannot leave its stroke. */
export function shaftMm(bike: SimBike, ride: Ride, end: End): Float64Array {
  const setting = bike[end]!
  const stroke = setting.unit.strokeMm
  const axleMm = bike.car[end].travelM * 1000
  const { leverage } = setting
  return ride[end].map((share) => {
    const mm = leverage ? shaftMmAt(share * axleMm, leverage) : share * stroke
    return Math.min(stroke, Math.max(0, mm))
  })
}

/** A reading with the sensor's noise, rounded to its step. */
const sensed = (value: number, noise: number, step: number, random: () => number) =>
  Math.round((value + noise * normalFrom(random)) / step) * step

/** Travel sensor: 0.05 mm of noise, steps of 0.05 mm. */
export const travelReading = (mm: number, random: () => number) => sensed(mm, 0.05, 0.05, random)

/** Accelerometer: 0.03 g of noise, steps of 0.004 g. */
export const accelerationReading = (g: number, random: () => number) => sensed(g, 0.03, 0.004, random)

/**
 * Gauge pressure in the chamber of an air unit at a shaft position, psi, without noise.
 * @param restShare where the gas has settled: the depth it dwells at while riding, the depth itself when held still
 */
export function chamberPsi(
  setting: EndSetting,
  mm: number,
  warmth: number,
  restShare = setting.restShare,
): number {
  const { shape } = unitAir(setting.unit)
  return ridingPressurePsi(
    mm / setting.unit.strokeMm,
    setting.pressurePsi!,
    shape,
    { restShare, warmth },
    { spacers: setting.spacers },
  ).chamberPsi
}

/** Pressure sensor: 0.08 psi of noise, steps of 0.05 psi. */
export const pressureReading = (psi: number, random: () => number) => sensed(psi, 0.08, 0.05, random)

/** An invented place in open water, so that no real trail is meant. */
const origin = { latitudeDeg: -47.5, longitudeDeg: -122.3, elevationM: 640 }
export const metresPerDegree = 111_195
const gradient = 0.09

/** Fixes along a winding line, with the slow wander of some metres that receivers have. */
export function gpsFixes(ride: Ride, rateHz: number, random: () => number): Fix[] {
  const fixes: Fix[] = []
  const every = Math.max(1, Math.round(ride.sampleRateHz / rateHz))
  let [east, north, wanderE, wanderN, done] = [0, 0, 0, 0, 0]
  for (let i = 0; i < ride.distanceM.length; i += every) {
    const d = ride.distanceM[i]
    const heading = 0.5 + 0.9 * Math.sin(d / 70) + 0.5 * Math.sin(d / 23 + 1)
    east += (d - done) * Math.sin(heading)
    north += (d - done) * Math.cos(heading)
    done = d
    wanderE += 0.02 * (-wanderE + 4 * normalFrom(random))
    wanderN += 0.02 * (-wanderN + 4 * normalFrom(random))
    const latitudeDeg = origin.latitudeDeg + (north + wanderN) / metresPerDegree
    fixes.push({
      timeS: i / ride.sampleRateHz,
      latitudeDeg,
      longitudeDeg:
        origin.longitudeDeg + (east + wanderE) / (metresPerDegree * Math.cos((latitudeDeg * Math.PI) / 180)),
      elevationM: origin.elevationM - gradient * d,
    })
  }
  return fixes
}
