import { describe, expect, it } from 'vitest'
import type { TrailSection } from '#contract/trail'
import { rideTrail } from '../sim/ride.ts'
import { fineCounts, quantilesOf } from '../signal/fineCounts.ts'
import { quantileSorted } from '../signal/quantile.ts'
import { inBands, welch, welchSegment } from '../signal/spectrum.ts'
import { seededRandom } from '../numeric/random.ts'
import { bump, decay, recordingOf } from '../test/synthetic.ts'
import { sectionOf, testBike } from '../test/simulated.ts'
import { analyse, spectrumBands } from './analyse.ts'
import { evidenceCounts } from './evidence.ts'
import { endMotion } from './motion.ts'
import type { CleanRecording } from './cleanRecording.ts'

/** The simulated ride as the importer would hand it on. */
function recorded(sections: readonly TrailSection[], set = {}, rate = 500): CleanRecording {
  const bike = testBike(set)
  const ride = rideTrail(bike, sections, { ground: 3, run: 4 }, rate)
  return {
    sampleRateHz: rate,
    samples: ride.front.length,
    ends: ['front', 'rear'],
    depthPct: { front: ride.front.map((u) => 100 * u), rear: ride.rear.map((u) => 100 * u) },
    travelMm: { front: 150, rear: 1000 * bike.car.rear.travelM },
    rearAt: 'axle',
    speedMS: ride.speedMS,
    distanceM: ride.distanceM,
    barG: ride.barG,
    axleG: { front: ride.frontAxleG, rear: ride.rearAxleG },
    startEpochS: null,
    issues: [],
  }
}
const run = [
  sectionOf('smooth', 60),
  sectionOf('braking-bumps', 70),
  sectionOf('roots', 100),
  sectionOf('jump', 110),
  sectionOf('g-out', 60),
  sectionOf('flat-out', 100),
]
const a = analyse(recorded(run), run)
const of = (kind: string) => a.sections.find((s) => s.sectionId === kind)!

describe('a simulated ride', () => {
  it('dives in its braking section, and only there a dive is told', () => {
    expect(of('braking-bumps').front!.diveRisePct!).toBeGreaterThan(3)
    expect(of('braking-bumps').rear!.diveRisePct!).toBeLessThan(of('braking-bumps').front!.diveRisePct!)
    expect(of('roots').front!.diveRisePct).toBeNull()
    expect(a.whole.front!.diveRisePct).toBeNull()
  })
  it('brakes, is loaded in the dip, and lands as often as it left the ground', () => {
    expect(of('braking-bumps').brakings!).toBeGreaterThan(0)
    expect(of('smooth').brakings).toBe(0)
    expect(of('g-out').loadedTurns!).toBeGreaterThan(0)
    expect(of('roots').loadedTurns).toBe(0)
    expect(of('jump').landings!).toBeGreaterThan(0)
    expect(of('roots').landings).toBe(0)
    expect(of('jump').airtimeS!).toBeGreaterThan(0.15)
    expect(of('roots').airtimeS).toBe(0)
    const parts = a.sections.reduce((s, x) => s + x.airtimeS!, 0)
    expect(parts).toBeCloseTo(a.whole.airtimeS!, 6)
    expect(a.events.filter((e) => e.kind === 'landing').length).toBeGreaterThanOrEqual(of('jump').landings!)
  })
  it('has the rear do what the front did, a wheelbase later', () => {
    const { wheelbaseCorrelation, wheelbaseLagS } = of('roots')
    expect(wheelbaseCorrelation!).toBeGreaterThan(0.6)
    expect(wheelbaseLagS! * 6.5).toBeGreaterThan(1)
    expect(wheelbaseLagS! * 6.5).toBeLessThan(1.5)
  })
  it('buzzes more in roots than on smooth ground', () => {
    expect(of('roots').buzzMS2!).toBeGreaterThan(2 * of('smooth').buzzMS2!)
  })
  it('keeps the hardest twenty hits of each end to jump to', () => {
    const hits = a.events.filter((e) => e.kind === 'hit' && e.end === 'rear')
    expect(hits).toHaveLength(20)
    expect(Math.max(...hits.map((h) => h.value))).toBeCloseTo(a.whole.rear!.compressionMaxMmS, -3)
  })
  it('counts evidence of what it holds', () => {
    const e = evidenceCounts(a.whole)
    expect(e.find((x) => x.what.startsWith('landings'))!.count).toBe(a.whole.landings)
    expect(e.find((x) => x.what.startsWith('braking'))!.count).toBe(a.whole.brakings)
  })
})

