/** Runs of finite samples as [start, end) index pairs; what lies between them are gaps. */
export function finiteSegments(x: ArrayLike<number>): [number, number][] {
  const out: [number, number][] = []
  let start = -1
  for (let i = 0; i <= x.length; i++) {
    const ok = i < x.length && Number.isFinite(x[i])
    if (ok && start < 0) start = i
    if (!ok && start >= 0) {
      out.push([start, i])
      start = -1
    }
  }
  return out
}

/**
 * Applies a whole-signal operation to each gap-free stretch of x, into `out`; gaps become NaN.
 * @param minLength stretches shorter than this become NaN, for they cannot be filtered honestly
 */
export function perSegment<T extends Float64Array | Float32Array>(
  x: Float64Array,
  minLength: number,
  out: T,
  operation: (stretch: Float64Array, into: T) => void,
): T {
  out.fill(NaN)
  for (const [a, b] of finiteSegments(x))
    if (b - a >= minLength) operation(x.subarray(a, b), out.subarray(a, b) as T)
  return out
}
