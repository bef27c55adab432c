import { blockCorrelation, blockHz, blocksOf } from './blocks.ts'

/** A stretch of one recording and how much later the same ground comes in the other, s. */
export interface AlignedPiece {
  startS: number
  endS: number
  lagS: number
  /** The same at its end, where pace differs; left out: it stays. */
  endLagS?: number
  /** Correlation of the two there; below `sure`, the lag is a neighbour's. */
  correlation: number
}

/** Below this, two stretches are too unlike to say where one lies in the other. */
export const sure = 0.5

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
  const a = blocksOf(main.depth, main.rateHz)
  const b = blocksOf(other.depth, other.rateHz)
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
      const correlation = blockCorrelation(a, from, b, at, n)
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
