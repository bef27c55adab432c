import type { End } from '#contract/common'
import { butterworthLowPass, filterBothWays, filterMinSamples } from '../signal/butterworth.ts'
import { oddWindow, savitzkyGolayDerivative } from '../signal/derivative.ts'
import { finiteSegments, perSegment } from '../signal/segments.ts'
import { findHits, type Hit } from './hits.ts'
import type { CleanRecording } from './ingest.ts'

/** One end's movement, ready to be counted and averaged. */
export interface EndMotion {
  end: End
  sampleRateHz: number
  travelMm: number
  /** Low-passed depth, % of travel; NaN = gap. */
  depthPct: Float64Array
  /** mm/s at the axle (or shaft), + = compressing. */
  speedMmS: Float64Array
  /** Depth in 0.3–3 Hz and in 8–25 Hz, % of travel. */
  supportBand: Float64Array
  chatterBand: Float64Array
  hits: Hit[]
}

/**
 * Low-pass at min(60 Hz, 0.4·rate), Savitzky–Golay speed (cubic, about 21 ms), band parts as differences of
 * zero-phase low-passes, hits per gap-free stretch.
 */
export function endMotion(recording: CleanRecording, end: End): EndMotion {
  const rate = recording.sampleRateHz
  const raw = recording.depthPct[end]!
  const travelMm = recording.travelMm[end]!
  const window = oddWindow(21, rate)
  const shortest = Math.max(filterMinSamples, window)
  const low = (x: Float64Array, hz: number) =>
    filterBothWays(x, butterworthLowPass(Math.min(hz, 0.4 * rate), rate))
  const depthPct = perSegment(raw, shortest, (s) => low(s, 60))
  const speedMmS = perSegment(depthPct, shortest, (s) => {
    const v = savitzkyGolayDerivative(s, rate, window)
    for (let i = 0; i < v.length; i++) v[i] *= travelMm / 100
    return v
  })
  const band = (fromHz: number, toHz: number) =>
    perSegment(depthPct, shortest, (s) => {
      const upper = low(s, toHz)
      const lower = low(s, fromHz)
      for (let i = 0; i < upper.length; i++) upper[i] -= lower[i]
      return upper
    })
  const hits: Hit[] = []
  for (const [a, b] of finiteSegments(depthPct)) {
    hits.push(...findHits(depthPct.subarray(a, b), speedMmS.subarray(a, b), rate, a))
  }
  return {
    end,
    sampleRateHz: rate,
    travelMm,
    depthPct,
    speedMmS,
    supportBand: band(0.3, 3),
    chatterBand: band(8, 25),
    hits,
  }
}
