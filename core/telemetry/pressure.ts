import type { PressureCalibration } from '#contract/recording'
import { butterworthLowPass, filterBothWays, filterMinSamples } from '../signal/butterworth.ts'
import { median, quantileSorted } from '../signal/quantile.ts'
import { finiteSegments } from '../signal/segments.ts'
import { seaLevelPa } from '../spring/air.ts'
import { paPerPsi } from '../units/convert.ts'
import { extensionLine, otherFill, quietMoments, type ExtensionLine } from './extension.ts'

export const pressureRules = {
  /** Quick moves of the gas; slow ones are isothermal. */
  exponent: 1.3,
  /** Depth at which a unit hangs without load: the negative chamber holds some in, others not. */
  hangingShare: 0.015,
  /** Noisier than this share of the absolute pressure, a sensor is smoothed: what lies above is no wheel but noise. */
  smoothFrom: 0.002,
  smoothHz: 30,
  /** Heat that the gas exchanges within and between strokes, against the one exponent; share of the stroke. */
  modelSd: 0.01,
  /** A smaller fall of the whole ride's pressure is of the trail, share. */
  leastFall: 0.03,
  /** Falling faster than this is no weather but a leak: share of the absolute pressure per minute. */
  leakPerMinute: 0.02,
} as const

export interface PressureTravel {
  /** Share of the stroke, 0 extended; NaN = gap. */
  share: Float64Array
  /** Extended moments that the drift of the baseline was followed by. */
  extendedMoments: number
  /** Pressure at full extension, end over start, as the moments tell; 1 without them. */
  drift: number
  leaking: boolean
  /** Where it rests at the start, gauge psi, when that is not its baseline. Told, not used: it may stand on its wheels. */
  otherBaselinePsi: number | null
  /** How far depth may be off throughout, share of the stroke. */
  unsureShare: number
  /** Scatter of depth from the sensor's noise, share of the stroke. */
  noiseShare: number
}

const ambientPsi = seaLevelPa / paPerPsi

/**
 * Travel from the pressure in the positive chamber. With swept share k = 1 − 1/CR the chamber follows
 * p = A·(1 − k·u)^−1.3 for quick moves about the depth it dwells at, to which it came isothermally:
 * A = p₀·(1 − k·ū)^0.3. A then follows the warmth of the gas by the line of extended moments (`extension.ts`).
 * Ignores: heat exchange within a stroke; the negative chamber does not act on the sensor.
 *
 * @param psi gauge, uniform samples; NaN = gap
 * Cost O(N).
 */
export function travelFromPressure(
  psi: Float64Array,
  sampleRateHz: number,
  calibration: PressureCalibration,
): PressureTravel {
  const r = pressureRules
  const k = 1 - 1 / calibration.compressionRatio
  const p0 = calibration.baselinePsi + ambientPsi
  const durationS = psi.length / sampleRateHz
  const absolute = psi.map((p) => p + ambientPsi)
  const noisePsi = noiseOf(absolute, sampleRateHz)
  const candidates = quietMoments(absolute, sampleRateHz, noisePsi)
  const smoothHz = Math.min(r.smoothHz, 0.4 * sampleRateHz)
  const smoothed = noisePsi > r.smoothFrom * p0
  if (smoothed) lowPassInPlace(absolute, smoothHz, sampleRateHz)
  const share = new Float64Array(psi.length)
  let line: ExtensionLine | null = null
  let dwell = 0.2
  let hanging = p0
  // The mean depth sets A, A tells which moments were extended, and these the warmth: settles in a few rounds.
  for (let round = 0; round < 5; round++) {
    const a = p0 * Math.pow(1 - k * dwell, r.exponent - 1)
    hanging = a * Math.pow(1 - k * r.hangingShare, -r.exponent)
    if (round > 0) line = extensionLine(candidates, durationS, hanging, noisePsi)
    let sum = 0
    let n = 0
    for (let i = 0; i < absolute.length; i++) {
      const now = line ? line.overExpected(i / sampleRateHz) : 1
      const u = (1 - Math.pow((a * now) / absolute[i], 1 / r.exponent)) / k
      share[i] = u
      if (u === u) {
        sum += u
        n++
      }
    }
    dwell = n ? Math.min(0.6, Math.max(0, sum / n)) : dwell
  }
  const { moments, overExpected, unsureShare } = line!
  const otherPsi = otherFill(candidates.quiet, p0, hanging, noisePsi)
  const drift = overExpected(durationS) / overExpected(0)
  /** Depth for a share of the absolute pressure, at the depth it dwells at. */
  const depthPer = (1 - k * dwell) / (r.exponent * k)
  const passed = smoothed ? Math.sqrt((2 * smoothHz) / sampleRateHz) : 1
  return {
    share,
    extendedMoments: moments.length,
    drift,
    leaking: moments.length > 0 && drift - 1 < -r.leakPerMinute * Math.max(0.5, durationS / 60),
    otherBaselinePsi: otherPsi === null ? null : otherPsi - ambientPsi,
    unsureShare: Math.hypot(r.modelSd, (unsureShare + (moments.length ? 0 : fallOf(absolute))) * depthPer),
    noiseShare: (passed * noisePsi * depthPer) / p0,
  }
}

/**
 * How far the pressure of the whole ride fell, share: the load does not change, so air was lost or the gas cooled.
 * From the middle of the first third to that of the last is two thirds of the way; small falls are of the trail.
 */
function fallOf(absolute: Float64Array): number {
  const third = Math.floor(absolute.length / 3)
  if (third === 0) return 0
  const [before, after] = [absolute.subarray(0, third), absolute.subarray(-third)].map((x) =>
    median(x.filter((p) => p === p)),
  )
  const fall = 1 - after / before
  return fall > pressureRules.leastFall ? 1.5 * fall : 0
}

/**
 * Scatter of a sensor, standard deviation: second differences of short blocks, where a wheel moves least. White noise of
 * 1 gives second differences of √6.
 */
function noiseOf(x: Float64Array, sampleRateHz: number): number {
  const span = Math.max(6, Math.round(0.08 * sampleRateHz))
  const blocks: number[] = []
  for (let b = 0; b + span <= x.length; b += span) {
    let sum = 0
    for (let i = b + 1; i < b + span - 1; i++) sum += (x[i - 1] - 2 * x[i] + x[i + 1]) ** 2
    if (sum === sum) blocks.push(Math.sqrt(sum / (6 * (span - 2))))
  }
  return blocks.length ? quantileSorted(Float64Array.from(blocks).sort(), 0.2) : 0
}

function lowPassInPlace(x: Float64Array, cutoffHz: number, sampleRateHz: number): void {
  const f = butterworthLowPass(cutoffHz, sampleRateHz)
  for (const [a, b] of finiteSegments(x))
    if (b - a >= filterMinSamples) x.set(filterBothWays(x.subarray(a, b), f), a)
}
