/** A stretch of one recording and how much later the same ground comes in the other, s. */
export interface AlignedPiece {
  startS: number
  endS: number
  lagS: number
  /** Correlation of the two there; below `sure`, the lag is a neighbour's. */
  correlation: number
}

/** Fine enough to lay hits on hits, coarse enough that a line a little off still matches. */
const blockHz = 25
/** Below this, two stretches are too unlike to say where one lies in the other. */
export const sure = 0.5

/** Mean per block of 1/25 s; a block without a sample is NaN. */
function blocks(x: ArrayLike<number>, rateHz: number): Float64Array {
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

/** Pearson correlation of a[from, from + n) with b[at, at + n), gaps left out; 0 where nothing varies. */
function correlationAt(a: Float64Array, from: number, b: Float64Array, at: number, n: number): number {
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

/**
 * Lays a second ride of the same ground under the first, stretch by stretch, each by one constant lag: where the
 * correlation of the two is largest. Time is not warped within a stretch. A stretch too unlike takes the lag of the one
 * before it, the first ones that of the first sure one.
 *
 * @param main, other depth of the same end, any unit; NaN = gap
 * @param spans       stretches of `main`, s, in order; the whole when empty
 * @param reachS      how far from the neighbour's lag is looked
 * @returns null when no stretch is alike enough
 * Cost O(samples + stretches · reach · length) at 25 Hz.
 */
export function alignPieces(
  main: { depth: ArrayLike<number>; rateHz: number },
  other: { depth: ArrayLike<number>; rateHz: number },
  spans: readonly { startS: number; endS: number }[],
  reachS = 12,
): AlignedPiece[] | null {
  const a = blocks(main.depth, main.rateHz)
  const b = blocks(other.depth, other.rateHz)
  const whole = { startS: 0, endS: main.depth.length / main.rateHz }
  const reach = Math.round(reachS * blockHz)
  let around = 0
  const pieces = (spans.length ? spans : [whole]).map(({ startS, endS }): AlignedPiece => {
    const from = Math.max(0, Math.round(startS * blockHz))
    const n = Math.min(a.length, Math.round(endS * blockHz)) - from
    let best = { lag: around, correlation: -1 }
    for (let lag = around - reach; lag <= around + reach && n > 2; lag++) {
      const at = from + lag
      if (at < 0 || at + n > b.length) continue
      const correlation = correlationAt(a, from, b, at, n)
      if (correlation > best.correlation) best = { lag, correlation }
    }
    if (best.correlation >= sure) around = best.lag
    const lag = best.correlation >= sure ? best.lag : NaN
    return { startS, endS, lagS: lag / blockHz, correlation: best.correlation }
  })
  let known = pieces.find((p) => !Number.isNaN(p.lagS))?.lagS
  if (known === undefined) return null
  for (const p of pieces) {
    if (Number.isNaN(p.lagS)) p.lagS = known
    known = p.lagS
  }
  return pieces
}
