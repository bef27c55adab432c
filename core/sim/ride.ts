import type { TrailSection } from '#contract/trail'
import type { SimBike } from './bike.ts'
import { rideTrack, type Ride, type RiderInput } from './halfCar.ts'
import { normalFrom, seededRandom } from '../numeric/random.ts'
import { layoutLengthM } from '../telemetry/sectionLength.ts'
import { buildTrack, type Track } from './track.ts'

/** How a run differs from the next on the same trail: line by some centimetres, pace by some per cent. */
const ownLineShare = 0.25
const paceSd = 0.015

/** The trail as the run with this seed finds it. The ground has its own seed, the same for every run. */
export function trackFor(sections: readonly TrailSection[], groundSeed: number, runSeed: number): Track {
  const random = seededRandom(runSeed)
  const pace = 1 + paceSd * normalFrom(random)
  const ground = sections.map((s) => ({ ...s, lengthM: layoutLengthM(s) }))
  return buildTrack(ground, seededRandom(groundSeed), { random, ownShare: ownLineShare, pace })
}

/** A rider who moves about by some centimetres over some seconds. */
export function movingRider(random: () => number): RiderInput {
  const waves = Array.from({ length: 4 }, () => ({
    hz: 0.08 + 0.4 * random(),
    phase: 2 * Math.PI * random(),
    m: 0.012,
  }))
  return {
    cadenceHz: 1.3 + 0.2 * random(),
    shiftM: (t) => waves.reduce((s, w) => s + w.m * Math.sin(2 * Math.PI * w.hz * t + w.phase), 0),
  }
}

/** One ride of a trail. Same seeds, same ride, everywhere. */
export function rideTrail(
  bike: SimBike,
  sections: readonly TrailSection[],
  seeds: { ground: number; run: number },
  sampleRateHz: number,
  onProgress?: (share: number) => void,
): Ride {
  const rider = movingRider(seededRandom(seeds.run + 7919))
  return rideTrack(bike.car, trackFor(sections, seeds.ground, seeds.run), sampleRateHz, { rider, onProgress })
}
