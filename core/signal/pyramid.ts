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
 * What to draw between two samples in about `columns` columns: per block first its minimum, then its maximum.
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
  const perColumn = (b - a) / Math.max(1, columns)
  if (perColumn <= pyramid.baseBlock) {
    const n = Math.max(0, b - a)
    const at = new Float64Array(n)
    const value = new Float64Array(n)
    for (let i = 0; i < n; i++) {
      at[i] = a + i
      value[i] = x[a + i]
    }
    return { at, value }
  }
  let level = pyramid.levels[0]
  for (const l of pyramid.levels) if (l.block <= perColumn) level = l
  const first = Math.floor(a / level.block)
  const last = Math.min(level.min.length, Math.ceil(b / level.block))
  const at = new Float64Array(2 * (last - first))
  const value = new Float64Array(2 * (last - first))
  for (let k = first, i = 0; k < last; k++, i += 2) {
    at[i] = k * level.block + level.block / 4
    at[i + 1] = k * level.block + (3 * level.block) / 4
    value[i] = level.min[k]
    value[i + 1] = level.max[k]
  }
  return { at, value }
}
