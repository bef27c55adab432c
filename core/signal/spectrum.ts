import { fftInPlace } from './fft.ts'
import { finiteSegments } from './segments.ts'

/** One-sided power spectral density, unit² per Hz, at k·stepHz. */
export interface Density {
  stepHz: number
  power: Float64Array
}

/** Segment length for Welch's method: the power of two nearest to two seconds. */
export const welchSegment = (sampleRateHz: number) =>
  2 ** Math.max(3, Math.round(Math.log2(2 * sampleRateHz)))

/**
 * Welch's estimate: Hann window (periodic), 50 % overlap, constant detrend, density scaling. Gaps are left out: each
 * gap-free stretch gives its own segments.
 * Source: Welch (1967), IEEE Trans. Audio Electroacoust. 15, 70; equals the usual scientific reference (see tests).
 *
 * @param segment a power of two, samples
 * @returns null when no stretch is as long as a segment
 * Cost O(N log segment).
 */
export function welch(x: Float64Array, sampleRateHz: number, segment: number): Density | null {
  const window = new Float64Array(segment)
  let windowPower = 0
  for (let i = 0; i < segment; i++) {
    window[i] = 0.5 - 0.5 * Math.cos((2 * Math.PI * i) / segment)
    windowPower += window[i] ** 2
  }
  const re = new Float64Array(segment)
  const im = new Float64Array(segment)
  const power = new Float64Array(segment / 2 + 1)
  const starts: number[] = []
  for (const [a, b] of finiteSegments(x))
    for (let start = a; start + segment <= b; start += segment / 2) starts.push(start)
  const count = starts.length
  // Two real segments go through one complex transform: |X₁|² + |X₂|² at k is half of |Z(k)|² + |Z(−k)|².
  for (let s = 0; s < count; s += 2) {
    windowed(x, starts[s], window, re)
    if (s + 1 < count) windowed(x, starts[s + 1], window, im)
    else im.fill(0)
    fftInPlace(re, im)
    addPower(re, im, power)
  }
  if (count === 0) return null
  for (let k = 0; k < power.length; k++) {
    const sides = k === 0 || k === segment / 2 ? 1 : 2
    power[k] *= sides / (sampleRateHz * windowPower * count)
  }
  return { stepHz: sampleRateHz / segment, power }
}

/** A segment without its mean, under the window. */
function windowed(x: Float64Array, start: number, window: Float64Array, into: Float64Array) {
  let sum = 0
  for (let i = 0; i < window.length; i++) sum += x[start + i]
  const mean = sum / window.length
  for (let i = 0; i < window.length; i++) into[i] = (x[start + i] - mean) * window[i]
}

function addPower(re: Float64Array, im: Float64Array, power: Float64Array) {
  power[0] += re[0] * re[0] + im[0] * im[0]
  for (let k = 1, j = re.length - 1; k < power.length; k++, j--)
    power[k] += (re[k] * re[k] + im[k] * im[k] + re[j] * re[j] + im[j] * im[j]) / 2
}

/** RMS of the part of a signal between two frequencies, from its density; `gain` weighs each frequency. */
export function bandRms(
  d: Density,
  fromHz: number,
  toHz: number,
  gain: (hz: number) => number = () => 1,
): number {
  let sum = 0
  for (let k = 0; k < d.power.length; k++) {
    const hz = k * d.stepHz
    if (hz >= fromHz && hz < toHz) sum += d.power[k] * gain(hz) ** 2 * d.stepHz
  }
  return Math.sqrt(sum)
}

/** Mean density in bands that grow by `ratio`, for drawing; a band between two lines lies on the straight line through them. */
export function inBands(d: Density, startHz: number, ratio: number, bands: number): number[] {
  return Array.from({ length: bands }, (_, b) => {
    const from = startHz * ratio ** b
    const first = Math.ceil(from / d.stepHz)
    const last = Math.ceil((from * ratio) / d.stepHz) - 1
    if (last < first) {
      const at = (from * Math.sqrt(ratio)) / d.stepHz
      const k = Math.min(d.power.length - 2, Math.max(1, Math.floor(at)))
      return d.power[k] + (d.power[k + 1] - d.power[k]) * (at - k)
    }
    let sum = 0
    for (let k = first; k <= last; k++) sum += d.power[Math.min(k, d.power.length - 1)]
    return sum / (last - first + 1)
  })
}
