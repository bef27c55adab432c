/** How often values fall in equal bins, fine enough that exact quantiles need only the values of a few of them. */
export interface FineCounts {
  /** Values below the first bin count in it, values above the last in that. */
  start: number
  perUnit: number
  counts: Uint32Array
  total: number
  low: number
  high: number
}

/**
 * Counts the known values of x between two samples.
 *
 * @param start where the first bin begins, in units of x
 * @param width of a bin
 * @param into counters, one for each bin, at 0
 * Cost O(to − from).
 */
export function fineCounts(
  x: Float64Array,
  from: number,
  to: number,
  start: number,
  width: number,
  into: Uint32Array,
): FineCounts {
  const perUnit = 1 / width
  const last = into.length - 1
  let total = 0
  let low = Infinity
  let high = -Infinity
  for (let i = from; i < to; i++) {
    const value = x[i]
    if (value !== value) continue
    into[binOf((value - start) * perUnit, last)]++
    total++
    if (value < low) low = value
    if (value > high) high = value
  }
  return { start, perUnit, counts: into, total, low, high }
}

/** Held within the bins before it is made whole: what is too large for a whole number would come out anywhere. */
const binOf = (place: number, last: number) => (place < 0 ? 0 : place > last ? last : place | 0)

/** Sums of `each` bins in a row: the same counts in coarser bins. */
export function coarser({ counts }: FineCounts, each: number): Float64Array {
  const out = new Float64Array(counts.length / each)
  for (let k = 0; k < counts.length; k++) out[Math.floor(k / each)] += counts[k]
  return out
}

/** A quantile among values that follow each other in order: `first` the rank of their lowest, `count` of them. */
export interface Asked {
  q: number
  first: number
  count: number
  /** Of the values with their signs turned: the highest becomes the lowest. */
  isTurned?: boolean
}

/**
 * Exact quantiles, type 7 as `quantileSorted`, of values that were counted; NaN where there are none.
 * Cost O(to − from), one pass for all.
 */
export function quantilesOf(
  x: Float64Array,
  from: number,
  to: number,
  fine: FineCounts,
  asked: readonly Asked[],
): number[] {
  const ranksOf = ({ q, first, count, isTurned }: Asked) => {
    const k = Math.floor((count - 1) * q)
    const both = [k, Math.min(k + 1, count - 1)]
    return both.map((r) => first + (isTurned ? count - 1 - r : r))
  }
  const some = asked.filter((a) => a.count > 0)
  const values = valuesOfRanks(x, from, to, fine, some.flatMap(ranksOf))
  return asked.map((a) => {
    const at = some.indexOf(a)
    if (at < 0) return NaN
    const sign = a.isTurned ? -1 : 1
    const [low, high] = [sign * values[2 * at], sign * values[2 * at + 1]]
    const h = (a.count - 1) * a.q
    return low + (h - Math.floor(h)) * (high - low)
  })
}

/**
 * The values of given ranks (0 = lowest) among those that were counted: only the bins that hold one are sorted.
 *
 * @param ranks whole numbers below `total`
 * Cost O(to − from), and the sorting of those bins.
 */
function valuesOfRanks(
  x: Float64Array,
  from: number,
  to: number,
  fine: FineCounts,
  ranks: readonly number[],
): number[] {
  const { counts, start, perUnit } = fine
  const last = counts.length - 1
  // Where each wanted bin's values go; −1: not wanted.
  const place = new Int32Array(counts.length).fill(-1)
  const parts: Float64Array[] = []
  const asked = ranks.map((rank) => {
    let bin = 0
    let before = 0
    while (before + counts[bin] <= rank) before += counts[bin++]
    if (place[bin] < 0) place[bin] = parts.push(new Float64Array(counts[bin])) - 1
    return { part: place[bin], at: rank - before }
  })
  const filled = new Uint32Array(parts.length)
  for (let i = from; i < to; i++) {
    const value = x[i]
    if (value !== value) continue
    const p = place[binOf((value - start) * perUnit, last)]
    if (p >= 0) parts[p][filled[p]++] = value
  }
  for (const part of parts) part.sort()
  return asked.map(({ part, at }) => parts[part][at])
}