describe('known signals', () => {
  it('a decaying swing of known damping is found again between 0.15 and 0.6, within 0.03', () => {
    for (const zeta of [0.15, 0.3, 0.45, 0.6]) {
      // One hit every 3 s, pushed in by a smooth bump, let go at its top.
      const swing = (t: number) => {
        const since = t % 3
        return since < 0.1 ? 25 + 30 * bump(since - 0.1, 0.2) : decay(since - 0.1, 55, 25, 2.2, zeta)
      }
      const m = analyse(recordingOf(swing, null, { durationS: 30 }), []).whole.front!
      expect(Math.abs(m.reboundDampingRatio! - zeta), `ζ ${zeta}`).toBeLessThan(0.03)
    }
  })
  it('weighted buzz of a sine at 16 Hz is 0.896 of its RMS', () => {
    const r = recordingOf(() => 25, null, { durationS: 20 })
    r.depthPct.front = r.depthPct.front!.map((d, i) => d + Math.sin(i / 9))
    r.barG = Float64Array.from(
      { length: r.samples },
      (_, i) => 1 + 0.5 * Math.sin((2 * Math.PI * 15.849 * i) / 500),
    )
    const want = (0.896 * 0.5 * 9.80665) / Math.SQRT2
    expect(analyse(r, []).whole.buzzMS2! / want).toBeCloseTo(1, 2)
  })
  it('chatter of the depth is told against that of the axle in the same band', () => {
    const wave = (t: number) => Math.sin(2 * Math.PI * 14 * t)
    const r = recordingOf((t) => 30 + 2 * wave(t), null, { durationS: 20 })
    r.axleG.front = Float64Array.from({ length: r.samples }, (_, i) => 1 + 0.8 * wave(i / 500))
    // The low-pass at 60 Hz takes a third of a per cent off at 14 Hz.
    expect(analyse(r, []).whole.front!.chatterPctPerG!).toBeCloseTo(2 / 0.8, 1)
  })
  it('a swing of 4 % at 3 Hz stands in its band of the spectrum', () => {
    const r = recordingOf((t) => 30 + 4 * Math.sin(2 * Math.PI * 3 * t), null, { durationS: 40 })
    const s = analyse(r, []).spectra.front!
    const top = s.density.indexOf(Math.max(...s.density))
    expect(Math.abs(s.startHz * s.ratio ** (top + 0.5) - 3)).toBeLessThan(0.4)
    expect(s.density).toHaveLength(spectrumBands.count)
  })
  it('one end alone has no ratio, no correlation and no turns', () => {
    const { whole } = analyse(
      recordingOf((t) => 30 + 4 * Math.sin(9 * t), null),
      [],
    )
    expect([
      whole.compressionSpeedRatio,
      whole.wheelbaseCorrelation,
      whole.loadedTurns,
      whole.landings,
    ]).toEqual([null, null, null, null])
  })
})

describe('the drawn spectrum', () => {
  it('is that of every sample, though fast recordings are thinned before it is taken', () => {
    for (const sampleRateHz of [100, 500, 1000, 2000]) {
      const random = seededRandom(3)
      const ride = (t: number) => 30 + 10 * Math.sin(2 * Math.PI * t) + 10 * (random() - 0.5)
      const recording = recordingOf(ride, () => 30, { durationS: 60, sampleRateHz })
      const { depthPct } = endMotion(recording, 'front')
      const { startHz, ratio, count } = spectrumBands
      const whole = welch(depthPct, sampleRateHz, welchSegment(sampleRateHz))!
      const { density } = analyse(recording, []).spectra.front!
      inBands(whole, startHz, ratio, count).forEach((of, band) => {
        expect(density[band] / of, `${sampleRateHz} Hz, band ${band}`).toBeCloseTo(1, 2)
      })
    }
  })
})

describe('quantiles by counting', () => {
  it('equal those of sorted values, gaps left out, whatever lies beyond the bins', () => {
    const random = seededRandom(7)
    for (const n of [1, 2, 3, 10, 101, 5000, 20_001]) {
      const x = Float64Array.from({ length: n + 20 }, () =>
        random() < 0.3 ? Math.round(random() * 50) - 20 : 80 * random() ** 3 - 10,
      )
      for (let i = 0; i < n / 9; i++) x[Math.floor(random() * n)] = NaN
      // What no sensor means and a file may hold all the same.
      for (let i = 0; i < n / 50; i++) x[10 + Math.floor(random() * n)] = random() < 0.5 ? -3e12 : 5e11
      const known = x.subarray(10, n + 10).filter((v) => v === v)
      const sorted = known.slice().sort()
      const fine = fineCounts(x, 10, n + 10, 0, 0.25, new Uint32Array(200))
      expect([fine.total, fine.low, fine.high]).toEqual([known.length, sorted[0], sorted.at(-1)])
      const q = [0, 0.05, 0.5, 0.95, 1]
      const all = { first: 0, count: fine.total }
      expect(
        quantilesOf(
          x,
          10,
          n + 10,
          fine,
          q.map((p) => ({ q: p, ...all })),
        ),
      ).toEqual(q.map((p) => quantileSorted(sorted, p)))
      const turned = known.filter((v) => v < 0).map((v) => -v)
      const [below] = quantilesOf(x, 10, n + 10, fine, [
        { q: 0.95, first: 0, count: turned.length, isTurned: true },
      ])
      expect(below).toBe(quantileSorted(turned.sort(), 0.95))
    }
  })
  it('say nothing of nothing', () => {
    const none = new Float64Array(3).fill(NaN)
    const fine = fineCounts(none, 0, 3, 0, 1, new Uint32Array(4))
    expect(quantilesOf(none, 0, 3, fine, [{ q: 0.5, first: 0, count: 0 }])).toEqual([NaN])
  })
})
