/** Minimum and maximum per block, at doubling block sizes: any view is drawn from about as many blocks as pixels. */
export interface Pyramid {
  /** Samples per block on the finest level. */
  baseBlock: number
  levels: { block: number; min: Float32Array; max: Float32Array }[]
}

/** Cost O(N), memory about N/2 values for a base block of 8. */
export function buildPyramid(x: Float32Array, baseBlock = 8): Pyramid {
  const levels: Pyramid['levels'] = []
  let min: Float32Array = x
  let max: Float32Array = x
  let factor = baseBlock
  for (let block = baseBlock; ; block *= 4) {
    const size = Math.ceil(min.length / factor)
    const lo = new Float32Array(size).fill(NaN)
    const hi = new Float32Array(size).fill(NaN)
    for (let i = 0; i < min.length; i++) {
      const k = (i / factor) | 0
      // Comparisons with NaN are false, so a block is NaN only when all of it is a gap.
      if (!(lo[k] <= min[i])) lo[k] = Number.isNaN(min[i]) ? lo[k] : min[i]
      if (!(hi[k] >= max[i])) hi[k] = Number.isNaN(max[i]) ? hi[k] : max[i]
    }
    levels.push({ block, min: lo, max: hi })
    if (size < 64) return { baseBlock, levels }
    min = lo
    max = hi
    factor = 4
  }
}

/** What to draw between two samples: the samples themselves, or a lowest and a highest for each column of several. */
export interface DepthView {
  /** Sample at which the first column begins; columns are counted from sample 0, so that they stay put in a moving view. */
  first: number
  /** Samples in a column; 1 when `low` and `high` are the samples. */
  columnSamples: number
  /** NaN where a column is all gap. */
  low: Float32Array
  /** The same array as `low` when a column is one sample. */
  high: Float32Array
}

/**
 * What to draw between two samples in about `columns` columns, at most that many and one. Up to one sample a column there are
 * samples. Cost O(columns).
 * @param from first sample, may lie before the start
 * @param to sample behind the last, may lie behind the end
 */
export function viewOf(
  x: Float32Array,
  pyramid: Pyramid,
  from: number,
  to: number,
  columns: number,
): DepthView {
  const a = Math.max(0, Math.floor(from))
  const b = Math.max(a, Math.min(x.length, Math.ceil(to)))
  if (b - a <= columns) {
    const samples = x.subarray(a, b)
    return { first: a, columnSamples: 1, low: samples, high: samples }
  }
  const perColumn = (b - a) / columns
  let level = { block: 1, min: x, max: x }
  for (const l of pyramid.levels) if (l.block <= perColumn) level = l
  const per = Math.ceil(perColumn / level.block)
  const columnSamples = per * level.block
  const first = Math.floor(a / columnSamples) * per
  const last = Math.min(level.min.length, Math.ceil(b / level.block))
  const n = Math.ceil((last - first) / per)
  const low = new Float32Array(n).fill(NaN)
  const high = new Float32Array(n).fill(NaN)
  for (let k = 0; k < n; k++) {
    const end = Math.min(last, first + (k + 1) * per)
    for (let i = first + k * per; i < end; i++) {
      // Comparisons with NaN are false, so a column is NaN only when all of it is a gap.
      if (!(low[k] <= level.min[i]) && level.min[i] === level.min[i]) low[k] = level.min[i]
      if (!(high[k] >= level.max[i]) && level.max[i] === level.max[i]) high[k] = level.max[i]
    }
  }
  return { first: first * level.block, columnSamples, low, high }
}
