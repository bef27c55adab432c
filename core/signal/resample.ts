/**
 * Linear interpolation of irregular samples on a uniform clock. Stretches without a sample for longer than
 * `maxGapS` stay NaN: a gap is kept, never bridged silently.
 *
 * @param t strictly increasing times, s
 * @param y values at t; NaN values count as missing
 * @returns samples at t[0] + i / sampleRateHz
 */
export function resampleUniform(
  t: Float64Array,
  y: Float64Array,
  sampleRateHz: number,
  length: number,
  maxGapS = 0.05,
): Float64Array {
  const out = new Float64Array(length).fill(NaN)
  const dt = 1 / sampleRateHz
  const n = t.length
  let a = -1
  let b = nextFinite(y, 0)
  for (let i = 0; i < length; i++) {
    const at = t[0] + i * dt
    // A tolerance of a thousandth of a step keeps rounding, coarse for dates, from pushing a sample over its instant.
    while (b < n && t[b] <= at + dt * 1e-3) {
      a = b
      b = nextFinite(y, b + 1)
    }
    if (a < 0) continue
    if (Math.abs(t[a] - at) <= dt * 1e-3) out[i] = y[a]
    else if (b < n && t[b] - t[a] <= maxGapS) out[i] = y[a] + ((y[b] - y[a]) * (at - t[a])) / (t[b] - t[a])
  }
  return out
}

function nextFinite(y: Float64Array, from: number): number {
  let i = from
  while (i < y.length && !Number.isFinite(y[i])) i++
  return i
}

/**
 * Values at rising times, laid on a uniform clock by straight lines; NaN outside them and across pauses.
 * @param offsetS when time 0 of `timeS` is on that clock
 */
export function onClock(
  timeS: Float64Array,
  values: Float64Array,
  offsetS: number,
  sampleRateHz: number,
  samples: number,
  maxGapS: number,
): Float64Array {
  const out = new Float64Array(samples).fill(NaN)
  let b = 1
  for (let i = 0; i < samples; i++) {
    const t = i / sampleRateHz - offsetS
    if (t < timeS[0] - 1e-9) continue
    while (b < timeS.length && timeS[b] < t) b++
    if (b >= timeS.length) break
    const a = b - 1
    if (timeS[b] - timeS[a] > maxGapS) continue
    out[i] = values[a] + ((values[b] - values[a]) * (t - timeS[a])) / (timeS[b] - timeS[a])
  }
  return out
}
