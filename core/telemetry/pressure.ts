import type { PressureCalibration } from '#contract/recording'
import { seaLevelPa } from '../spring/air.ts'
import { cholesky, choleskySolve } from '../stats/solve.ts'
import { paPerPsi } from '../units/convert.ts'

export const pressureRules = {
  /** Quick moves of the gas; slow ones are isothermal. */
  exponent: 1.3,
  /** An extended moment: as long and as quiet as this. */
  quietS: 0.06,
  quietPsi: 1.2,
  /** The lowest within so long on either side. */
  lowestWithinS: 4,
  /** A moment further above the expected pressure at full extension than this was not extended. */
  gateShare: 0.11,
  /** How far a moment may stand above the lower envelope, share of the absolute pressure. */
  envelopeShare: 0.006,
  /** Depth at which a unit hangs without load: the negative chamber holds it in. */
  hangingShare: 0.02,
  /** Scatter of a moment, of the expected one at the start, and of the bend of the warmth from knot to knot. */
  momentSd: 0.004,
  expectedSd: 0.008,
  bendSd: 0.0008,
  /** Falling faster than this is no weather but a leak: share of the absolute pressure per minute. */
  leakPerMinute: 0.02,
} as const

export interface PressureTravel {
  /** Share of the stroke, 0 extended; NaN = gap. */
  share: Float64Array
  /** Extended moments that the drift of the baseline was followed by. */
  extendedMoments: number
  /** Warmth at the end over the start, as the moments tell; 1 without them. */
  drift: number
  leaking: boolean
}

const ambientPsi = seaLevelPa / paPerPsi

/**
 * Travel from the pressure in the positive chamber. With swept share k = 1 − 1/CR the chamber follows
 * p = A·(1 − k·u)^−1.3 for quick moves about the depth it dwells at, to which it came isothermally:
 * A = p₀·(1 − k·ū)^0.3. A then follows the warmth of the gas by the lower envelope of quiet extended moments.
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
  const found = extendedMoments(psi, sampleRateHz)
  const share = new Float64Array(psi.length)
  let moments: Moment[] = []
  let warmth: (atS: number) => number = () => 1
  let dwell = 0.2
  // The mean depth sets A, A tells which moments were extended, and these the warmth: settles in a few rounds.
  for (let round = 0; round < 5; round++) {
    const a = p0 * Math.pow(1 - k * dwell, r.exponent - 1)
    if (round > 0) {
      const hanging = a * Math.pow(1 - k * r.hangingShare, -r.exponent)
      moments = lowerEnvelope(
        found.filter((m) => m.absolutePsi < hanging * (1 + r.gateShare)),
        durationS,
        hanging,
      )
      warmth = warmthOver(moments, durationS, hanging)
    }
    let sum = 0
    let n = 0
    for (let i = 0; i < psi.length; i++) {
      const u = (1 - Math.pow((a * warmth(i / sampleRateHz)) / (psi[i] + ambientPsi), 1 / r.exponent)) / k
      share[i] = u
      if (u === u) {
        sum += u
        n++
      }
    }
    dwell = n ? Math.min(0.6, Math.max(0, sum / n)) : dwell
  }
  const drift = warmth(durationS)
  return {
    share,
    extendedMoments: moments.length,
    drift,
    leaking: moments.length >= leastMoments && drift - 1 < -r.leakPerMinute * Math.max(0.5, durationS / 60),
  }
}

const leastMoments = 2

interface Moment {
  atS: number
  absolutePsi: number
}

/** Quiet stretches whose pressure is the lowest for some seconds around. */
function extendedMoments(psi: Float64Array, rate: number): Moment[] {
  const r = pressureRules
  const span = Math.max(3, Math.round(r.quietS * rate))
  const blocks = Math.floor(psi.length / span)
  const level = new Float64Array(blocks).fill(Infinity)
  for (let b = 0; b < blocks; b++) {
    let [low, high, sum] = [Infinity, -Infinity, 0]
    for (let i = b * span; i < (b + 1) * span; i++) {
      if (psi[i] < low) low = psi[i]
      if (psi[i] > high) high = psi[i]
      sum += psi[i]
    }
    if (high - low <= r.quietPsi) level[b] = sum / span
  }
  const reach = Math.round((r.lowestWithinS * rate) / span)
  const found: Moment[] = []
  for (let b = 0; b < blocks; b++) {
    if (!Number.isFinite(level[b])) continue
    let lowest = true
    for (let c = Math.max(0, b - reach); lowest && c <= Math.min(blocks - 1, b + reach); c++)
      if (level[c] < level[b] || (level[c] === level[b] && c < b)) lowest = false
    if (lowest) found.push({ atS: ((b + 0.5) * span) / rate, absolutePsi: level[b] + ambientPsi })
  }
  return found
}

/** Drops what stands above the fit, until only the envelope is left. */
function lowerEnvelope(moments: Moment[], durationS: number, expectedPsi: number): Moment[] {
  let kept = moments
  for (let round = 0; round < 8 && kept.length > leastMoments; round++) {
    const fit = fitMoments(kept, durationS, expectedPsi)
    const next = kept.filter((m) => m.absolutePsi <= fit(m.atS) * (1 + pressureRules.envelopeShare))
    if (next.length === kept.length || next.length < leastMoments) break
    kept = next
  }
  return kept
}

/** Fit over its value at the start; 1 with too few moments. */
function warmthOver(
  moments: readonly Moment[],
  durationS: number,
  expectedPsi: number,
): (atS: number) => number {
  if (moments.length < leastMoments) return () => 1
  const fit = fitMoments(moments, durationS, expectedPsi)
  const start = fit(0)
  return (atS) => fit(atS) / start
}

const intervals = 16

/**
 * Smooth pressure at full extension over the ride: knots, straight between them, that lie near the moments and near the
 * expected pressure at the start, and bend little. Penalised least squares (Whittaker 1923), solved exactly.
 */
function fitMoments(
  moments: readonly Moment[],
  durationS: number,
  expectedPsi: number,
): (atS: number) => number {
  const r = pressureRules
  const n = intervals + 1
  const matrix = new Float64Array(n * n)
  const right = new Float64Array(n)
  /** One equation Σ c·knot = value with a standard deviation, all in shares of the expected pressure. */
  const add = (terms: readonly [number, number][], value: number, sd: number) => {
    for (const [i, ci] of terms) {
      right[i] += (ci * value) / sd ** 2
      for (const [j, cj] of terms) matrix[i * n + j] += (ci * cj) / sd ** 2
    }
  }
  add([[0, 1]], 1, r.expectedSd)
  for (const m of moments) {
    const x = Math.min(intervals - 1e-9, (intervals * m.atS) / durationS)
    const i = Math.floor(x)
    add(
      [
        [i, 1 - (x - i)],
        [i + 1, x - i],
      ],
      m.absolutePsi / expectedPsi,
      r.momentSd,
    )
  }
  for (let i = 1; i < n - 1; i++)
    add(
      [
        [i - 1, 1],
        [i, -2],
        [i + 1, 1],
      ],
      0,
      r.bendSd,
    )
  const knots = choleskySolve(cholesky(matrix, n), n, right)
  return (atS) => {
    const x = Math.max(0, Math.min(intervals - 1e-9, (intervals * atS) / durationS))
    const i = Math.floor(x)
    return expectedPsi * (knots[i] + (knots[i + 1] - knots[i]) * (x - i))
  }
}
