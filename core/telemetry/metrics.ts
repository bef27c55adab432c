import type { EndMetrics, RecordingEvent } from '#contract/recording'
import { median } from '../signal/quantile.ts'
import { quantilesOf } from '../signal/quantiles.ts'
import type { EndMotion } from './motion.ts'

export const metricRules = {
  /** Shaft speeds below are low, above are high, mm/s at the axle. */
  lowHighMmS: 200,
  depthBinPct: 2,
  speedBinMmS: 100,
  speedRangeMmS: 4000,
  midHitPct: 20,
  bigHitPct: 60,
  leastHitsForLaw: 5,
  /** Fewer quiet returns say nothing of the damper. */
  leastReturns: 3,
} as const

/**
 * Every figure of one end between two samples. Definitions: docs/models.md, "What a recording yields".
 *
 * @param riding 1 where the sample counts for ride height
 * @param events of the same end
 * @param work room for at least to − from values, used up
 */
export function endMetrics(
  m: EndMotion,
  riding: Uint8Array,
  events: readonly RecordingEvent[],
  from: number,
  to: number,
  work: Float64Array,
): EndMetrics {
  const r = metricRules
  const { depthPct: d, speedMmS: v, supportBand, chatterBand, axleBand } = m
  const rate = m.sampleRateHz
  const depth = new Float64Array(Math.ceil(100 / r.depthBinPct))
  const speed = new Float64Array((2 * r.speedRangeMmS) / r.speedBinMmS)
  const n = knownOf(d, from, to, work)
  countInto(depth, d, from, to, 0, r.depthBinPct)
  countInto(speed, v, from, to, -r.speedRangeMmS, r.speedBinMmS)
  const rideHeight = ridingMean(d, riding, from, to)
  const supportRms = rms(supportBand, d, from, to)
  const chatterRms = rms(chatterBand, d, from, to)
  const axleRms = axleBand ? rms(axleBand, d, from, to) : 0
  const [p05, p50, p95] = quantilesOf(work.subarray(0, n), [0.05, 0.5, 0.95])
  let deepest = 0
  for (let i = 0; i < n; i++) if (work[i] > deepest) deepest = work[i]
  const { compression, rebound } = speedSides(v, from, to, work)
  const hits = m.hits.filter((h) => h.peakIndex >= from && h.peakIndex < to)
  const inSpan = events.filter((e) => e.end === m.end && e.startS * rate >= from && e.startS * rate < to)
  const trains = inSpan.filter((e) => e.kind === 'train')
  const drifts = trains.map((e) => e.value)
  const damping = hits.flatMap((h) => (h.dampingRatio === null ? [] : [h.dampingRatio]))
  const recovery = hits.flatMap((h) => (h.recoveryS === null ? [] : [h.recoveryS * 1000]))
  const law = returnLaw(
    hits.map((h) => (h.peakPct / 100) * m.travelMm),
    hits.map((h) => h.reboundMmS),
  )
  return {
    rideHeightPct: rideHeight ?? orZero(p50),
    depthP05Pct: orZero(p05),
    depthP50Pct: orZero(p50),
    depthP95Pct: orZero(p95),
    depthMaxPct: deepest,
    depthHistogram: { start: 0, width: r.depthBinPct, share: shares(depth) },
    speedHistogram: { start: -r.speedRangeMmS, width: r.speedBinMmS, share: shares(speed) },
    compressionP95MmS: compression.p95,
    compressionMaxMmS: compression.max,
    reboundP95MmS: rebound.p95,
    reboundMaxMmS: rebound.max,
    highSpeedCompressionShare: compression.highShare,
    highSpeedReboundShare: rebound.highShare,
    supportPct: supportRms,
    smallBumpPct: chatterRms,
    bottomOuts: inSpan.filter((e) => e.kind.endsWith('bottom-out')).length,
    hardBottomOuts: inSpan.filter((e) => e.kind === 'hard-bottom-out').length,
    topOuts: inSpan.filter((e) => e.kind === 'top-out').length,
    hits: hits.length,
    midHits: hits.filter((h) => h.peakPct >= r.midHitPct && h.peakPct <= r.bigHitPct).length,
    bigHits: hits.filter((h) => h.peakPct > r.bigHitPct).length,
    trains: drifts.length,
    valleyDriftPctPerHit: trains.length ? driftByHits(trains, m) : null,
    valleyDriftSe: drifts.length > 1 ? standardError(drifts) : null,
    reboundDampingRatio: damping.length >= r.leastReturns ? median(damping) : null,
    reboundDampingSe: damping.length >= r.leastReturns ? standardError(damping) : null,
    reboundDampingHits: damping.length,
    recoveryMs: recovery.length ? median(recovery) : null,
    returnSlopePerS: law?.slope ?? null,
    returnInterceptMmS: law?.intercept ?? null,
    chatterPctPerG: axleRms > 0 ? chatterRms / axleRms : null,
    diveRisePct: null,
  }
}

