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

/** What a working room must be longer than the signal by, for each of its values. */
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
  const ext = extended(x, work.subarray(0, n + 2 * padding), padding)
  runForward(ext, f)
  runBackward(ext, f)
  return ext.subarray(padding, padding + n)
}

/**
 * The part of a signal between two cut-offs: `filterBothWays` with the upper minus that with the lower, to single precision.
 * All sections run in one loop, for each alone leaves the processor waiting for its last value.
 *
 * @param x finite samples, length ≥ 10; not modified
 * @param lower one section, or two one after the other: the band then falls off steeply below
 * @param work room for 2·(length + 512) values, used up
 * @param into length of x
 * @throws InputError 'signal.too-short'
 * Cost O(N).
 */
export function bandBothWays(
  x: Float64Array,
  upper: Biquad,
  lower: readonly [Biquad] | readonly [Biquad, Biquad],
  work: Float32Array,
  into: Float32Array,
): void {
  const n = x.length
  if (n < filterMinSamples) throw new InputError('signal.too-short', { needed: filterMinSamples, got: n })
  const pad = Math.min(bandPadding, n - 1)
  const size = n + 2 * pad
  const u = extended(x, work.subarray(0, size), pad)
  const l = work.subarray(size, 2 * size)
  const three = [upper, lower[0], lower[1] ?? through].map(stateForm)
  bandOnward(u, l, three)
  bandBack(u, l, three, pad, into)
}

/** x mirrored through its first and last value. */
function extended<T extends Float64Array | Float32Array>(x: Float64Array, ext: T, pad: number): T {
  const n = x.length
  for (let i = 0; i < pad; i++) {
    ext[i] = 2 * x[0] - x[pad - i]
    ext[n + pad + i] = 2 * x[n - 1] - x[n - 2 - i]
  }
  ext.set(x, pad)
  return ext
}

/** What lets everything pass. */
const through: Biquad = { b0: 1, b1: 0, b2: 0, a1: 0, a2: 0 }

/**
 * A section as its two states move: y = b0·x + z1, z1 ← c1·x − a1·z1 + z2, z2 ← c2·x − a2·z1. It is the direct form II,
 * transposed, with y put in: the next state need not wait for y.
 */
interface StateForm {
  b0: number
  c1: number
  c2: number
  a1: number
  a2: number
  /** States for a constant 1: the steady state to start from. */
  start1: number
  start2: number
}

function stateForm({ b0, b1, b2, a1, a2 }: Biquad): StateForm {
  const gain = (b0 + b1 + b2) / (1 + a1 + a2)
  return {
    b0,
    c1: b1 - a1 * b0,
    c2: b2 - a2 * b0,
    a1,
    a2,
    start1: gain - b0,
    start2: b2 - a2 * gain,
  }
}

/** One section over y in place, started in the steady state for the first sample. */
function runForward(y: Float64Array, f: Biquad): void {
  const { b0, c1, c2, a1, a2, start1, start2 } = stateForm(f)
  let z1 = start1 * y[0]
  let z2 = start2 * y[0]
  for (let i = 0; i < y.length; i++) {
    const x = y[i]
    y[i] = b0 * x + z1
    const next = c1 * x + z2 - a1 * z1
    z2 = c2 * x - a2 * z1
    z1 = next
  }
}

/** The same from the last sample to the first. */
function runBackward(y: Float64Array, f: Biquad): void {
  const { b0, c1, c2, a1, a2, start1, start2 } = stateForm(f)
  const last = y.length - 1
  let z1 = start1 * y[last]
  let z2 = start2 * y[last]
  for (let i = last; i >= 0; i--) {
    const x = y[i]
    y[i] = b0 * x + z1
    const next = c1 * x + z2 - a1 * z1
    z2 = c2 * x - a2 * z1
    z1 = next
  }
}

/** u through the upper section in place; the same samples through both lower ones into l. */
function bandOnward(u: Float32Array, l: Float32Array, [p, q, r]: readonly StateForm[]): void {
  const { b0: p0, c1: p1, c2: p2, a1: p3, a2: p4 } = p
  const { b0: q0, c1: q1, c2: q2, a1: q3, a2: q4 } = q
  const { b0: r0, c1: r1, c2: r2, a1: r3, a2: r4 } = r
  const first = u[0]
  let [u1, u2] = [p.start1 * first, p.start2 * first]
  let [l1, l2] = [q.start1 * first, q.start2 * first]
  let [m1, m2] = [r.start1 * first, r.start2 * first]
  for (let i = 0; i < u.length; i++) {
    const x = u[i]
    u[i] = p0 * x + u1
    const y = q0 * x + l1
    l[i] = r0 * y + m1
    const nextU = p1 * x + u2 - p3 * u1
    u2 = p2 * x - p4 * u1
    u1 = nextU
    const nextL = q1 * x + l2 - q3 * l1
    l2 = q2 * x - q4 * l1
    l1 = nextL
    const nextM = r1 * y + m2 - r3 * m1
    m2 = r2 * y - r4 * m1
    m1 = nextM
  }
}

/** Back from the last sample, each of both through its own sections; their difference goes to `into`, `pad` before. */
function bandBack(
  u: Float32Array,
  l: Float32Array,
  [p, q, r]: readonly StateForm[],
  pad: number,
  into: Float32Array,
): void {
  const { b0: p0, c1: p1, c2: p2, a1: p3, a2: p4 } = p
  const { b0: q0, c1: q1, c2: q2, a1: q3, a2: q4 } = q
  const { b0: r0, c1: r1, c2: r2, a1: r3, a2: r4 } = r
  const last = u.length - 1
  let [u1, u2] = [p.start1 * u[last], p.start2 * u[last]]
  let [l1, l2] = [q.start1 * l[last], q.start2 * l[last]]
  let [m1, m2] = [r.start1 * l[last], r.start2 * l[last]]
  const end = pad + into.length
  for (let i = last; i >= pad; i--) {
    const x = u[i]
    const z = l[i]
    const y = q0 * z + l1
    if (i < end) into[i - pad] = p0 * x + u1 - (r0 * y + m1)
    const nextU = p1 * x + u2 - p3 * u1
    u2 = p2 * x - p4 * u1
    u1 = nextU
    const nextL = q1 * z + l2 - q3 * l1
    l2 = q2 * z - q4 * l1
    l1 = nextL
    const nextM = r1 * y + m2 - r3 * m1
    m2 = r2 * y - r4 * m1
    m1 = nextM
  }
}
