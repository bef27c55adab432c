import type { EndMotion } from './motion.ts'

const rateHz = 100
const lagFromS = 0.05
const lagToS = 0.6

/** Two courses on one clock, with running sums where neither has a gap: then a lag costs one product a sample. */
interface Pair {
  f: Float64Array
  r: Float64Array
  sums: { f: Float64Array; ff: Float64Array; r: Float64Array; rr: Float64Array } | null
}

function pairOf(f: Float64Array, r: Float64Array): Pair {
  const sums = { f: running(f), ff: runningSquares(f), r: running(r), rr: runningSquares(r) }
  // A gap in either makes every sum after it none.
  const isWhole = sums.f[f.length] + sums.r[r.length] === sums.f[f.length] + sums.r[r.length]
  return { f, r, sums: isWhole ? sums : null }
}

function running(x: Float64Array): Float64Array {
  const out = new Float64Array(x.length + 1)
  for (let i = 0; i < x.length; i++) out[i + 1] = out[i] + x[i]
  return out
}

function runningSquares(x: Float64Array): Float64Array {
  const out = new Float64Array(x.length + 1)
  for (let i = 0; i < x.length; i++) out[i + 1] = out[i] + x[i] * x[i]
  return out
}

/**
 * Correlation of the rear at [from + lag, to) with the front `lag` samples earlier; gaps are left out.
 * @returns null when less than half is there or nothing moves
 */
function correlationAt({ f, r, sums }: Pair, from: number, to: number, lag: number): number | null {
  let [count, sf, sr, sff, srr, sfr] = [0, 0, 0, 0, 0, 0]
  if (sums) {
    count = to - from - lag
    const over = (s: Float64Array, shift: number) => s[to - shift] - s[from + lag - shift]
    ;[sf, sff, sr, srr] = [over(sums.f, lag), over(sums.ff, lag), over(sums.r, 0), over(sums.rr, 0)]
    sfr = product(f, from, r, from + lag, count)
  } else
    for (let i = from + lag; i < to; i++) {
      const a = f[i - lag]
      const b = r[i]
      if (!(a === a && b === b)) continue
      count++
      sf += a
      sr += b
      sff += a * a
      srr += b * b
      sfr += a * b
    }
  const vf = sff - (sf * sf) / count
  const vr = srr - (sr * sr) / count
  if (count < (to - from - lag) / 2 || !(vf > 1e-9 && vr > 1e-9)) return null
  return (sfr - (sf * sr) / count) / Math.sqrt(vf * vr)
}

/** Sum of products of `count` values each; four sums, or every addition would wait for the one before. */
function product(a: Float64Array, fromA: number, b: Float64Array, fromB: number, count: number): number {
  let [s0, s1, s2, s3] = [0, 0, 0, 0]
  let i = 0
  for (; i + 4 <= count; i += 4) {
    s0 += a[fromA + i] * b[fromB + i]
    s1 += a[fromA + i + 1] * b[fromB + i + 1]
    s2 += a[fromA + i + 2] * b[fromB + i + 2]
    s3 += a[fromA + i + 3] * b[fromB + i + 3]
  }
  for (; i < count; i++) s0 += a[fromA + i] * b[fromB + i]
  return s0 + s1 + s2 + s3
}

/** The highest peak of the correlation over the lag; a maximum at an edge is no peak but both ends moving together. */
function bestLag(pair: Pair, from: number, to: number, longestS: number) {
  let best: { correlation: number; lagS: number } | null = null
  const at: (number | null)[] = []
  const first = Math.round(lagFromS * rateHz)
  for (let lag = first; lag <= longestS * rateHz && to - from - lag >= rateHz; lag++)
    at.push(correlationAt(pair, from, to, lag))
  for (let k = 1; k < at.length - 1; k++) {
    const [before, here, after] = [at[k - 1], at[k], at[k + 1]]
    if (here === null || before === null || after === null || here < before || here < after) continue
    if (!best || here > best.correlation) best = { correlation: here, lagS: (first + k) / rateHz }
  }
  return best
}

/** Every so-manieth sample of a channel, at 100 Hz between two moments. */
function picked(depthPct: Float64Array, sampleRateHz: number, fromS: number, toS: number): Float64Array {
  const out = new Float64Array(Math.max(0, Math.floor((toS - fromS) * rateHz)))
  for (let i = 0; i < out.length; i++) out[i] = depthPct[Math.round((fromS + i / rateHz) * sampleRateHz)]
  return out
}

/**
 * How alike the rear moves to the front one wheelbase earlier: the largest correlation of the two depths at lags from
 * 0.05 to 0.6 s (1.2 m at 24 to 2 m/s), sampled at 100 Hz between two moments.
 *
 * @returns null when a stretch is too short or nothing moves
 */
export function wheelbaseMatch(
  front: EndMotion,
  rear: EndMotion,
  fromS: number,
  toS: number,
): { correlation: number; lagS: number } | null {
  const rate = front.sampleRateHz
  const f = picked(front.depthPct, rate, fromS, toS)
  const r = picked(rear.depthPct, rate, fromS, toS)
  return bestLag(pairOf(f, r), 0, f.length, lagToS)
}

const usualWheelbaseM = 1.22
const windowS = 3
const sure = 0.5

/**
 * Pace of the ride from how much later the rear meets what the front met, per half second, m/s; NaN where the two are
 * too unlike. Only its course matters, so a usual wheelbase will do.
 */
export function paceFromWheelbase(
  front: Float64Array,
  rear: Float64Array,
  sampleRateHz: number,
): Float64Array {
  const seconds = front.length / sampleRateHz
  const f = picked(front, sampleRateHz, 0, seconds)
  const r = picked(rear, sampleRateHz, 0, seconds)
  const pair = pairOf(f, r)
  const half = (windowS * rateHz) / 2
  return Float64Array.from({ length: Math.floor(seconds * 2) }, (_, k) => {
    const middle = ((k + 0.5) * rateHz) / 2
    const [from, to] = [Math.max(0, Math.round(middle - half)), Math.min(f.length, Math.round(middle + half))]
    const best = bestLag(pair, from, to, lagToS)
    return best && best.correlation >= sure ? usualWheelbaseM / best.lagS : NaN
  })
}
