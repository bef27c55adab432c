import { describe, expect, it } from 'vitest'
import { seededRandom } from '../numeric/random.ts'
import { explainedByPace, paceScaling, simulatedScaling } from '../stats/paceScaling.ts'
import { sectionOf, testBike } from '../test/simulated.ts'
import { recordingOf } from '../test/synthetic.ts'
import { analyse } from '../telemetry/analyse.ts'
import { rideTrack } from './halfCar.ts'
import { movingRider } from './ride.ts'
import { shaftMm } from './sensors.ts'
import { buildTrack } from './track.ts'

const kinds = [
  'smooth',
  'roots',
  'braking-bumps',
  'berms',
  'drop',
  'rollers',
  'square-edges',
  'flat-out',
] as const
const sections = kinds.map((k) => sectionOf(k, 120))
const bike = testBike()

/** Figures of the same ground at a pace of its own. */
function figuresAt(pace: number, ground: number) {
  const track = buildTrack(sections, seededRandom(ground), { random: seededRandom(5), ownShare: 0.25, pace })
  const ride = rideTrack(bike.car, track, 200, { rider: movingRider(seededRandom(8)) })
  const pct = (end: 'front' | 'rear') => {
    const mm = shaftMm(bike, ride, end)
    return (t: number) => (100 * mm[Math.min(mm.length - 1, Math.round(t * 200))]) / bike[end]!.unit.strokeMm
  }
  const durationS = ride.front.length / 200
  return analyse(recordingOf(pct('front'), pct('rear'), { durationS, sampleRateHz: 200 }), []).whole
}

describe('what pace makes of a figure', () => {
  it('is in the table as the half-car rides it', () => {
    for (const ground of [1, 4]) {
      const [slow, fast] = [figuresAt(0.95, ground), figuresAt(1.05, ground)]
      for (const [name, { whole }] of Object.entries(simulatedScaling))
        for (const end of ['front', 'rear'] as const) {
          const of = (m: typeof slow) => m[end]![name as 'supportPct']
          const power = Math.log(of(fast) / of(slow)) / Math.log(1.05 / 0.95)
          expect(Math.abs(power - whole.power), `${name}, ${end}, ground ${ground}`).toBeLessThan(
            2.5 * whole.sd,
          )
        }
    }
  })
  it('is read off repeats that were ridden at different paces, and not off any others', () => {
    const grown = (power: number, durations: number[], noise = 0) =>
      durations.map((durationS, i) => ({
        durationS,
        value: 20 * (60 / durationS) ** power * (1 + noise * (i % 2 ? 1 : -1)),
      }))
    const own = paceScaling([grown(1.5, [60, 56, 63]), grown(1.5, [58, 65])], { power: 0.2, sd: 0.25 })!
    expect(own.from).toBe('repeats')
    expect(own.power).toBeCloseTo(1.5, 6)
    expect(paceScaling([grown(1.5, [60, 60.2, 60.1, 59.9])], { power: 0.2, sd: 0.25 })!.from).toBe(
      'simulator',
    )
    expect(paceScaling([grown(1.5, [60, 55], 0.1)], null)).toBeNull()
    // Repeats that scatter say less than the simulator.
    expect(paceScaling([grown(0, [60, 56, 63, 58], 0.2)], { power: 0.2, sd: 0.25 })!.from).toBe('simulator')
  })
  it('at the same pace it makes nothing, and is sure of it', () => {
    const none = explainedByPace(30, { power: 1.9, sd: 0.9 }, 60, 60)
    expect(none).toEqual({ explained: 0, sd: 0 })
    expect(explainedByPace(10, { power: 2, sd: 0 }, 60, 30).explained).toBeCloseTo(30, 9)
  })
})
