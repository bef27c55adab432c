import type { Bike } from '#contract/bike'
import type { AdvisedPosition } from '#contract/setup'
import type { TrailSection } from '#contract/trail'
import type { SuspensionUnit } from '#contract/unit'
import { simBike } from '#core/sim/bike'
import { seededRandom } from '#core/numeric/random'
import { rideTrail } from '#core/sim/ride'
import { travelFile } from '#core/sim/sensorFile'

const sampleRateHz = 500
/** The ground of every demo trail; runs differ by their own seed. */
const groundSeed = 31

/** The file a travel logger would have written on this run: the half-car on the trail's own ground. */
export function rideFile(
  on: {
    bike: Bike
    units: readonly SuspensionUnit[]
    positions: readonly AdvisedPosition[]
    ridingMassKg: number
  },
  sections: readonly TrailSection[],
  seed: number,
): string {
  const bike = simBike(on.bike, on.units, on.positions, on.ridingMassKg)
  const ride = rideTrail(bike, sections, { ground: groundSeed, run: seed }, sampleRateHz)
  return travelFile(bike, ride, seededRandom(seed + 1))
}
