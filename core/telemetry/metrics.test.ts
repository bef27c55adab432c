import { describe, expect, it } from 'vitest'
import type { EndMetrics, RecordingEvent } from '#contract/recording'
import { normalFrom, seededRandom } from '../numeric/random.ts'
import { endMetrics } from './metrics.ts'
import type { EndMotion } from './motion.ts'
import type { Hit } from './hits.ts'

const rate = 200
const samples = 4000

/** A made-up motion whose every array is drawn, so that nothing follows from anything else. */
function drawn(seed: number) {
  const random = seededRandom(seed)
  const numbers = (of: () => number) => Float64Array.from({ length: samples }, of)
  const depthPct = numbers(() => (random() < 0.03 ? NaN : 100 * random() ** 2))
  const speedMmS = numbers(() => (random() < 0.02 ? NaN : 250 * normalFrom(random)))
  const band = (scale: number) =>
    Float32Array.from(numbers(() => (random() < 0.02 ? NaN : scale * normalFrom(random))))
  const hits: Hit[] = Array.from({ length: 60 }, (_, i) => ({
    entryIndex: i * 65,
    peakIndex: i * 65 + Math.floor(30 * random()),
    valleyIndex: i * 65 + 50,
    entryPct: 10,
    peakPct: 5 + 90 * random(),
    valleyPct: 12,
    compressionMmS: 900,
    reboundMmS: 300 + 900 * random(),
    recoveryS: random() < 0.4 ? null : 0.1 + 0.2 * random(),
    dampingRatio: random() < 0.7 ? null : 0.2 + 0.4 * random(),
  }))
  const motion: EndMotion = {
    end: 'front',
    sampleRateHz: rate,
    travelMm: 150,
    depthPct,
    speedMmS,
    supportBand: band(4),
    supportEvery: 1,
    chatterBand: band(1),
    axleBand: band(0.5),
    hits,
  }
  const kinds: RecordingEvent['kind'][] = [
    'bottom-out',
    'hard-bottom-out',
    'top-out',
    'train',
    'hit',
    'landing',
  ]
  const events = Array.from({ length: 80 }, (_, i): RecordingEvent => {
    const startS = (samples / rate) * random()
    return {
      kind: kinds[i % kinds.length],
      end: i % 7 === 0 ? 'rear' : 'front',
      startS,
      endS: startS + 0.2,
      value: 4 * random() - 1,
    }
  })
  const riding = Uint8Array.from(numbers(() => (random() < 0.8 ? 1 : 0)))
  return { motion, events, riding }
}

const mean = (x: readonly number[]) => x.reduce((s, v) => s + v, 0) / x.length
const rms = (x: ArrayLike<number>) =>
  Math.sqrt(mean(Array.from(x, (v) => v * v).filter((v) => !Number.isNaN(v))))
const middle = (x: readonly number[]) => {
  const s = [...x].sort((a, b) => a - b)
  return s.length % 2 ? s[(s.length - 1) / 2] : (s[s.length / 2 - 1] + s[s.length / 2]) / 2
}

/** Whole seconds between two samples. */
const seconds = (from: number, to: number) =>
  Array.from({ length: Math.floor((to - from) / rate) }, (_, k) => [from + k * rate, from + (k + 1) * rate])

/** The definitions of docs/models.md once more, in the slowest and plainest way. */
function plainly({ motion: m, events, riding }: ReturnType<typeof drawn>, from: number, to: number) {
  const at = Array.from({ length: to - from }, (_, i) => from + i)
  const depths = at.filter((i) => !Number.isNaN(m.depthPct[i]))
  const speeds = at.map((i) => m.speedMmS[i]).filter((v) => !Number.isNaN(v))
  const ins = speeds.filter((v) => v > 0)
  const outs = speeds.filter((v) => v < 0).map((v) => -v)
  const hits = m.hits.filter((h) => at.includes(h.peakIndex))
  const within = events.filter((e) => e.end === 'front' && e.startS * rate >= from && e.startS * rate < to)
  const drifts = within.filter((e) => e.kind === 'train').map((e) => e.value)
  // Normal equations of v = a + b·d, solved by Cramer.
  const d = hits.map((h) => 1.5 * h.peakPct)
  const v = hits.map((h) => h.reboundMmS)
  const sum = (x: number[]) => x.reduce((s, y) => s + y, 0)
  const determinant = d.length * sum(d.map((x) => x * x)) - sum(d) ** 2
  const slope = (d.length * sum(d.map((x, i) => x * v[i])) - sum(d) * sum(v)) / determinant
  return {
    rideHeightPct: mean(depths.filter((i) => riding[i] === 1).map((i) => m.depthPct[i])),
    depthMaxPct: Math.max(...depths.map((i) => m.depthPct[i])),
    compressionMaxMmS: Math.max(...ins),
    reboundMaxMmS: Math.max(...outs),
    highSpeedCompressionShare: ins.filter((s) => s > 200).length / ins.length,
    highSpeedReboundShare: outs.filter((s) => s > 200).length / outs.length,
    supportPct: rms(m.supportBand.subarray(from, to)),
    smallBumpPct: rms(m.chatterBand.subarray(from, to)),
    chatterS: seconds(from, to).filter(
      ([a, b]) =>
        rms(m.chatterBand.subarray(a, b)) >= 0.3 &&
        riding.subarray(a, b).every((r) => r === 1) &&
        !hits.some((h) => h.peakPct - h.entryPct > 15 && h.peakIndex >= a && h.entryIndex < b),
    ).length,
    bottomOuts: within.filter((e) => e.kind === 'bottom-out' || e.kind === 'hard-bottom-out').length,
    hardBottomOuts: within.filter((e) => e.kind === 'hard-bottom-out').length,
    topOuts: within.filter((e) => e.kind === 'top-out').length,
    hits: hits.length,
    midHits: hits.filter((h) => h.peakPct >= 20 && h.peakPct <= 60).length,
    bigHits: hits.filter((h) => h.peakPct > 60).length,
    trains: drifts.length,
    valleyDriftPctPerHit: mean(drifts),
    valleyDriftSe: Math.sqrt(
      sum(drifts.map((x) => (x - mean(drifts)) ** 2)) / (drifts.length - 1) / drifts.length,
    ),
    reboundDampingRatio: middle(hits.flatMap((h) => h.dampingRatio ?? [])),
    reboundDampingHits: hits.filter((h) => h.dampingRatio !== null).length,
    recoveryMs: middle(hits.flatMap((h) => (h.recoveryS === null ? [] : 1000 * h.recoveryS))),
    returnSlopePerS: slope,
    returnInterceptMmS: (sum(v) - slope * sum(d)) / d.length,
    chatterPctPerG: rms(m.chatterBand.subarray(from, to)) / rms(m.axleBand!.subarray(from, to)),
  } satisfies Partial<EndMetrics>
}

