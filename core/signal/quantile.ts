/**
 * Quantile of sorted values, type 7 (linear between order statistics).
 * Source: Hyndman & Fan (1996), Am. Stat. 50, 361. @returns NaN for an empty array
 */
export function quantileSorted(sorted: ArrayLike<number>, q: number): number {
  const n = sorted.length
  if (n === 0) return NaN
  const h = (n - 1) * q
  const i = Math.floor(h)
  return i + 1 < n ? sorted[i] + (h - i) * (sorted[i + 1] - sorted[i]) : sorted[n - 1]
}

/** Median of unsorted values; the input is not modified. NaN when empty. */
export function median(x: ArrayLike<number>): number {
  return quantileSorted(Float64Array.from(x).sort(), 0.5)
}
