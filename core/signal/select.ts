/**
 * Rearranges x[from, to) so that x[k] is the k-th smallest, smaller ones before it. Quickselect, median of three (Hoare
 * 1961). Values must not be NaN.
 * Cost O(n) on average.
 */
export function selectInPlace(x: Float64Array, k: number, from = 0, to = x.length): void {
  let low = from
  let high = to - 1
  while (high > low) {
    const mid = (low + high) >> 1
    if (x[mid] < x[low]) swap(x, mid, low)
    if (x[high] < x[low]) swap(x, high, low)
    if (x[high] < x[mid]) swap(x, high, mid)
    const pivot = x[mid]
    let i = low
    let j = high
    while (i <= j) {
      while (x[i] < pivot) i++
      while (x[j] > pivot) j--
      if (i <= j) {
        swap(x, i, j)
        i++
        j--
      }
    }
    if (k <= j) high = j
    else if (k >= i) low = i
    else return
  }
}

function swap(x: Float64Array, i: number, j: number): void {
  const v = x[i]
  x[i] = x[j]
  x[j] = v
}

/**
 * Quantiles of unsorted values, type 7 as `quantileSorted`; the order of x is used up.
 * @param q rising, 0 … 1
 * @returns NaN each for an empty array
 */
export function quantilesInPlace(x: Float64Array, q: readonly number[]): number[] {
  const n = x.length
  let from = 0
  return q.map((p) => {
    if (n === 0) return NaN
    const h = (n - 1) * p
    const k = Math.floor(h)
    selectInPlace(x, k, from)
    from = k
    if (h === k || k + 1 >= n) return x[k]
    // The next one up is the least of those behind.
    let next = Infinity
    for (let i = k + 1; i < n; i++) if (x[i] < next) next = x[i]
    return x[k] + (h - k) * (next - x[k])
  })
}
