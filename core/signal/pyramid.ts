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

/**
 * What to draw between two samples in about `columns` columns: per column its minimum and its maximum, in the order in which the
 * course rises or falls.
 * @returns sample positions and values, both of the same length
 */
export function viewOf(
  x: Float32Array,
  pyramid: Pyramid,
  from: number,
  to: number,
  columns: number,
): { at: Float64Array; value: Float64Array } {
  const a = Math.max(0, Math.floor(from))
  const b = Math.min(x.length, Math.ceil(to))
  if (b - a <= 2 * columns) {
    const n = Math.max(0, b - a)
    const at = Float64Array.from({ length: n }, (_, i) => a + i)
    return { at, value: Float64Array.from(x.subarray(a, a + n)) }
  }
  const perColumn = (b - a) / columns
  let level = { block: 1, min: x, max: x }
  for (const l of pyramid.levels) if (l.block <= perColumn) level = l
  // Several blocks make a column, so that a view is never more than two points a column, whatever the zoom.
  const per = Math.ceil(perColumn / level.block)
  const first = Math.floor(a / level.block)
  const last = Math.min(level.min.length, Math.ceil(b / level.block))
  const n = Math.ceil((last - first) / per)
  const at = new Float64Array(2 * n)
  const value = new Float64Array(2 * n)
  const width = per * level.block
  for (let k = 0; k < n; k++) {
    const from = first + k * per
    const to = Math.min(last, from + per)
    let lo = NaN
    let hi = NaN
    for (let i = from; i < to; i++) {
      // Comparisons with NaN are false, so a column is NaN only when all of it is a gap.
      if (!(lo <= level.min[i]) && level.min[i] === level.min[i]) lo = level.min[i]
      if (!(hi >= level.max[i]) && level.max[i] === level.max[i]) hi = level.max[i]
    }
    const start = from * level.block
    at[2 * k] = start + width / 4
    at[2 * k + 1] = start + (3 * width) / 4
    // On the way down the highest comes first, or a smooth slope would be drawn as teeth.
    const falling = k > 0 && lo + hi < value[2 * k - 2] + value[2 * k - 1]
    value[2 * k] = falling ? hi : lo
    value[2 * k + 1] = falling ? lo : hi
  }
  return { at, value }
}
