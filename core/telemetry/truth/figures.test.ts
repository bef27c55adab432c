import { describe, expect, it } from 'vitest'
import type { TrailSection } from '#contract/trail'
import { normalFrom, seededRandom } from '../../numeric/random.ts'
import { bump, recordingOf } from '../../test/synthetic.ts'
import { analyse } from '../analyse.ts'

const front = (f: (t: number) => number, options?: Parameters<typeof recordingOf>[2]) =>
  analyse(recordingOf(f, null, options), []).whole.front!

/** Back to full extension at a steady speed, and held there by the stop; six times, % of 150 mm. */
const toppingOut = (speedMmS: number) => (t: number) => {
  const u = t % 3
  const fallS = 45 / speedMmS
  if (u < 1) return 30
  if (u < 1 + fallS) return 30 * (1 - (u - 1) / fallS)
  return u < 2 ? 0 : 30 * Math.min(1, (u - 2) / 0.5)
}

describe('top-outs, by the speed that comes to the stop', () => {
  it.each([650, 700, 800, 1000, 1400])('six at %i mm/s are six', (speed) => {
    for (const sampleRateHz of [200, 500, 1000])
      expect(front(toppingOut(speed), { durationS: 18, sampleRateHz }).topOuts, `${sampleRateHz} Hz`).toBe(6)
  })
  it.each([300, 450, 540])('at %i mm/s there are none', (speed) => {
    for (const sampleRateHz of [200, 500, 1000])
      expect(front(toppingOut(speed), { durationS: 18, sampleRateHz }).topOuts, `${sampleRateHz} Hz`).toBe(0)
  })
  it('a return that swings back before the stop is none, however fast', () => {
    const f = (t: number) => 25 + 23.5 * Math.cos(2 * Math.PI * 2.5 * t)
    expect(front(f).topOuts).toBe(0)
  })
})

describe('hits', () => {
  it('a recording that begins deep and comes up has not been hit', () => {
    expect(front((t) => 20 + 40 * Math.exp(-4 * t)).hits).toBe(0)
    // The next one is a hit like any other.
    expect(front((t) => 20 + 40 * Math.exp(-4 * t) + 30 * bump(t - 8, 0.3)).hits).toBe(1)
  })
})

describe('bands', () => {
  it('a pure swing of 5 Hz and 10 % leaves less than 0.2 % in 8–25 Hz, and chatter of 14 Hz stays', () => {
    for (const sampleRateHz of [100, 200, 500, 1000]) {
      const at = (hz: number, pct: number) =>
        front((t) => 40 + pct * Math.sin(2 * Math.PI * hz * t), { sampleRateHz }).smallBumpPct
      expect(at(5, 10), `${sampleRateHz} Hz`).toBeLessThan(0.2)
      // What begins and ends in the middle of a swing leaves a trace at its ends.
      expect(at(2, 30), `${sampleRateHz} Hz`).toBeLessThan(0.2)
      expect(at(14, 2) / (2 / Math.SQRT2), `${sampleRateHz} Hz`).toBeGreaterThan(0.85)
      expect(at(14, 2) / (2 / Math.SQRT2), `${sampleRateHz} Hz`).toBeLessThan(1.01)
    }
  })
})

describe('seconds of small chatter', () => {
  /** From 2 s on: 20 s of stones, 10 s of smooth swinging ground, 10 s of hits of half the travel over stones. */
  const ride = (stonesPct: number) => (t: number) => {
    const stones = stonesPct * Math.sin(2 * Math.PI * 13 * t)
    const swing = 3 * Math.sin(2 * Math.PI * 0.8 * t)
    if (t < 2) return 25
    if (t < 22) return 25 + swing + stones
    if (t < 32) return 25 + swing
    return 25 + stones + 50 * bump((t % 1) - 0.3, 0.25)
  }
  it('are those over stones, neither smooth ground nor what is hit hard', () => {
    for (const sampleRateHz of [100, 200, 500, 1000]) {
      const { chatterS } = front(ride(1), { durationS: 42, sampleRateHz })
      expect(chatterS, `${sampleRateHz} Hz`).toBeGreaterThanOrEqual(19)
      expect(chatterS, `${sampleRateHz} Hz`).toBeLessThanOrEqual(21)
    }
  })
  it('come to an end with less than a sample a second', () => {
    expect(front(ride(1), { durationS: 400, sampleRateHz: 0.4 }).chatterS).toBeGreaterThanOrEqual(0)
  })
  it('are none where a sensor only hums', () => {
    expect(front(ride(0.2), { durationS: 32 }).chatterS).toBe(0)
  })
})

describe('valley drift of a run', () => {
  /** Trains of hits; what a train sinks with each hit, % of travel. */
  const trains = (all: readonly { at: number; hits: number; drift: number }[]) => (t: number) => {
    for (const { at, hits, drift } of all) {
      const u = t - at
      if (u < 0 || u > hits * 0.3 + 1.5) continue
      const k = Math.floor(u / 0.3)
      if (k >= hits) return 20 + drift * hits * Math.exp(-2 * (u - hits * 0.3))
      return 20 + drift * (u / 0.3) + 25 * bump(u - k * 0.3 - 0.15, 0.3)
    }
    return 20
  }
  it('counts every hit alike: four hits that rise say less than twelve that sink', () => {
    const m = front(
      trains([
        { at: 2, hits: 12, drift: 2 },
        { at: 12, hits: 4, drift: -1 },
      ]),
    )
    expect(m.trains).toBe(2)
    // (11 · 2 + 3 · (−1)) / 14: a slope rests on the steps between hits.
    expect(m.valleyDriftPctPerHit!).toBeCloseTo(19 / 14, 0)
    expect(m.valleyDriftPctPerHit!).toBeGreaterThan(1)
  })
  it('one hit more or less at a threshold does not halve it', () => {
    const drift = (last: number) =>
      front(
        trains([
          { at: 2, hits: 12, drift: 2 },
          { at: 12, hits: last, drift: 0 },
        ]),
      ).valleyDriftPctPerHit!
    expect(drift(4)).toBeGreaterThan(0.7 * drift(3))
  })
})

describe('dive', () => {
  const section = (id: string, kind: TrailSection['kind']): TrailSection =>
    ({ id, name: id, kind, lengthM: 100, note: '' }) as unknown as TrailSection
  it('is against the ride height outside braking, however long the braking is', () => {
    // Half of the ride is braking at 32 %, half is not at 24 %: the dive is 8, not 4.
    const random = seededRandom(3)
    const wave = Array.from({ length: 5000 }, () => normalFrom(random))
    const r = recordingOf(
      (t) => (t < 10 ? 24 : 32) + 2 * Math.sin(9 * t) + 0.1 * wave[Math.floor(t * 100) % 5000],
      (t) => 30 + 2 * Math.sin(9 * t),
      { durationS: 20 },
    )
    const spans = [
      { sectionId: 'a', startS: 0, endS: 10 },
      { sectionId: 'b', startS: 10, endS: 20 },
    ]
    const a = analyse(r, [section('a', 'rock-garden' as never), section('b', 'braking-bumps')], {
      marks: spans,
    })
    expect(a.sections[1].front!.diveRisePct!).toBeCloseTo(8, 0)
    expect(a.sections[0].front!.diveRisePct).toBeNull()
  })
})
