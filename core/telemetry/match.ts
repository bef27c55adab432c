/** Steps at which activity is compared. */
const stepS = 0.5
/**
 * How much later than `main` another record of the same ride begins, s: the lag at which their courses of activity
 * (anything that grows with speed) correlate best.
 *
 * @param sure least correlation to be believed
 * @returns null when they are too unlike
 * Cost O(n·m) at two values a second.
 */
export function matchOffset(
  main: Float64Array,
  other: Float64Array,
  sure: number,
): { offsetS: number; correlation: number } | null {
  const least = Math.max(8, Math.min(filled(main), filled(other)) * 0.7)
  let best = { offsetS: 0, correlation: -1 }
  for (let lag = -other.length; lag <= main.length; lag++) {
    const from = Math.max(0, lag)
    const to = Math.min(main.length, lag + other.length)
    let [n, sa, sb, saa, sbb, sab] = [0, 0, 0, 0, 0, 0]
    for (let i = from; i < to; i++) {
      const a = main[i]
      const b = other[i - lag]
      if (!(a === a && b === b)) continue
      n++
      sa += a
      sb += b
      saa += a * a
      sbb += b * b
      sab += a * b
    }
    if (n < least) continue
    const va = saa - (sa * sa) / n
    const vb = sbb - (sb * sb) / n
    if (!(va > 1e-12 && vb > 1e-12)) continue
    const correlation = (sab - (sa * sb) / n) / Math.sqrt(va * vb)
    if (correlation > best.correlation) best = { offsetS: lag * stepS, correlation }
  }
  return best.correlation >= sure ? best : null
}

/** Mean per half second of values at uniform samples; NaN where there are none. */
export function perStep(
  x: ArrayLike<number>,
  sampleRateHz: number,
  of: (v: number) => number = (v) => v,
): Float64Array {
  const width = stepS * sampleRateHz
  return Float64Array.from({ length: Math.floor(x.length / width) }, (_, k) => {
    let [sum, n] = [0, 0]
    for (let i = Math.round(k * width); i < Math.round((k + 1) * width); i++) {
      const v = of(x[i])
      if (v === v) {
        sum += v
        n++
      }
    }
    return n ? sum / n : NaN
  })
}

/** Slower movement is the rider's, not the ground's. */
const calmS = 0.12
/** Below this much movement, % of travel, it is mostly the sensor's noise. */
const noisePct = 0.05

/** How much the ground shakes the depth, per half second, logarithmic: grows with speed. */
export function liveliness(depthPct: Float64Array, sampleRateHz: number): Float64Array {
  const half = Math.max(1, Math.round((calmS * sampleRateHz) / 2))
  const shaken = new Float64Array(depthPct.length).fill(NaN)
  let sum = 0
  for (let i = 0; i < depthPct.length; i++) {
    sum += depthPct[i]
    if (i >= 2 * half) sum -= depthPct[i - 2 * half]
    // A gap leaves no mean behind: begin again after it.
    if (sum !== sum) sum = 0
    const middle = i - half
    if (i >= 2 * half) shaken[middle] = Math.abs(depthPct[middle] - sum / (2 * half))
  }
  return perStep(shaken, sampleRateHz).map((v) => Math.log(v + noisePct))
}

function filled(x: Float64Array): number {
  let n = 0
  for (const v of x) if (v === v) n++
  return n
}
