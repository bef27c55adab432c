import { describe, expect, it } from 'vitest'
import type { TrailSection } from '#contract/trail'
import { bump, decay, recordingOf } from '../test/synthetic.ts'
import { analyse } from './analyse.ts'
import { evidenceCounts } from './evidence.ts'
import { placeSections } from './sections.ts'

const sine = (t: number) => 25 + 10 * Math.sin(2 * Math.PI * t)

describe('ride height and speed', () => {
  it('a sine rides at its mean and moves at its amplitude times 2πf', () => {
    const { whole } = analyse(
      recordingOf(sine, (t) => sine(t) + 6),
      [],
    )
    expect(whole.front!.rideHeightPct).toBeCloseTo(25, 1)
    expect(whole.balancePct).toBeCloseTo(-6, 1)
    // 10 % of 150 mm at 1 Hz: 15 mm · 2π = 94.2 mm/s
    expect(whole.front!.compressionMaxMmS).toBeCloseTo(94.25, 0)
    expect(whole.front!.depthMaxPct).toBeCloseTo(35, 1)
    // RMS of a sine of amplitude 10 inside the 0.3–3 Hz band, less the skirts of the second-order filters
    expect(whole.front!.supportPct).toBeGreaterThan(6)
    expect(whole.front!.supportPct).toBeLessThan(10 / Math.SQRT2 + 0.05)
  })
  it('standing still does not count for ride height', () => {
    const { whole } = analyse(
      recordingOf((t) => (t < 10 ? 18 : sine(t)), null),
      [],
    )
    expect(whole.front!.rideHeightPct).toBeCloseTo(25, 0)
  })
  it('time in the air is counted and left out of ride height', () => {
    const fly = (t: number) => (t > 5 && t < 6 ? 1 : sine(t))
    const { whole } = analyse(recordingOf(fly, fly), [])
    expect(whole.airtimeS).toBeGreaterThan(0.9)
    expect(whole.airtimeS).toBeLessThan(1.1)
    expect(whole.front!.rideHeightPct).toBeCloseTo(25, 0)
  })
  it('shares of time sum to one', () => {
    const { whole } = analyse(recordingOf(sine, null), [])
    const sum = (x: number[]) => x.reduce((s, v) => s + v, 0)
    expect(sum(whole.front!.depthHistogram.share)).toBeCloseTo(1, 9)
    expect(sum(whole.front!.speedHistogram.share)).toBeCloseTo(1, 9)
  })
})

describe('rebound response', () => {
  for (const zeta of [0.15, 0.3, 0.45, 0.6]) {
    it(`a free return of damping ratio ${zeta} is read within 0.03`, () => {
      // Up fast, then let go at t = 1, 4, 7 …: isolated hits.
      const f = (t: number) => {
        const u = (t % 3) - 1
        if (u < -0.08) return t < 1 ? 20 : decay(u + 3, 60, 20, 2.5, zeta)
        return u < 0 ? 20 + 40 * bump(u, 0.16) : decay(u, 60, 20, 2.5, zeta)
      }
      const { whole } = analyse(recordingOf(f, null, { durationS: 19 }), [])
      expect(whole.front!.reboundDampingHits).toBeGreaterThanOrEqual(5)
      expect(Math.abs(whole.front!.reboundDampingRatio! - zeta)).toBeLessThan(0.03)
    })
  }
  it('a return without overshoot reads as 0.8 or above', () => {
    const f = (t: number) => {
      const u = (t % 3) - 1
      return u < 0 ? 20 + 40 * bump(u, 0.16) : 20 + 40 * Math.exp(-6 * u) * (1 + 6 * u)
    }
    expect(analyse(recordingOf(f, null), []).whole.front!.reboundDampingRatio).toBe(0.8)
  })
})

describe('hit trains', () => {
  const train = (driftPerHit: number, hits: number) => (t: number) => {
    const u = t - 5
    const k = Math.floor(u / 0.3)
    if (k < 0 || k >= hits) return 20 + (k >= hits ? driftPerHit * hits * Math.exp(-(u - hits * 0.3)) : 0)
    return 20 + driftPerHit * (u / 0.3) + 25 * bump(u - k * 0.3 - 0.15, 0.3)
  }
  it('a staircase of valleys is recovered within 0.2 % of travel per hit', () => {
    for (const drift of [0, 1.4, 3]) {
      const m = analyse(recordingOf(train(drift, 8), null), []).whole.front!
      expect(m.trains).toBe(1)
      expect(Math.abs(m.valleyDriftPctPerHit! - drift)).toBeLessThan(0.2)
      expect(m.hits).toBe(8)
    }
  })
  it('three hits are no train', () => {
    expect(analyse(recordingOf(train(2, 3), null), []).whole.front!.trains).toBe(0)
  })
})

