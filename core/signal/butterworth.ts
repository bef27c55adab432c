import { InputError } from '../errors.ts'

export interface Biquad {
  /** Numerator b0, b1, b2 and denominator a1, a2 with a0 = 1. */
  b0: number
  b1: number
  b2: number
  a1: number
  a2: number
}

/**
 * Second-order Butterworth low-pass by the bilinear transform with pre-warping.
 * Source: Oppenheim & Schafer, Discrete-Time Signal Processing, ch. 7.
 *
 * @throws InputError 'signal.cutoff' unless 0 < cutoffHz < sampleRateHz / 2
 */
export function butterworthLowPass(cutoffHz: number, sampleRateHz: number): Biquad {
  if (!(cutoffHz > 0 && cutoffHz < sampleRateHz / 2)) {
    throw new InputError('signal.cutoff', { got: cutoffHz, nyquist: sampleRateHz / 2 })
  }
  const w = Math.tan((Math.PI * cutoffHz) / sampleRateHz)
  const norm = 1 / (1 + Math.SQRT2 * w + w * w)
  const b0 = w * w * norm
  return { b0, b1: 2 * b0, b2: b0, a1: 2 * (w * w - 1) * norm, a2: (1 - Math.SQRT2 * w + w * w) * norm }
}

/** Samples mirrored at each end before filtering; three times the filter's length. */
const padding = 9

/** What the working room of `filterBothWays` must be longer than the signal by. */
export const filterExtra = 2 * padding

/** Fewest samples that `filterBothWays` takes. */
export const filterMinSamples = padding + 1

/**
 * Zero-phase filtering: forward, then backward, with odd extension at both ends and steady-state start values.
 * Source: Gustafsson (1996) for the idea; equals the usual scientific reference to 1e-9 (see tests).
 *
 * @param x finite samples, length ≥ 10; not modified
 * @param work room for at least length + 18 values, used up; handed in where many stretches are filtered
 * @returns x filtered, same length: a part of `work`
 * @throws InputError 'signal.too-short'
 * Cost O(N).
 */
export function filterBothWays(
  x: Float64Array,
  f: Biquad,
  work: Float64Array = new Float64Array(x.length + filterExtra),
): Float64Array {
  const n = x.length
  if (n < filterMinSamples) throw new InputError('signal.too-short', { needed: filterMinSamples, got: n })
  const ext = work.subarray(0, n + 2 * padding)
  for (let i = 0; i < padding; i++) {
    ext[i] = 2 * x[0] - x[padding - i]
    ext[n + padding + i] = 2 * x[n - 1] - x[n - 2 - i]
  }
  ext.set(x, padding)
  runForward(ext, f)
  runBackward(ext, f)
  return ext.subarray(padding, padding + n)
}

/** Direct form II transposed, started in the steady state for the first sample. */
function runForward(y: Float64Array, { b0, b1, b2, a1, a2 }: Biquad): void {
  const gain = (b0 + b1 + b2) / (1 + a1 + a2)
  let z1 = (gain - b0) * y[0]
  let z2 = (b2 - a2 * gain) * y[0]
  for (let i = 0; i < y.length; i++) {
    const x = y[i]
    const out = b0 * x + z1
    z1 = b1 * x - a1 * out + z2
    z2 = b2 * x - a2 * out
    y[i] = out
  }
}

/** The same from the last sample to the first. */
function runBackward(y: Float64Array, { b0, b1, b2, a1, a2 }: Biquad): void {
  const gain = (b0 + b1 + b2) / (1 + a1 + a2)
  const last = y.length - 1
  let z1 = (gain - b0) * y[last]
  let z2 = (b2 - a2 * gain) * y[last]
  for (let i = last; i >= 0; i--) {
    const x = y[i]
    const out = b0 * x + z1
    z1 = b1 * x - a1 * out + z2
    z2 = b2 * x - a2 * out
    y[i] = out
  }
}
