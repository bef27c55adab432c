import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { bump, recordingOf } from '../test/synthetic.ts'
import { repairClock } from './clock.ts'
import { contact } from './contact.ts'
import { findHits } from './hits.ts'
import { endMotion } from './motion.ts'
import { repairSpikesInto } from './repair.ts'
import { findTrains } from './trains.ts'

const lines = (n: number) => Uint32Array.from({ length: n }, (_, i) => i + 2)
const clockOf = (raw: number[], unit: 's' | 'ms' | 'us' | 'none' = 'none') =>
  repairClock(Float64Array.from(raw), lines(raw.length), unit)
const every = (n: number, step: number, from = 0) => Array.from({ length: n }, (_, i) => from + i * step)

describe('the clock', () => {
  it('starts at zero whatever the file starts at', () => {
    const c = clockOf(every(100, 5, 81_234))
    expect(c.timeS[0]).toBe(0)
    expect(c.timeS[99]).toBeCloseTo(0.495, 12)
    expect(c.sampleRateHz).toBe(200)
  })
  it.each([
    ['seconds', 0.002, 's', 500],
    ['milliseconds', 2, 'ms', 500],
    ['microseconds', 2000, 'us', 500],
    ['slow seconds', 0.05, 's', 20],
    ['coarse milliseconds', 10, 'ms', 100],
  ] as const)('guesses %s from the step', (_, step, unit, rate) => {
    expect(clockOf(every(200, step))).toMatchObject({ unit, sampleRateHz: rate })
  })
  it('believes a given unit over its guess', () => {
    expect(clockOf(every(200, 1), 's').sampleRateHz).toBe(1)
  })
  it('drops repeated and slightly backward instants, naming the first line', () => {
    const c = clockOf([0, 5, 10, 10, 8, 15, 20, 25, 30])
    expect(c).toMatchObject({ duplicates: 2, firstDuplicateLine: 5, resets: 0 })
    expect([...c.rows]).toEqual([0, 1, 2, 5, 6, 7, 8])
  })
  it('goes on from where it was when the clock starts again', () => {
    const c = clockOf([...every(100, 5), ...every(100, 5)])
    expect(c).toMatchObject({ resets: 1, firstResetLine: 102 })
    expect(c.timeS[199]).toBeCloseTo(0.995, 9)
  })
  it('counts gaps and blanks', () => {
    expect(clockOf([...every(50, 5), ...every(50, 5, 900)]).gaps).toBe(1)
    expect(clockOf([0, 5, NaN, 15, 20]).blanks).toBe(1)
  })
  it('is strictly increasing whatever comes in', () => {
    fc.assert(
      fc.property(
        fc.array(fc.oneof(fc.integer({ min: 0, max: 4000 }), fc.constant(NaN)), {
          minLength: 20,
          maxLength: 80,
        }),
        (raw) => {
          let c
          try {
            c = clockOf(raw, 'ms')
          } catch {
            return true
          }
          return c.timeS.every((t, i) => i === 0 || t > c.timeS[i - 1])
        },
      ),
    )
  })
})

describe('spikes', () => {
  const rate = 500
  const smooth = () => Float64Array.from({ length: 400 }, (_, i) => 40 + 20 * Math.sin(i / 30))
  it('of up to 20 ms become the straight line between their neighbours', () => {
    for (const width of [1, 4, 10]) {
      const x = smooth()
      const truth = smooth()
      for (let k = 0; k < width; k++) x[200 + k] = 900
      expect(repairSpikesInto(x, rate)).toEqual({ repaired: width, gapped: 0 })
      expect(Math.max(...x.map((v, i) => Math.abs(v - truth[i])))).toBeLessThan(0.6)
    }
  })
  it('leave honest movement alone, even a hard landing', () => {
    const x = Float64Array.from({ length: 400 }, (_, i) => 150 * bump((i - 200) / rate, 0.08))
    const before = x.slice()
    expect(repairSpikesInto(x, rate)).toEqual({ repaired: 0, gapped: 0 })
    expect(x).toEqual(before)
  })
  it.each([900, -400, 95])(
    'longer than that are a gap from jump to jump, not an invention (%i mm)',
    (lost) => {
      const x = smooth()
      const truth = smooth()
      for (let k = 0; k < 40; k++) x[200 + k] = lost
      expect(repairSpikesInto(x, rate)).toEqual({ repaired: 0, gapped: 40 })
      x.forEach((v, i) => (i >= 200 && i < 240 ? expect(v).toBeNaN() : expect(v).toBe(truth[i])))
    },
  )
  it('on the first sample or to the end of the file are not believed either', () => {
    const first = smooth()
    first[0] = 150
    expect(repairSpikesInto(first, rate)).toEqual({ repaired: 0, gapped: 1 })
    expect(first[0]).toBeNaN()
    const last = smooth()
    last.fill(150, 397)
    expect(repairSpikesInto(last, rate).gapped).toBe(1)
    expect(last.slice(0, 397)).toEqual(smooth().slice(0, 397))
  })
  it('a step that stays is one lost sample: where the sensor stands now is what it says', () => {
    const x = smooth().map((v, i) => (i < 100 ? v : v + 60))
    expect(repairSpikesInto(x, rate)).toEqual({ repaired: 0, gapped: 1 })
    expect(x.filter(Number.isNaN)).toHaveLength(1)
  })
})

