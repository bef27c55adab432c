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
  /**
   * Depth in 0.3–3 Hz, % of travel: one value for every `supportEvery` samples, for a slow movement needs no more. Only ever
   * squared and summed: single precision is plenty.
   */
  supportBand: Float32Array
  supportEvery: number
  /** Depth in 8–25 Hz, % of travel. */
  chatterBand: Float32Array
  /** The axle's acceleration in 8–25 Hz, g; null without a sensor there. */
  axleBand: Float32Array | null
  hits: Hit[]
}

/** Room for filtering, shared by all channels of a recording: the same bytes for one pass and for the two of a band. */
interface Workspace {
  whole: Float64Array
  halves: Float32Array
}

export function workspaceFor(samples: number): Workspace {
  const whole = new Float64Array(samples + filterExtra)
  return { whole, halves: new Float32Array(whole.buffer) }
}

/** Steep below: a swing of the rider at 5 Hz is no chatter of the ground. */
const chatterHz = [8, 25] as const
const supportHz = [0.3, 3] as const
/** Values of the slow band, about so many a second. */
const supportRateHz = 100

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
    into.set(filterBothWays(s, main, work.whole)),
  )
  const speedMmS = perSegment(depthPct, stretches, new Float64Array(raw.length), (s, into) => {
    savitzkyGolayDerivative(s, rate, window, into, travelMm / 100)
  })
  const chatter = (x: Float64Array, parts: readonly (readonly [number, number])[]) => {
    const [fromHz, toHz] = chatterHz
    const lower = butterworthSteep(Math.min(fromHz, 0.4 * rate), rate)
    return perSegment(x, parts, new Float32Array(x.length), (s, into) =>
      bandBothWays(s, lowPass(toHz), lower, work.halves, into),
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
    ...support(depthPct, rate, work),
    chatterBand: chatter(depthPct, stretches),
    axleBand: axle ? chatter(axle, axleStretches) : null,
    hits,
  }
}

/**
 * The slow band from means over blocks of about 10 ms: their zeros lie where a faster part would pass for a slow one, and
 * at 3 Hz they take 0.15 % away.
 */
function support(depthPct: Float64Array, rate: number, work: Workspace) {
  const supportEvery = Math.max(1, Math.floor(rate / supportRateHz))
  const slowRate = rate / supportEvery
  const slow = new Float64Array(Math.floor(depthPct.length / supportEvery))
  for (let k = 0, i = 0; k < slow.length; k++) {
    let sum = 0
    for (const end = i + supportEvery; i < end; i++) sum += depthPct[i]
    slow[k] = sum / supportEvery
  }
  const stretches = finiteSegments(slow).filter(([a, b]) => b - a >= filterMinSamples)
  const [upper, lower] = [supportHz[1], supportHz[0]].map((hz) =>
    butterworthLowPass(Math.min(hz, 0.4 * slowRate), slowRate),
  )
  const supportBand = perSegment(slow, stretches, new Float32Array(slow.length), (s, into) =>
    bandBothWays(s, upper, [lower], work.halves, into),
  )
  return { supportBand, supportEvery }
}
