import { describe, expect, it } from 'vitest'
import { normalFrom, seededRandom } from '../../numeric/random.ts'
import { layByWay, type RideOnWay } from '../layByWay.ts'
import { wayCourse } from '../wayCourse.ts'

const rateHz = 200
const sections = [
  { id: 'a', fromM: 0, toM: 150 },
  { id: 'b', fromM: 150, toM: 320 },
  { id: 'c', fromM: 320, toM: 500 },
]

/** Bumps of a trail, by metre: waves of 1.5 to 20 m. */
function groundOf(seed: number): (m: number) => number {
  const random = seededRandom(seed)
  const waves = Array.from({ length: 50 }, () => ({
    k: (2 * Math.PI) / (1.5 + 18 * random()),
    p: 7 * random(),
    a: random(),
  }))
  return (m) => 30 + waves.reduce((s, w) => s + w.a * Math.sin(w.k * m + w.p), 0)
}

/** A ride at a pace that changes along the trail, standing at both ends, read by a receiver that wanders. */
function ride(
  ground: (m: number) => number,
  paceMS: (m: number) => number,
  { standS = 5, wanderM = 0, seed = 1 } = {},
): RideOnWay & { timeAt: (m: number) => number } {
  const random = seededRandom(seed)
  const way: number[] = []
  for (let i = 0; i < standS * rateHz; i++) way.push(0)
  let m = 0
  while (m < 500) {
    m += paceMS(m) / rateHz
    way.push(m)
  }
  for (let i = 0; i < standS * rateHz; i++) way.push(m)
  // A slow wander: an error that stays for some seconds, as receivers have it.
  let off = 0
  const distanceM = way.map((x) => {
    off += -off / (8 * rateHz) + wanderM * normalFrom(random) * Math.sqrt(2 / (8 * rateHz))
    return x + off
  })
  const timeAt = (goalM: number) => way.findIndex((x) => x >= goalM) / rateHz
  return {
    depth: Float64Array.from(way, ground),
    rateHz,
    way: wayCourse({ sampleRateHz: rateHz, distanceM, speedMS: null })!,
    spans: sections.map((s) => ({
      sectionId: s.id,
      startS: timeAt(Math.max(0.01, s.fromM)),
      endS: timeAt(s.toM),
    })),
    timeAt,
  }
}

/** How far off the same metre is laid, s, at every tenth metre of the trail's inside. */
function misses(main: ReturnType<typeof ride>, other: ReturnType<typeof ride>) {
  const { pieces } = layByWay(main, other)!
  return Array.from({ length: 48 }, (_, k) => 10 * (k + 1)).map((m) => {
    const atS = main.timeAt(m)
    const p = pieces.find((x) => x.startS <= atS && atS < x.endS)!
    const lagS = p.lagS + ((p.endLagS! - p.lagS) * (atS - p.startS)) / (p.endS - p.startS)
    return Math.abs(atS + lagS - other.timeAt(m))
  })
}

describe('one ride laid under another by distance', () => {
  const ground = groundOf(3)
  const first = ride(ground, () => 7)
  const slower = (m: number) => 5 + 2 * Math.sin(m / 40)

  it('lays metre on metre, though pace differs all along', () => {
    expect(Math.max(...misses(first, ride(ground, slower, { standS: 12 })))).toBeLessThan(0.15)
  })
  it('hits settle what a wandering receiver leaves', () => {
    for (const seed of [31, 32, 33, 34]) {
      const other = ride(ground, slower, { wanderM: 2, seed })
      const off = misses(
        ride(ground, () => 7, { wanderM: 2, seed: seed + 50 }),
        other,
      ).sort((a, b) => a - b)
      expect(off[off.length >> 1], `seed ${seed}`).toBeLessThan(0.2)
      expect(off[Math.floor(0.9 * off.length)], `seed ${seed}`).toBeLessThan(1)
    }
  })
  it('says which sections have only their metres, and lays them by these', () => {
    const strange = groundOf(77)
    const mixed = ride((m) => (m >= 150 && m < 320 ? strange(m) : ground(m)), slower)
    const { sections: told } = layByWay(first, mixed)!
    expect(told.map((s) => s.isHitOnHit)).toEqual([true, false, true])
    const inB = misses(first, mixed).slice(15, 31)
    expect(Math.max(...inB)).toBeLessThan(0.15)
  })
  it('a stop on the way moves nothing behind it', () => {
    const stopped = ride(ground, slower)
    const at = stopped.timeAt(200)
    const stand = 20 * rateHz
    const depth = [...Array.from(stopped.depth)]
    depth.splice(at * rateHz, 0, ...new Array<number>(stand).fill(ground(200)))
    const later = (s: number) => (s > at ? s + 20 : s)
    const { stepS, wayM } = stopped.way
    const withStop = {
      ...stopped,
      depth,
      way: {
        stepS,
        wayM: Array.from({ length: wayM.length + 40 }, (_, k) => {
          const s = k * stepS
          return wayM[Math.round((s < at ? s : Math.max(at, s - 20)) / stepS)]
        }),
      },
      spans: stopped.spans.map((s) => ({ ...s, startS: later(s.startS), endS: later(s.endS) })),
      timeAt: (m: number) => later(stopped.timeAt(m)),
    }
    const off = misses(first, withStop)
    // The stop itself has no one moment.
    expect(off.filter((x) => x > 0.3).length).toBeLessThanOrEqual(1)
  })
  it('is not tried where a ride has no way, or no section in common', () => {
    expect(wayCourse({ sampleRateHz: 10, distanceM: null, speedMS: null })).toBeNull()
    expect(wayCourse({ sampleRateHz: 10, distanceM: new Array(50).fill(3), speedMS: null })).toBeNull()
    const elsewhere = { ...first, spans: [{ sectionId: 'z', startS: 0, endS: 20 }] }
    expect(layByWay(first, elsewhere)).toBeNull()
  })
  it('a way by speed, and one with gaps, is the same way', () => {
    const speedMS = Array.from({ length: 300 }, (_, i) => (i >= 100 && i < 120 ? NaN : 4))
    const distanceM = Array.from({ length: 300 }, (_, i) => (i >= 100 && i < 120 ? NaN : 0.4 * i))
    expect(wayCourse({ sampleRateHz: 10, distanceM: null, speedMS })!.wayM.at(-1)).toBeCloseTo(110, 6)
    const { wayM } = wayCourse({ sampleRateHz: 10, distanceM, speedMS: null })!
    expect(wayM.every((m, k) => k === 0 || m >= wayM[k - 1])).toBe(true)
    expect(wayM.at(-1)).toBeCloseTo(118, 0)
  })
})
