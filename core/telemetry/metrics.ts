import type { EndMetrics, RecordingEvent } from '#contract/recording'
import { median, quantileSorted } from '../signal/quantile.ts'
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
 */
export function endMetrics(
  m: EndMotion,
  riding: Uint8Array,
  events: readonly RecordingEvent[],
  from: number,
  to: number,
): EndMetrics {
  const r = metricRules
  const { depthPct: d, speedMmS: v } = m
  const rate = m.sampleRateHz
  const depth = new Float64Array(Math.ceil(100 / r.depthBinPct))
  const speed = new Float64Array((2 * r.speedRangeMmS) / r.speedBinMmS)
  const sorted = new Float64Array(to - from)
  const comp = new Float64Array(to - from)
  const reb = new Float64Array(to - from)
  let n = 0
  let nc = 0
  let nr = 0
  let rideSum = 0
  let rideN = 0
  let sSum = 0
  let cSum = 0
  let bandN = 0
  for (let i = from; i < to; i++) {
    const x = d[i]
    if (x !== x) continue
    sorted[n++] = x
    depth[Math.min(depth.length - 1, Math.max(0, (x / r.depthBinPct) | 0))]++
    if (riding[i]) {
      rideSum += x
      rideN++
    }
    const s = v[i]
    if (s > 0) comp[nc++] = s
    else if (s < 0) reb[nr++] = -s
    speed[Math.min(speed.length - 1, Math.max(0, Math.floor((s + r.speedRangeMmS) / r.speedBinMmS)))]++
    sSum += m.supportBand[i] * m.supportBand[i]
    cSum += m.chatterBand[i] * m.chatterBand[i]
    bandN++
  }
  const depths = sorted.subarray(0, n).sort()
  const compression = comp.subarray(0, nc).sort()
  const rebound = reb.subarray(0, nr).sort()
  const orZero = (x: number) => (Number.isFinite(x) ? x : 0)
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
    rideHeightPct: rideN ? rideSum / rideN : orZero(quantileSorted(depths, 0.5)),
    depthP05Pct: orZero(quantileSorted(depths, 0.05)),
    depthP50Pct: orZero(quantileSorted(depths, 0.5)),
    depthP95Pct: orZero(quantileSorted(depths, 0.95)),
    depthMaxPct: n ? depths[n - 1] : 0,
    depthHistogram: { start: 0, width: r.depthBinPct, share: shares(depth) },
    speedHistogram: { start: -r.speedRangeMmS, width: r.speedBinMmS, share: shares(speed) },
    compressionP95MmS: orZero(quantileSorted(compression, 0.95)),
    compressionMaxMmS: nc ? compression[nc - 1] : 0,
    reboundP95MmS: orZero(quantileSorted(rebound, 0.95)),
    reboundMaxMmS: nr ? rebound[nr - 1] : 0,
    highSpeedCompressionShare: shareAbove(compression, r.lowHighMmS),
    highSpeedReboundShare: shareAbove(rebound, r.lowHighMmS),
    supportPct: bandN ? Math.sqrt(sSum / bandN) : 0,
    smallBumpPct: bandN ? Math.sqrt(cSum / bandN) : 0,
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
  }
}

function shares(counts: Float64Array): number[] {
  let total = 0
  for (const c of counts) total += c
  return Array.from(counts, (c) => (total ? c / total : 0))
}

function shareAbove(sorted: Float64Array, limit: number): number {
  if (sorted.length === 0) return 0
  let i = sorted.length
  while (i > 0 && sorted[i - 1] > limit) i--
  return (sorted.length - i) / sorted.length
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
