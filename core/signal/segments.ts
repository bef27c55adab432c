/** Runs of finite samples as [start, end) index pairs; what lies between them are gaps. */
export function finiteSegments(x: ArrayLike<number>): [number, number][] {
  const out: [number, number][] = []
  let start = -1
  for (let i = 0; i <= x.length; i++) {
    // Neither NaN nor infinite: the difference with itself is 0.
    const ok = i < x.length && x[i] - x[i] === 0
    if (ok && start < 0) start = i
    if (!ok && start >= 0) {
      out.push([start, i])
      start = -1
    }
  }
  return out
}

/**
 * Applies a whole-signal operation to each of the gap-free stretches of x, into `out`; everything else becomes NaN.
 * @param stretches [start, end) pairs, as `finiteSegments` gives them
 */
export function perSegment<T extends Float64Array | Float32Array>(
  x: Float64Array,
  stretches: readonly (readonly [number, number])[],
  out: T,
  operation: (stretch: Float64Array, into: T) => void,
): T {
  let done = 0
  for (const [a, b] of stretches) {
    out.fill(NaN, done, a)
    operation(x.subarray(a, b), out.subarray(a, b) as T)
    done = b
  }
  out.fill(NaN, done)
  return out
}
