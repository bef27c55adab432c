/** Fine enough to lay hits on hits, coarse enough that a line a little off still matches. */
export const blockHz = 25

/** Mean per block of 1/25 s; a block without a sample is NaN. */
export function blocksOf(x: ArrayLike<number>, rateHz: number): Float64Array {
  const y = new Float64Array(Math.max(1, Math.floor((x.length / rateHz) * blockHz)))
  for (let i = 0; i < y.length; i++) {
    const from = Math.round((i * rateHz) / blockHz)
    const to = Math.max(from + 1, Math.round(((i + 1) * rateHz) / blockHz))
    let sum = 0
    let n = 0
    for (let k = from; k < to && k < x.length; k++)
      if (!Number.isNaN(x[k])) {
        sum += x[k]
        n++
      }
    y[i] = n ? sum / n : NaN
  }
  return y
}

/** Pearson correlation of a[from, from + n) with b[at, at + n), gaps left out; 0 where nothing varies or half is missing. */
export function blockCorrelation(
  a: Float64Array,
  from: number,
  b: Float64Array,
  at: number,
  n: number,
): number {
  let count = 0
  let sa = 0
  let sb = 0
  let saa = 0
  let sbb = 0
  let sab = 0
  for (let i = 0; i < n; i++) {
    const x = a[from + i]
    const y = b[at + i]
    if (!(x === x && y === y)) continue
    count++
    sa += x
    sb += y
    saa += x * x
    sbb += y * y
    sab += x * y
  }
  if (count < n / 2) return 0
  const va = saa - (sa * sa) / count
  const vb = sbb - (sb * sb) / count
  return va > 1e-9 && vb > 1e-9 ? (sab - (sa * sb) / count) / Math.sqrt(va * vb) : 0
}