const of = (world: ReturnType<typeof drawn>, from: number, to: number) =>
  endMetrics(world.motion, world.riding, world.events, from, to)

describe('the figures of a stretch', () => {
  it.each([
    [1, 0, samples],
    [2, 700, 2900],
    [3, 1301, samples],
  ])('are their definitions, computed the plain way (seed %i, samples %i to %i)', (seed, from, to) => {
    const world = drawn(seed)
    const got = of(world, from, to)
    for (const [name, expected] of Object.entries(plainly(world, from, to)))
      expect(got[name as keyof EndMetrics], name).toBeCloseTo(expected, 5)
  })

  it('counts every hit, event and sample of two stretches once', () => {
    const world = drawn(4)
    const cut = world.motion.hits[31].peakIndex
    const [whole, a, b] = [of(world, 0, samples), of(world, 0, cut), of(world, cut, samples)]
    for (const name of [
      'hits',
      'midHits',
      'bigHits',
      'bottomOuts',
      'topOuts',
      'trains',
      'reboundDampingHits',
    ] as const)
      expect(a[name] + b[name], name).toBe(whole[name])
    expect(b.hits).toBe(29)
  })

  it('puts each depth and speed in its bin, and what lies outside in the last', () => {
    const world = drawn(5)
    const { depthPct, speedMmS } = world.motion
    depthPct.fill(NaN)
    speedMmS.fill(NaN)
    depthPct.set([0, 1.99, 2, 99.9, 130, -3])
    speedMmS.set([-4200, -3950, 0.1, 99.9, 100, 9000])
    const { depthHistogram: d, speedHistogram: s } = of(world, 0, 10)
    const filled = (x: number[]) => x.flatMap((share, i) => (share > 0 ? [[i, Math.round(share * 6)]] : []))
    expect(filled(d.share)).toEqual([
      [0, 3],
      [1, 1],
      [49, 2],
    ])
    expect(filled(s.share)).toEqual([
      [0, 2],
      [40, 2],
      [41, 1],
      [79, 1],
    ])
  })

  it('says nothing where there is nothing', () => {
    const world = drawn(6)
    world.motion.depthPct.fill(NaN)
    world.motion.speedMmS.fill(NaN)
    world.motion.supportBand.fill(NaN)
    world.motion.chatterBand.fill(NaN)
    const none = endMetrics({ ...world.motion, hits: [], axleBand: null }, world.riding, [], 0, 100)
    expect(none).toMatchObject({
      hits: 0,
      valleyDriftPctPerHit: null,
      valleyDriftSe: null,
      reboundDampingRatio: null,
      recoveryMs: null,
      returnSlopePerS: null,
      returnInterceptMmS: null,
      chatterPctPerG: null,
      highSpeedReboundShare: 0,
      supportPct: 0,
    })
  })

  it('draws no line through four hits, nor through hits of one depth', () => {
    const world = drawn(7)
    const hits = world.motion.hits.slice(0, 5)
    const law = (of: Hit[]) =>
      endMetrics({ ...world.motion, hits: of }, world.riding, [], 0, samples).returnSlopePerS
    expect(law(hits)).not.toBeNull()
    expect(law(hits.slice(0, 4))).toBeNull()
    expect(law(hits.map((h) => ({ ...h, peakPct: 40 })))).toBeNull()
  })
})
