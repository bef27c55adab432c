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

/** bᵀ·(L·Lᵀ)⁻¹·b: the length of what the first half of solving leaves, squared. */
export function choleskyQuadratic(l: Float64Array, n: number, b: ArrayLike<number>): number {
  const x = Float64Array.from(b)
  let q = 0
  for (let i = x.findIndex((v) => v !== 0); i >= 0 && i < n; i++) {
    let v = x[i]
    for (let k = 0; k < i; k++) v -= l[i * n + k] * x[k]
    x[i] = v / l[i * n + i]
    q += x[i] * x[i]
  }
  return q
}

/** Inverse of the matrix L·Lᵀ, row-major and symmetric. A third of the work of solving for each unit vector. */
export function choleskyInverse(l: Float64Array, n: number): Float64Array {
  // Columns of L⁻¹ stand as rows here, so that the products below run along them.
  const columns = new Float64Array(n * n)
  for (let j = 0; j < n; j++) {
    const at = j * n
    columns[at + j] = 1 / l[at + j]
    for (let i = j + 1; i < n; i++) {
      let s = 0
      for (let k = j; k < i; k++) s -= l[i * n + k] * columns[at + k]
      columns[at + i] = s / l[i * n + i]
    }
  }
  const inverse = new Float64Array(n * n)
  for (let i = 0; i < n; i++)
    for (let j = 0; j <= i; j++) {
      let s = 0
      for (let k = i; k < n; k++) s += columns[i * n + k] * columns[j * n + k]
      inverse[i * n + j] = inverse[j * n + i] = s
    }
  return inverse
}