describe('events', () => {
  it('counts bottom-outs exactly and tells hard from soft by the speed through 90 %', () => {
    const at = [3, 6, 9, 12]
    // Rise of 79 % of 150 mm: narrow bumps cross 90 % above 500 mm/s, the broad one below.
    const f = (t: number) => 20 + at.reduce((s, c, i) => s + 79 * bump(t - c, i === 3 ? 2.5 : 0.4), 0)
    const { whole, events } = analyse(recordingOf(f, null), [])
    expect(whole.front!.bottomOuts).toBe(4)
    expect(whole.front!.hardBottomOuts).toBe(3)
    expect(events.filter((e) => e.kind === 'hard-bottom-out').map((e) => Math.round(e.startS))).toEqual([
      3, 6, 9,
    ])
    expect(whole.front!.bigHits).toBe(4)
  })
  it('a 90 % peak is no bottom-out', () => {
    const { whole } = analyse(
      recordingOf((t) => 20 + 73 * bump(t - 5, 0.4), null),
      [],
    )
    expect(whole.front!.bottomOuts).toBe(0)
  })
  it('says what a ride has too little of', () => {
    const { whole } = analyse(recordingOf(sine, null), [])
    const big = evidenceCounts(whole).find((e) => e.what.startsWith('big'))!
    expect(big.count).toBeLessThan(big.needed)
  })
  it('takes nothing from the depths of an end whose zero has moved, and all else', () => {
    const deep = analyse(
      recordingOf(sine, (t) => 55 + 40 * Math.sin(3 * t)),
      [],
    ).whole
    const of = (wrong: readonly ('front' | 'rear')[], what: RegExp) =>
      evidenceCounts(deep, wrong).find((e) => what.test(e.what))!.count
    // The rear alone goes deep.
    expect(deep.rear!.bigHits).toBeGreaterThan(deep.front!.bigHits)
    expect(of([], /^big/)).toBe(deep.rear!.bigHits)
    expect(of(['rear'], /^big/)).toBe(deep.front!.bigHits)
    expect(of(['front', 'rear'], /^big/)).toBeNull()
    expect(of(['front', 'rear'], /^hits/)).toBeNull()
    for (const what of [/^seconds/, /trains/, /quiet/])
      expect(of(['front', 'rear'], what), String(what)).toBe(of([], what))
  })
})

describe('gaps', () => {
  it('do not become movement', () => {
    const m = analyse(
      recordingOf((t) => (t > 8 && t < 8.4 ? NaN : sine(t)), null),
      [],
    ).whole.front!
    expect(m.compressionMaxMmS).toBeLessThan(110)
    expect(m.rideHeightPct).toBeCloseTo(25, 0)
  })
})

describe('sections', () => {
  const sections: TrailSection[] = [
    { id: 'a', name: 'Roots', kind: 'roots', lengthM: 100, severity: 1 },
    { id: 'b', name: 'Berms', kind: 'berms', lengthM: 300, severity: 1 },
  ]
  it('fall by share of length when nothing better is known, and say so', () => {
    const p = placeSections(recordingOf(sine, null), sections)
    expect(p.by).toBe('share-of-length')
    expect(p.spans[0].endS).toBeCloseTo(5, 6)
  })
  it('fall by distance when speed was recorded', () => {
    const r = {
      ...recordingOf(sine, null),
      speedMS: new Float64Array(10000).map((_, i) => (i < 5000 ? 5 : 15)),
    }
    const p = placeSections(r, sections)
    expect(p.by).toBe('distance')
    // 50 m in the first 10 s, 150 m in the last: a quarter of 200 m is reached at 10 s.
    expect(p.spans[0].endS).toBeCloseTo(10, 1)
  })
  it('follow marks where they were set', () => {
    const p = placeSections(recordingOf(sine, null), sections, {
      marks: [{ sectionId: 'b', startS: 2, endS: 99 }],
    })
    expect(p).toEqual({ by: 'marks', doubt: null, spans: [{ sectionId: 'b', startS: 2, endS: 20 }] })
  })
})
