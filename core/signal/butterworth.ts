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
  return section(cutoffHz, sampleRateHz, Math.SQRT2)
}

/**
 * The same of fourth order, as two sections one after the other: poles at ±π/8 and ±3π/8 from the real axis.
 * @throws InputError 'signal.cutoff'
 */
export function butterworthSteep(cutoffHz: number, sampleRateHz: number): [Biquad, Biquad] {
  return [
    section(cutoffHz, sampleRateHz, 2 * Math.cos(Math.PI / 8)),
    section(cutoffHz, sampleRateHz, 2 * Math.cos((3 * Math.PI) / 8)),
  ]
}

/** @param damping 1/Q, twice the cosine of the poles' angle */
function section(cutoffHz: number, sampleRateHz: number, damping: number): Biquad {
  if (!(cutoffHz > 0 && cutoffHz < sampleRateHz / 2)) {
    throw new InputError('signal.cutoff', { got: cutoffHz, nyquist: sampleRateHz / 2 })
  }
  const w = Math.tan((Math.PI * cutoffHz) / sampleRateHz)
  const norm = 1 / (1 + damping * w + w * w)
  const b0 = w * w * norm
  return { b0, b1: 2 * b0, b2: b0, a1: 2 * (w * w - 1) * norm, a2: (1 - damping * w + w * w) * norm }
}

/** Samples mirrored at each end before filtering; three times the filter's length. */
const padding = 9

/** The same for a band: its lower edge takes longer to settle, and what it leaves at the ends would pass for movement. */
const bandPadding = 256

/** What the working room must be longer than the signal by. */
export const filterExtra = 2 * bandPadding

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
  work: Float64Array = new Float64Array(x.length + 2 * padding),
): Float64Array {
  const n = x.length
  if (n < filterMinSamples) throw new InputError('signal.too-short', { needed: filterMinSamples, got: n })
  const ext = extended(x, work)
  runForward(ext, f)
  runBackward(ext, f)
  return ext.subarray(padding, padding + n)
}

/**
 * The part of a signal between two cut-offs: `filterBothWays` with the upper minus that with the lower, to single precision.
 * Both run in one loop, for each alone leaves the processor waiting for its last value.
 *
 * @param x finite samples, length ≥ 10; not modified
 * @param work two rooms as in `filterBothWays`, used up
 * @throws InputError 'signal.too-short'
 * Cost O(N).
 */
export function bandBothWays(
  x: Float64Array,
  upper: Biquad,
  lower: Biquad,
  work: { a: Float64Array; b: Float64Array },
  into: Float32Array,
  /** A second section of the lower: the band falls off steeply below. */
  lowerMore: Biquad | null = null,
): void {
  const n = x.length
  if (n < filterMinSamples) throw new InputError('signal.too-short', { needed: filterMinSamples, got: n })
  const pad = Math.min(bandPadding, n - 1)
  const u = extended(x, work.a, pad)
  const l = work.b.subarray(0, u.length)
  runBoth(u, upper, u, l, lower, 1)
  runBoth(u, upper, l, l, lower, -1)
  if (lowerMore) {
    runForward(l, lowerMore)
    runBackward(l, lowerMore)
  }
  for (let i = 0; i < n; i++) into[i] = u[pad + i] - l[pad + i]
}

/** x mirrored through its first and last value. */
function extended(x: Float64Array, work: Float64Array, pad = padding): Float64Array {
  const n = x.length
  const ext = work.subarray(0, n + 2 * pad)
  for (let i = 0; i < pad; i++) {
    ext[i] = 2 * x[0] - x[pad - i]
    ext[n + pad + i] = 2 * x[n - 1] - x[n - 2 - i]
  }
  ext.set(x, pad)
  return ext
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

/**
 * Two filters side by side: u through `upper` in place, `from` through `lower` into l; onward (1) or back (−1). `from` may
 * be u or l.
 */
function runBoth(
  u: Float64Array,
  upper: Biquad,
  from: Float64Array,
  l: Float64Array,
  lower: Biquad,
  way: 1 | -1,
): void {
  const { b0: p0, b1: p1, b2: p2, a1: p3, a2: p4 } = upper
  const { b0: q0, b1: q1, b2: q2, a1: q3, a2: q4 } = lower
  const first = way === 1 ? 0 : u.length - 1
  const gainU = (p0 + p1 + p2) / (1 + p3 + p4)
  const gainL = (q0 + q1 + q2) / (1 + q3 + q4)
  let u1 = (gainU - p0) * u[first]
  let u2 = (p2 - p4 * gainU) * u[first]
  let l1 = (gainL - q0) * from[first]
  let l2 = (q2 - q4 * gainL) * from[first]
  for (let k = 0, i = first; k < u.length; k++, i += way) {
    const x = u[i]
    const y = from[i]
    const outU = p0 * x + u1
    u1 = p1 * x - p3 * outU + u2
    u2 = p2 * x - p4 * outU
    const outL = q0 * y + l1
    l1 = q1 * y - q3 * outL + l2
    l2 = q2 * y - q4 * outL
    u[i] = outU
    l[i] = outL
  }
}
