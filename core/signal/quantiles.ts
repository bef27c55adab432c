import { quantileSorted } from './quantile.ts'

const bins = 4096
/** Shorter arrays are sorted outright. */
const fewest = 2048

/**
 * Quantiles of unsorted values, type 7 as `quantileSorted`, exact: values are counted in bins, and only the bins that
 * hold an asked rank are sorted. x is not modified; values must not be NaN.
 *
 * @param q 0 … 1 each
 * @returns NaN each for an empty array
 * Cost O(n): three passes.
 */
export function quantilesOf(x: Float64Array, q: readonly number[]): number[] {
  const n = x.length
  if (n < fewest) {
    const sorted = x.slice().sort()
    return q.map((p) => quantileSorted(sorted, p))
  }
  let low = x[0]
  let high = x[0]
  for (let i = 1; i < n; i++) {
    const v = x[i]
    if (v < low) low = v
    else if (v > high) high = v
  }
  if (!(high > low)) return q.map(() => low)
  const scale = (bins - 1) / (high - low)
  const counts = new Uint32Array(bins)
  for (let i = 0; i < n; i++) counts[((x[i] - low) * scale) | 0]++
  /** Rank of the first value of each bin. */
  const first = new Uint32Array(bins + 1)
  for (let b = 0; b < bins; b++) first[b + 1] = first[b] + counts[b]
  const binOf = (rank: number) => {
    let a = 0
    let b = bins
    while (b - a > 1) {
      const mid = (a + b) >> 1
      if (first[mid] <= rank) a = mid
      else b = mid
    }
    return a
  }
  const ranks = q.flatMap((p) => {
    const k = Math.floor((n - 1) * p)
    return k + 1 < n ? [k, k + 1] : [k]
  })
  const wanted = new Map<number, Float64Array>()
  const isWanted = new Uint8Array(bins)
  for (const rank of ranks) {
    const b = binOf(rank)
    isWanted[b] = 1
    wanted.set(b, new Float64Array(counts[b]))
  }
  const filled = new Uint32Array(bins)
  for (let i = 0; i < n; i++) {
    const b = ((x[i] - low) * scale) | 0
    if (isWanted[b]) wanted.get(b)![filled[b]++] = x[i]
  }
  for (const part of wanted.values()) part.sort()
  const valueAt = (rank: number) => {
    const b = binOf(rank)
    return wanted.get(b)![rank - first[b]]
  }
  return q.map((p) => {
    const h = (n - 1) * p
    const k = Math.floor(h)
    const v = valueAt(k)
    return h === k || k + 1 >= n ? v : v + (h - k) * (valueAt(k + 1) - v)
  })
}
