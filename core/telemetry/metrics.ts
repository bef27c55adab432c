import type { EndMetrics, RecordingEvent } from '#contract/recording'
import { median } from '../signal/quantile.ts'
import { coarser, fineCounts, quantilesOf, type FineCounts } from '../signal/fineCounts.ts'
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
  /** A second of small chatter moves at least so much in 8–25 Hz, and holds no hit that goes in further, % of travel. */
  chatterPct: 0.3,
  smallHitPct: 15,
  /** Fewer quiet returns say nothing of the damper. */
  leastReturns: 3,
} as const

/**
 * Every figure of one end between two samples. Definitions: docs/models.md, "What a recording yields".
 *
 * @param riding 1 where the sample counts for ride height
 * @param events of the same end
 */
export function endMetrics(
  m: EndMotion,
  riding: Uint8Array,
  events: readonly RecordingEvent[],
  from: number,
  to: number,
): EndMetrics {
  const r = metricRules
  const { depthPct: d, speedMmS: v, supportBand, supportEvery, chatterBand, axleBand } = m
  const rate = m.sampleRateHz
  const depth = counted(d, from, to, [0, 100], r.depthBinPct)
  const speed = counted(v, from, to, [-r.speedRangeMmS, r.speedRangeMmS], r.speedBinMmS)
  const rideHeight = ridingMean(d, riding, from, to)
  const supportRms = rms(supportBand, Math.ceil(from / supportEvery), Math.ceil(to / supportEvery))
  const chatterRms = rms(chatterBand, from, to)
  const axleRms = axleBand ? rms(axleBand, from, to) : 0
  const [p05, p50, p95] = quantilesOf(
    d,
    from,
    to,
    depth,
    [0.05, 0.5, 0.95].map((q) => ({ q, first: 0, count: depth.total })),
  )
  const { compression, rebound } = speedSides(v, from, to, speed)
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
    depthMaxPct: Math.max(0, depth.high),
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
    chatterS: chatterSeconds(m, riding, hits, from, to),
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

/** Fine bins in each bin of a histogram: exact quantiles come from the same counts. */
const finePerBin = 64

function counted(
  x: Float64Array,
  from: number,
  to: number,
  [start, end]: readonly [number, number],
  binWidth: number,
): FineCounts {
  const width = binWidth / finePerBin
  return fineCounts(x, from, to, start, width, new Uint32Array((end - start) / width))
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

/** Root mean square of a band where it is known; 0 when it is nowhere. */
function rms(band: Float32Array, from: number, to: number): number {
  // Mostly there is no gap, and the sum itself says so. Four, for one would wait for itself.
  let [s0, s1, s2, s3] = [0, 0, 0, 0]
  let i = from
  for (; i + 4 <= to; i += 4) {
    s0 += band[i] * band[i]
    s1 += band[i + 1] * band[i + 1]
    s2 += band[i + 2] * band[i + 2]
    s3 += band[i + 3] * band[i + 3]
  }
  for (; i < to; i++) s0 += band[i] * band[i]
  const all = s0 + s1 + s2 + s3
  if (all === all) return to > from ? Math.sqrt(all / (to - from)) : 0
  const known = band.subarray(from, to).filter((v) => v === v)
  return rms(known, 0, known.length)
}

/** Whole seconds of riding over small chatter. */
function chatterSeconds(
  m: EndMotion,
  riding: Uint8Array,
  hits: EndMotion['hits'],
  from: number,
  to: number,
): number {
  const second = Math.max(1, Math.round(m.sampleRateHz))
  const deep = hits.filter((h) => h.peakPct - h.entryPct > metricRules.smallHitPct)
  let next = 0
  let count = 0
  for (let a = from; a + second <= to; a += second) {
    const end = a + second
    while (next < deep.length && deep[next].peakIndex < a) next++
    const isSmall = !(next < deep.length && deep[next].entryIndex < end)
    if (isSmall && rms(m.chatterBand, a, end) >= metricRules.chatterPct && isRidden(riding, a, end)) count++
  }
  return count
}

function isRidden(riding: Uint8Array, from: number, to: number): boolean {
  for (let i = from; i < to; i++) if (riding[i] === 0) return false
  return true
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
  speed: FineCounts,
): Record<'compression' | 'rebound', SpeedSide> {
  const limit = metricRules.lowHighMmS
  let [ins, outs, highIns, highOuts] = [0, 0, 0, 0]
  for (let i = from; i < to; i++) {
    const s = v[i]
    if (s > 0) ins++
    if (s < 0) outs++
    if (s > limit) highIns++
    if (s < -limit) highOuts++
  }
  const [compressionP95, reboundP95] = quantilesOf(v, from, to, speed, [
    { q: 0.95, first: speed.total - ins, count: ins },
    { q: 0.95, first: 0, count: outs, isTurned: true },
  ])
  const share = (some: number, all: number) => (all ? some / all : 0)
  return {
    compression: {
      p95: orZero(compressionP95),
      max: Math.max(0, speed.high),
      highShare: share(highIns, ins),
    },
    rebound: { p95: orZero(reboundP95), max: Math.max(0, -speed.low), highShare: share(highOuts, outs) },
  }
}

const orZero = (x: number) => (Number.isFinite(x) ? x : 0)

function shares(fine: FineCounts): number[] {
  return Array.from(coarser(fine, finePerBin), (c) => (fine.total ? c / fine.total : 0))
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
