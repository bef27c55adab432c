import { describe, expect, it } from 'vitest'
import { isComplaint } from '../causes/words.ts'
import { sniffLayout } from '../formats/layout.ts'
import { leverageOf } from '../linkage/leverage.ts'
import { analyse } from '../telemetry/analyse.ts'
import { ingestDelimited } from '../telemetry/ingest.ts'
import { suggestMapping } from '../telemetry/mapping.ts'
import { sectionOf, testBike, trailBike } from '../test/simulated.ts'
import { seededRandom } from '../numeric/random.ts'
import { rideTrail } from './ride.ts'
import { travelFile } from './sensorFile.ts'
import { feelOf, someRider, type VirtualRider } from './virtualRider.ts'

const sections = [
  sectionOf('braking-bumps', 80),
  sectionOf('roots', 120),
  sectionOf('rollers', 60),
  sectionOf('berms', 80),
]
/** Simulated, sensed, read and analysed: what a rider on this bike feels. */
function ridden(set: Record<string, number>) {
  const bike = testBike(set)
  const ride = rideTrail(bike, sections, { ground: 3, run: 4 }, 250)
  const bytes = new TextEncoder().encode(travelFile(bike, ride, seededRandom(1)))
  const geometry = { frontTravelMm: 150, rearStrokeMm: 55, leverage: leverageOf(trailBike, 55) }
  return analyse(ingestDelimited(bytes, suggestMapping(sniffLayout(bytes)), geometry), sections)
}
const frank: VirtualRider = { threshold: 1, taste: 0, ratingSd: 0, silent: 0, misled: 0 }
const slow = ridden({ rr: 0 })
const middle = ridden({})

describe('a virtual rider', () => {
  it('says at the rear of the roots that it gets worse when the rebound packs, and rates it lower', () => {
    const said = feelOf(slow, sections, frank, seededRandom(1))
    expect(said.marks).toContainEqual(
      expect.objectContaining({ word: 'harsh-gets-worse', sectionId: 'roots', end: 'rear' }),
    )
    expect(said.rating).toBeLessThan(feelOf(middle, sections, frank, seededRandom(1)).rating)
  })
  it('keeps quiet and is misled as often as it is said to', () => {
    const often = (rider: VirtualRider) =>
      Array.from({ length: 300 }, (_, i) => feelOf(slow, sections, rider, seededRandom(i + 1)).marks)
    const whole = often(frank)[0].length
    const said = often({ ...frank, silent: 0.4 }).reduce(
      (s, m) => s + m.filter((x) => isComplaint(x.word)).length,
      0,
    )
    expect(said / 300 / whole).toBeGreaterThan(0.5)
    expect(said / 300 / whole).toBeLessThan(0.7)
    const wrong = often({ ...frank, misled: 0.3 })
      .flat()
      .filter((x) => x.word === 'harsh-everywhere' && x.end === 'rear')
    expect(wrong.length).toBeGreaterThan(0)
  })
  it('scatters its ratings by its own measure, in half steps between 1 and 10', () => {
    const ratings = Array.from(
      { length: 400 },
      (_, i) => feelOf(middle, sections, { ...frank, ratingSd: 0.7 }, seededRandom(i + 1)).rating,
    )
    const mean = ratings.reduce((s, r) => s + r, 0) / 400
    const sd = Math.sqrt(ratings.reduce((s, r) => s + (r - mean) ** 2, 0) / 399)
    expect(sd).toBeGreaterThan(0.55)
    expect(sd).toBeLessThan(0.9)
    expect(ratings.every((r) => r >= 1 && r <= 10 && (r * 2) % 1 === 0)).toBe(true)
  })
  it('notices later with a higher threshold, and says "good" when nothing is felt', () => {
    const numb = feelOf(slow, sections, { ...frank, threshold: 50 }, seededRandom(1))
    expect(numb.marks).toEqual([{ word: 'good', sectionId: null, end: 'both', strength: 2 }])
    expect(numb.rating).toBe(8.5)
  })
  it('is drawn by chance from riders that exist', () => {
    const random = seededRandom(4)
    for (let i = 0; i < 50; i++) {
      const r = someRider(random)
      expect(Math.abs(r.taste)).toBeLessThanOrEqual(1)
      expect(r.silent + r.misled).toBeLessThan(0.6)
    }
  })
})
