import type { End } from '#contract/common'
import {
  bandBothWays,
  butterworthLowPass,
  butterworthSteep,
  filterBothWays,
  filterExtra,
  filterMinSamples,
} from '../signal/butterworth.ts'
import { oddWindow, savitzkyGolayDerivative } from '../signal/derivative.ts'
import { finiteSegments, perSegment } from '../signal/segments.ts'
import { findHits, type Hit } from './hits.ts'
import type { CleanRecording } from './cleanRecording.ts'

/** One end's movement, ready to be counted and averaged. */
export interface EndMotion {
  end: End
  sampleRateHz: number
  travelMm: number
  /** Low-passed depth, % of travel; NaN = gap. */
  depthPct: Float64Array
  /** mm/s at the axle (or shaft), + = compressing. */
  speedMmS: Float64Array
  /** Depth in 0.3–3 Hz and in 8–25 Hz, % of travel. Only ever squared and summed: single precision is plenty. */
  supportBand: Float32Array
  chatterBand: Float32Array
  /** The axle's acceleration in 8–25 Hz, g; null without a sensor there. */
  axleBand: Float32Array | null
  hits: Hit[]
}

/** Room for filtering, shared by all channels of a recording. */
interface Workspace {
  a: Float64Array
  b: Float64Array
}

export function workspaceFor(samples: number): Workspace {
  return { a: new Float64Array(samples + filterExtra), b: new Float64Array(samples + filterExtra) }
}

/** Steep below: a swing of the rider at 5 Hz is no chatter of the ground. */
const chatterHz = [8, 25] as const
const supportHz = [0.3, 3] as const

/**
 * Low-pass at min(60 Hz, 0.4·rate), Savitzky–Golay speed (cubic, about 21 ms), band parts as differences of
 * zero-phase low-passes, hits per gap-free stretch.
 * Cost O(N); keeps three times the channel, works in the room handed in.
 */
export function endMotion(
  recording: CleanRecording,
  end: End,
  work = workspaceFor(recording.samples),
): EndMotion {
  const rate = recording.sampleRateHz
  const raw = recording.depthPct[end]!
  const travelMm = recording.travelMm[end]!
  const window = oddWindow(21, rate)
  const shortest = Math.max(filterMinSamples, window)
  const lowPass = (hz: number) => butterworthLowPass(Math.min(hz, 0.4 * rate), rate)
  const main = lowPass(60)
  // Shorter stretches cannot be filtered honestly and become gaps.
  const stretches = finiteSegments(raw).filter(([a, b]) => b - a >= shortest)
  const depthPct = perSegment(raw, stretches, new Float64Array(raw.length), (s, into) =>
    into.set(filterBothWays(s, main, work.a)),
  )
  const speedMmS = perSegment(depthPct, stretches, new Float64Array(raw.length), (s, into) => {
    savitzkyGolayDerivative(s, rate, window, into)
    for (let i = 0; i < into.length; i++) into[i] *= travelMm / 100
  })
  const band = (
    x: Float64Array,
    parts: readonly (readonly [number, number])[],
    [fromHz, toHz]: readonly [number, number],
    isSteep: boolean,
  ) => {
    const upper = lowPass(toHz)
    const steep = isSteep ? butterworthSteep(Math.min(fromHz, 0.4 * rate), rate) : null
    const [lower, more] = steep ?? [lowPass(fromHz), null]
    return perSegment(x, parts, new Float32Array(x.length), (s, into) =>
      bandBothWays(s, upper, lower, work, into, more),
    )
  }
  const hits: Hit[] = []
  for (const [a, b] of stretches) {
    hits.push(...findHits(depthPct.subarray(a, b), speedMmS.subarray(a, b), rate, a))
  }
  const axle = recording.axleG[end]
  const axleStretches = axle ? finiteSegments(axle).filter(([a, b]) => b - a >= shortest) : []
  return {
    end,
    sampleRateHz: rate,
    travelMm,
    depthPct,
    speedMmS,
    supportBand: band(depthPct, stretches, supportHz, false),
    chatterBand: band(depthPct, stretches, chatterHz, true),
    axleBand: axle ? band(axle, axleStretches, chatterHz, true) : null,
    hits,
  }
}
