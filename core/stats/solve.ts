/**
 * Cholesky factor L (row-major, lower) of a symmetric positive definite matrix, in place on a copy.
 * @throws Error when the matrix is not positive definite
 */
export function cholesky(a: Float64Array, n: number): Float64Array {
  const l = a.slice()
  for (let j = 0; j < n; j++) {
    let d = l[j * n + j]
    for (let k = 0; k < j; k++) d -= l[j * n + k] ** 2
    if (!(d > 0)) throw new Error('matrix is not positive definite')
    const root = Math.sqrt(d)
    l[j * n + j] = root
    for (let i = j + 1; i < n; i++) {
      let s = l[i * n + j]
      for (let k = 0; k < j; k++) s -= l[i * n + k] * l[j * n + k]
      l[i * n + j] = s / root
    }
  }
  return l
}

/** Solves L·Lᵀ·x = b. */
export function choleskySolve(l: Float64Array, n: number, b: ArrayLike<number>): Float64Array {
  const x = Float64Array.from(b)
  for (let i = 0; i < n; i++) {
    for (let k = 0; k < i; k++) x[i] -= l[i * n + k] * x[k]
    x[i] /= l[i * n + i]
  }
  for (let i = n - 1; i >= 0; i--) {
    for (let k = i + 1; k < n; k++) x[i] -= l[k * n + i] * x[k]
    x[i] /= l[i * n + i]
  }
  return x
}