// One loop for each figure: small enough for the compiler to keep everything in registers.

/** Copies what is known to the start of `work`; how many there are. */
function knownOf(x: Float64Array, from: number, to: number, work: Float64Array): number {
  let n = 0
  for (let i = from; i < to; i++) {
    const value = x[i]
    if (value === value) work[n++] = value
  }
  return n
}

/** Counts values in equal bins from `start` on; what lies outside goes to the first or the last. */
function countInto(
  bins: Float64Array,
  x: Float64Array,
  from: number,
  to: number,
  start: number,
  width: number,
): void {
  const perBin = 1 / width
  const last = bins.length - 1
  for (let i = from; i < to; i++) {
    const value = x[i]
    if (value !== value) continue
    const at = ((value - start) * perBin) | 0
    bins[at < 0 ? 0 : at > last ? last : at]++
  }
}

/** Mean where 1 stands in `riding` and the depth is known; null: nowhere. */
export function ridingMean(x: Float64Array, riding: Uint8Array, from: number, to: number): number | null {
  let sum = 0
  let n = 0
  for (let i = from; i < to; i++) {
    const value = x[i]
    if (riding[i] === 0 || value !== value) continue
    sum += value
    n++
  }
  return n ? sum / n : null
}

/** Root mean square of a band where the depth is known; 0 when it is nowhere. */
function rms(band: Float32Array, depth: Float64Array, from: number, to: number): number {
  let sum = 0
  let n = 0
  for (let i = from; i < to; i++) {
    if (depth[i] !== depth[i]) continue
    sum += band[i] * band[i]
    n++
  }
  return n ? Math.sqrt(sum / n) : 0
}

interface SpeedSide {
  p95: number
  max: number
  highShare: number
}

/** Compression and rebound speeds apart. Plain counters: a field of an object is slow to count in. */
function speedSides(
  v: Float64Array,
  from: number,
  to: number,
  work: Float64Array,
): Record<'compression' | 'rebound', SpeedSide> {
  const high = metricRules.lowHighMmS
  // Speeds in from the front of the room, speeds out from its back: together they are no more than the samples.
  const size = to - from
  let ins = 0
  let highIns = 0
  let maxIn = 0
  let outs = 0
  let highOuts = 0
  let maxOut = 0
  for (let i = from; i < to; i++) {
    const s = v[i]
    if (s > 0) {
      work[ins++] = s
      if (s > high) highIns++
      if (s > maxIn) maxIn = s
    } else if (s < 0) {
      work[size - ++outs] = -s
      if (s < -high) highOuts++
      if (s < -maxOut) maxOut = -s
    }
  }
  const side = (speeds: Float64Array, max: number, highs: number): SpeedSide => ({
    p95: orZero(quantilesOf(speeds, [0.95])[0]),
    max,
    highShare: speeds.length ? highs / speeds.length : 0,
  })
  return {
    compression: side(work.subarray(0, ins), maxIn, highIns),
    rebound: side(work.subarray(size - outs, size), maxOut, highOuts),
  }
}

const orZero = (x: number) => (Number.isFinite(x) ? x : 0)

function shares(counts: Float64Array): number[] {
  let total = 0
  for (const c of counts) total += c
  return Array.from(counts, (c) => (total ? c / total : 0))
}

/** Mean drift of trains, each counted by its steps from hit to hit: four hits say less than twelve. */
function driftByHits(trains: readonly RecordingEvent[], m: EndMotion): number {
  let sum = 0
  let steps = 0
  for (const t of trains) {
    const within = (h: EndMotion['hits'][number]) =>
      h.entryIndex >= t.startS * m.sampleRateHz - 0.5 && h.peakIndex <= t.endS * m.sampleRateHz + 0.5
    const weight = Math.max(1, m.hits.filter(within).length - 1)
    sum += weight * t.value
    steps += weight
  }
  return sum / steps
}

const mean = (x: readonly number[]) => x.reduce((s, v) => s + v, 0) / x.length

function standardError(x: readonly number[]): number {
  const m = mean(x)
  return Math.sqrt(x.reduce((s, v) => s + (v - m) ** 2, 0) / (x.length - 1) / x.length)
}

/** Peak rebound speed regressed on peak depth (mm): slope 1/s, intercept mm/s. */
function returnLaw(depthMm: readonly number[], speedMmS: readonly number[]) {
  if (depthMm.length < metricRules.leastHitsForLaw) return null
  const mx = mean(depthMm)
  const my = mean(speedMmS)
  let sxx = 0
  let sxy = 0
  for (let i = 0; i < depthMm.length; i++) {
    sxx += (depthMm[i] - mx) ** 2
    sxy += (depthMm[i] - mx) * (speedMmS[i] - my)
  }
  if (sxx === 0) return null
  const slope = sxy / sxx
  return { slope, intercept: my - slope * mx }
}