describe('hits', () => {
  const rate = 500
  const find = (f: (t: number) => number, durationS = 10) => {
    const m = endMotion(recordingOf(f, null, { durationS, sampleRateHz: rate }), 'front')
    return findHits(m.depthPct, m.speedMmS, rate)
  }
  it('need a rise and fall of 6 % of travel', () => {
    expect(find((t) => 20 + 5 * bump(t - 5, 0.3))).toHaveLength(0)
    expect(find((t) => 20 + 8 * bump(t - 5, 0.3))).toHaveLength(1)
  })
  it('know entry, peak, speeds and the time back', () => {
    const [hit] = find((t) => 20 + 40 * bump(t - 5, 0.4))
    expect(hit.entryPct).toBeCloseTo(20, 0)
    expect(hit.peakPct).toBeCloseTo(60, 0)
    // Peak speed of a raised cosine: half rise · 2π / width, 60 mm rise over 0.4 s.
    expect(hit.compressionMmS).toBeCloseTo(30 * ((2 * Math.PI) / 0.4), -1)
    expect(hit.reboundMmS).toBeCloseTo(hit.compressionMmS, -1)
    // Back to 10 % of the rise: cos phase where 0.5(1+cos φ) = 0.1.
    expect(hit.recoveryS!).toBeCloseTo((0.4 * Math.acos(-0.8)) / (2 * Math.PI), 2)
  })
  it('closer than 60 ms are one', () => {
    const f = (t: number) => 20 + 20 * bump(t - 5, 0.05) + 18 * bump(t - 5.045, 0.05)
    expect(find(f).length).toBeLessThanOrEqual(1)
  })
  it('are found with no end of noise below the threshold', () => {
    const noisy = (t: number) => 20 + 30 * bump(t - 5, 0.3) + 1.5 * Math.sin(97 * t) + Math.sin(211 * t)
    expect(find(noisy)).toHaveLength(1)
  })
})

describe('trains', () => {
  const hit = (at: number, valleyPct: number) => ({
    entryIndex: at - 20,
    peakIndex: at,
    valleyIndex: at + 20,
    entryPct: 20,
    peakPct: 50,
    valleyPct,
    compressionMmS: 900,
    reboundMmS: 700,
    recoveryS: 0.1,
    dampingRatio: null,
  })
  const row = (n: number, drift: number, spacing = 150, from = 0) =>
    Array.from({ length: n }, (_, i) => hit(from + i * spacing, 20 + drift * i))
  it('the slope is the least-squares slope of the valleys between hits', () => {
    const [t] = findTrains(row(6, 1.7), 500)
    expect(t.driftPctPerHit).toBeCloseTo(1.7, 12)
    expect(t.hits).toHaveLength(6)
  })
  it('the valley after the last hit belongs to no train', () => {
    const hits = row(5, 0)
    hits[4] = { ...hits[4], valleyPct: 90 }
    expect(findTrains(hits, 500)[0].driftPctPerHit).toBeCloseTo(0, 12)
  })
  it('end at a pause of more than 0.6 s, and need four hits', () => {
    const hits = [...row(4, 1), ...row(3, 1, 150, 2000), ...row(5, -1, 150, 4000)]
    expect(findTrains(hits, 500).map((t) => t.hits.length)).toEqual([4, 5])
  })
})

describe('on the ground, in the air, standing', () => {
  const at = (front: (t: number) => number, rear: (t: number) => number, speed?: (i: number) => number) => {
    const r = recordingOf(front, rear, { durationS: 12, sampleRateHz: 200 })
    const motions = (['front', 'rear'] as const).map((end) => endMotion(r, end))
    return contact(motions, speed ? Float64Array.from({ length: r.samples }, (_, i) => speed(i)) : null)
  }
  const ride = (t: number) => 25 + 8 * Math.sin(9 * t)
  it('one light wheel is not flying', () => {
    expect(at((t) => (t > 4 && t < 5 ? 1 : ride(t)), ride).flights).toEqual([])
  })
  it('a hop shorter than 0.15 s is not flying', () => {
    const hop = (t: number) => (t > 4 && t < 4.1 ? 1 : ride(t))
    expect(at(hop, hop).flights).toEqual([])
  })
  it('below walking speed nothing counts, where speed is known', () => {
    const c = at(ride, ride, (i) => (i < 1200 ? 0.5 : 6))
    expect(c.riding.subarray(0, 1200).every((v) => v === 0)).toBe(true)
    expect(c.riding.subarray(1200).every((v) => v === 1)).toBe(true)
  })
  it('where the speed is not known, a bike that stands still is not ridden, and one that moves is', () => {
    // A receiver that is lost from 4 s to 10 s: ridden until 6 s, then at rest.
    const halted = (t: number) => (t < 6 ? ride(t) : 25)
    const c = at(halted, halted, (i) => (i < 800 || i >= 2000 ? 6 : NaN))
    const ridden = (fromS: number, toS: number) => {
      const part = c.riding.subarray(fromS * 200, toS * 200)
      return part.reduce((n, v) => n + v, 0) / part.length
    }
    expect(ridden(0, 6)).toBe(1)
    expect(ridden(6.5, 10)).toBe(0)
    // A speed that is told stands above stillness.
    expect(ridden(10, 12)).toBe(1)
  })
})
