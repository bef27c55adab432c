import type { HeldDepth } from '#contract/recording'
import { InputError } from '../errors.ts'
import { seaLevelPa } from '../spring/air.ts'
import { paPerPsi } from '../units/convert.ts'

export const heldRules = {
  /** Scatter of a ring read to the millimetre, and of a pressure held still; standard deviations. */
  ringMm: 0.6,
  heldPsi: 0.3,
  /** The depths must span so much of the stroke, or the line between them has no slope to speak of. */
  leastSpanShare: 0.25,
  leastDepths: 3,
  /** A depth so far off the line of the others was misread. */
  offMm: 4,
} as const

export interface ChamberFit {
  compressionRatio: number
  compressionRatioSe: number
  /** Gauge pressure at full extension. */
  baselinePsi: number
  baselineSePsi: number
  /** Standard error of depth at a share of the stroke, from this calibration; share of the stroke. */
  shareSeAt(share: number): number
}

const ambientPsi = seaLevelPa / paPerPsi

/**
 * Compression ratio and baseline of a filled chamber from depths held still, so that nothing has to be let out. Held
 * still, the gas is as warm as its surroundings: p·(1 − k·u) = p₀, a straight line of 1/p over u with intercept 1/p₀ and
 * slope −k/p₀. Weighted least squares; both readings err, the ring's error carried over by the slope (York 1966, without
 * correlation). The scatter about the line widens the errors when it is larger than what ring and sensor explain.
 *
 * @param depths along the leg or shaft with the gauge pressure there; 0 mm is full extension, known without a ring
 * @throws InputError 'calibration.depths', 'calibration.depth-off', 'calibration.depths-ratio'
 */
export function fitHeldDepths(depths: readonly HeldDepth[], strokeMm: number): ChamberFit {
  const r = heldRules
  const u = depths.map((d) => d.mm / strokeMm)
  const span = Math.max(...u) - Math.min(...u)
  if (depths.length < r.leastDepths || !(span >= r.leastSpanShare))
    throw new InputError('calibration.depths', { least: r.leastDepths, spanPct: 100 * r.leastSpanShare })
  const p = depths.map((d) => d.psi + ambientPsi)
  let slope = -0.55 / p[0]
  let [a, varA, varB, covAB] = [0, 0, 0, 0]
  for (let round = 0; round < 4; round++) {
    const w = depths.map((d, i) => {
      const ring = d.mm === 0 ? 0 : (slope * r.ringMm) / strokeMm
      return 1 / (ring ** 2 + (r.heldPsi / p[i] ** 2) ** 2)
    })
    const [s, su, suu, sy, suy] = w.reduce(
      (t, wi, i) => [
        t[0] + wi,
        t[1] + wi * u[i],
        t[2] + wi * u[i] ** 2,
        t[3] + wi / p[i],
        t[4] + (wi * u[i]) / p[i],
      ],
      [0, 0, 0, 0, 0],
    )
    const det = s * suu - su * su
    slope = (s * suy - su * sy) / det
    a = (suu * sy - su * suy) / det
    const chi = w.reduce((t, wi, i) => t + wi * (1 / p[i] - a - slope * u[i]) ** 2, 0)
    const wider = Math.max(1, chi / Math.max(1, depths.length - 2))
    ;[varA, varB, covAB] = [(suu / det) * wider, (s / det) * wider, (-su / det) * wider]
  }
  const k = -slope / a
  if (!(a > 0 && k > 1 - 1 / 1.2 && k < 1 - 1 / 10)) throw new InputError('calibration.depths-ratio')
  const misses = u.map((ui, i) => Math.abs((1 / p[i] - a) / slope - ui) * strokeMm)
  const worst = misses.indexOf(Math.max(...misses))
  if (misses[worst] > r.offMm)
    throw new InputError('calibration.depth-off', {
      mm: depths[worst].mm,
      psi: depths[worst].psi,
      off: Math.round(misses[worst]),
    })
  // k = −slope/a, CR = 1/(1 − k), p₀ = 1/a: errors by their derivatives.
  const varK = k * k * (varB / slope ** 2 + varA / a ** 2 - (2 * covAB) / (slope * a))
  return {
    compressionRatio: 1 / (1 - k),
    compressionRatioSe: Math.sqrt(varK) / (1 - k) ** 2,
    baselinePsi: 1 / a - ambientPsi,
    baselineSePsi: Math.sqrt(varA) / a ** 2,
    shareSeAt: (share) =>
      Math.sqrt(Math.max(0, varA + share * share * varB + 2 * share * covAB)) / Math.abs(slope),
  }
}
