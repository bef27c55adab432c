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
  const re = new Float64Array(segment)
  const im = new Float64Array(segment)
  const power = new Float64Array(segment / 2 + 1)
  const starts: number[] = []
  for (const [a, b] of finiteSegments(x))
    for (let start = a; start + segment <= b; start += segment / 2) starts.push(start)
  const count = starts.length
  // Two real segments go through one complex transform: |X₁|² + |X₂|² at k is half of |Z(k)|² + |Z(−k)|².
  for (let s = 0; s < count; s += 2) {
    re.set(x.subarray(starts[s], starts[s] + segment))
    if (s + 1 < count) im.set(x.subarray(starts[s + 1], starts[s + 1] + segment))
    else im.fill(0)
    fftInPlace(re, im)
    addPower(re, im, power)
  }
  if (count === 0) return null
  // Sum of the squares of the window.
  const windowPower = (3 / 8) * segment
  for (let k = 0; k < power.length; k++) {
    const sides = k === 0 || k === segment / 2 ? 1 : 2
    power[k] *= sides / (sampleRateHz * windowPower * count)
  }
  return { stepHz: sampleRateHz / segment, power }
}

/**
 * Adds the power of a transform under the Hann window. Its transform has three lines, ½ and −¼ beside it: folding with
 * them here is cheaper than weighing every sample before. The mean is the line at 0, which falls away before.
 */
function addPower(re: Float64Array, im: Float64Array, power: Float64Array) {
  const n = re.length
  const half = n >> 1
  re[0] = 0
  im[0] = 0
  // Lines k − 1, k, k + 1 of the upper half and −k + 1, −k, −k − 1 of the lower move on by one each step.
  let upR0 = re[n - 1]
  let upI0 = im[n - 1]
  let upR1 = 0
  let upI1 = 0
  let downR0 = re[1]
  let downI0 = im[1]
  let downR1 = 0
  let downI1 = 0
  for (let k = 0; k <= half; k++) {
    const upR2 = re[k + 1]
    const upI2 = im[k + 1]
    const downR2 = re[n - 1 - k]
    const downI2 = im[n - 1 - k]
    const ur = upR1 - (upR0 + upR2) / 2
    const ui = upI1 - (upI0 + upI2) / 2
    const dr = downR1 - (downR0 + downR2) / 2
    const di = downI1 - (downI0 + downI2) / 2
    // A quarter for the window's ½, squared, and a half for the two sides.
    power[k] += (ur * ur + ui * ui + dr * dr + di * di) / 8
    upR0 = upR1
    upI0 = upI1
    upR1 = upR2
    upI1 = upI2
    downR0 = downR1
    downI0 = downI1
    downR1 = downR2
    downI1 = downI2
  }
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
