import type { Adjuster } from '#contract/adjuster'
import type { End } from '#contract/common'
import type { AdvisedPosition } from '#contract/setup'
import { adjusterRange, clampToRange } from '../adjusters/range.ts'
import { dialsOf } from '../adviser/dials.ts'
import { simBike, type SimBike } from '../sim/bike.ts'
import type { Ride } from '../sim/halfCar.ts'
import { rideTrail } from '../sim/ride.ts'
import { shaftMm } from '../sim/sensors.ts'
import { layoutLengthM } from '../telemetry/sectionLength.ts'
import type { HiddenRider } from './hiddenRider.ts'
import { practiceBike, practiceTrail, ridingMassKg, unitsOf } from './kit.ts'
import type { Positions } from './landscape.ts'

/** A ride of practice as it is looked at: what each end did along the trail. */
export interface RiddenCourse {
  sampleRateHz: number
  /** Depth, % of wheel travel, one value per sample. */
  depthPct: Record<End, Float32Array>
  /** Where the parts of the trail lie in it, s. */
  sections: { id: string; startS: number; endS: number }[]
  /** Where the ring stands afterwards, mm of the unit's own stroke. */
  ringMm: Record<End, number>
}

const sampleRateHz = 400
const groundSeed = 5

/**
 * Rides the practice trail on the half-car. The bike's dials stand as far from what suits the bike as the rider's stand
 * from what suits the rider, so that what is felt and what is seen come from the same clicks.
 *
 * @param run number of the run: its line and pace
 */
export function rideOf(rider: HiddenRider, positions: Positions, run: number): RiddenCourse {
  const { bike, ride } = ridden(rider, positions, run)
  const deepest = (end: End) => shaftMm(bike, ride, end).reduce((a, b) => Math.max(a, b), 0)
  const percent = (end: End) => Float32Array.from(ride[end], (share) => 100 * shownBy(rider, end, run, share))
  return {
    sampleRateHz,
    depthPct: { front: percent('front'), rear: percent('rear') },
    sections: spansOf(ride.distanceM),
    // A ring is read to the millimetre.
    ringMm: { front: Math.round(deepest('front')), rear: Math.round(deepest('rear')) },
  }
}

/** The half-car's run with the bike it was ridden on. */
export function ridden(rider: HiddenRider, positions: Positions, run: number): { bike: SimBike; ride: Ride } {
  const all = unitsOf(null)
  const bike = simBike(practiceBike, [all.front, all.rear], standing(rider, positions, run), ridingMassKg)
  const seeds = { ground: groundSeed, run: runSeed(rider, run) }
  return { bike, ride: rideTrail(bike, practiceTrail.sections, seeds, sampleRateHz) }
}
export const runSeed = (rider: HiddenRider, run: number) => rider.seed * 64 + run

/** What a sensor shows of a depth, share of the travel. The shaft went where it went; only what the sensor says of it creeps. */
export function shownBy({ drill: { creeps } }: HiddenRider, end: End, run: number, share: number): number {
  return creeps?.end === end ? share + (creeps.pct / 100) * (run - 1) : share
}

/** Every part of the bike, shifted by what the rider's dials are off. */
function standing(rider: HiddenRider, positions: Positions, run: number): AdvisedPosition[] {
  const all = unitsOf(null)
  const likes = rider.likesAt(run)
  return dialsOf(all).map((d) => {
    const right = d.toClicks(rightPlace(d.adjuster, d.end))
    const k = likes.dials.findIndex((x) => x.adjuster.id === d.adjuster.id)
    const off = k < 0 ? 0 : likes.dials[k].toClicks(positions[d.adjuster.id]) - likes.best[k]
    return {
      end: d.end,
      adjusterId: d.adjuster.id,
      value: clampToRange(d.adjuster, d.fromClicks(right + off)),
    }
  })
}

/**
 * Where a part stands on a bike that suits 82 kg: on this trail it rides near its sag targets, uses most of its travel, and
 * dampers stand in the middle of their range.
 */
function rightPlace(a: Adjuster, end: End): number {
  if (a.role === 'main-pressure') return rightPsi[end]
  if (a.role === 'spacers') return rightSpacers[end]
  const { min, max } = adjusterRange(a)
  return (min + max) / 2
}
const rightPsi = { front: 86, rear: 166 } as const
const rightSpacers = { front: 1, rear: 2 } as const

/** When each part of the trail is ridden. */
function spansOf(distanceM: Float64Array): RiddenCourse['sections'] {
  let fromM = 0
  const at = (m: number) => {
    const i = distanceM.findIndex((d) => d >= m)
    return (i < 0 ? distanceM.length : i) / sampleRateHz
  }
  return practiceTrail.sections.map((s) => {
    const span = { id: s.id, startS: at(fromM), endS: at(fromM + layoutLengthM(s)) }
    fromM += layoutLengthM(s)
    return span
  })
}
