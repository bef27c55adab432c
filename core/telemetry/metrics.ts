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
  const depthBins = Math.ceil(100 / r.depthBinPct)
  const speedBins = (2 * r.speedRangeMmS) / r.speedBinMmS
  const perSpeedBin = 1 / r.speedBinMmS
  const depth = new Float64Array(depthBins)
  const speed = new Float64Array(speedBins)
  let n = 0
  let rideSum = 0
  let rideN = 0
  let sSum = 0
  let cSum = 0
  let aSum = 0
  for (let i = from; i < to; i++) {
    const x = d[i]
    if (x !== x) continue
    work[n++] = x
    const at = (x / r.depthBinPct) | 0
    depth[at < 0 ? 0 : at >= depthBins ? depthBins - 1 : at]++
    if (riding[i]) {
      rideSum += x
      rideN++
    }
    const s = v[i]
    const bin = ((s + r.speedRangeMmS) * perSpeedBin) | 0
    speed[bin < 0 ? 0 : bin >= speedBins ? speedBins - 1 : bin]++
    sSum += supportBand[i] * supportBand[i]
    cSum += chatterBand[i] * chatterBand[i]
    if (axleBand) aSum += axleBand[i] * axleBand[i]
  }
  const [p05, p50, p95] = quantilesOf(work.subarray(0, n), [0.05, 0.5, 0.95])
  let deepest = 0
  for (let i = 0; i < n; i++) if (work[i] > deepest) deepest = work[i]
  // Speeds in from the front of the room, speeds out from its back: together they are no more than the samples.
  const size = to - from
  const sides = [
    { count: 0, high: 0, max: 0 },
    { count: 0, high: 0, max: 0 },
  ]
  const [into, out] = sides
  for (let i = from; i < to; i++) {
    const s = v[i]
    if (s > 0) {
      work[into.count++] = s
      if (s > r.lowHighMmS) into.high++
      if (s > into.max) into.max = s
    } else if (s < 0) {
      work[size - ++out.count] = -s
      if (s < -r.lowHighMmS) out.high++
      if (s < -out.max) out.max = -s
    }
  }
  const [compression, rebound] = sides.map(({ count, high, max }, k) => {
    const part = k === 0 ? work.subarray(0, count) : work.subarray(size - count, size)
    return { p95: orZero(quantilesOf(part, [0.95])[0]), max, highShare: count ? high / count : 0 }
  })
  const hits = m.hits.filter((h) => h.peakIndex >= from && h.peakIndex < to)
  const inSpan = events.filter((e) => e.end === m.end && e.startS * rate >= from && e.startS * rate < to)
  const drifts = inSpan.filter((e) => e.kind === 'train').map((e) => e.value)
  const damping = hits.flatMap((h) => (h.dampingRatio === null ? [] : [h.dampingRatio]))
  const recovery = hits.flatMap((h) => (h.recoveryS === null ? [] : [h.recoveryS * 1000]))
  const law = returnLaw(
    hits.map((h) => (h.peakPct / 100) * m.travelMm),
    hits.map((h) => h.reboundMmS),
  )
  return {
    rideHeightPct: rideN ? rideSum / rideN : orZero(p50),
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
    supportPct: n ? Math.sqrt(sSum / n) : 0,
    smallBumpPct: n ? Math.sqrt(cSum / n) : 0,
    bottomOuts: inSpan.filter((e) => e.kind.endsWith('bottom-out')).length,
    hardBottomOuts: inSpan.filter((e) => e.kind === 'hard-bottom-out').length,
    topOuts: inSpan.filter((e) => e.kind === 'top-out').length,
    hits: hits.length,
    midHits: hits.filter((h) => h.peakPct >= r.midHitPct && h.peakPct <= r.bigHitPct).length,
    bigHits: hits.filter((h) => h.peakPct > r.bigHitPct).length,
    trains: drifts.length,
    valleyDriftPctPerHit: drifts.length ? mean(drifts) : null,
    valleyDriftSe: drifts.length > 1 ? standardError(drifts) : null,
    reboundDampingRatio: damping.length ? median(damping) : null,
    reboundDampingHits: damping.length,
    recoveryMs: recovery.length ? median(recovery) : null,
    returnSlopePerS: law?.slope ?? null,
    returnInterceptMmS: law?.intercept ?? null,
    chatterPctPerG: aSum > 0 ? Math.sqrt(cSum / aSum) : null,
    diveRisePct: null,
  }
}

const orZero = (x: number) => (Number.isFinite(x) ? x : 0)

function shares(counts: Float64Array): number[] {
  let total = 0
  for (const c of counts) total += c
  return Array.from(counts, (c) => (total ? c / total : 0))
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
