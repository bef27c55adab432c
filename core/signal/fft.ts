/**
 * Discrete Fourier transform in place, radix 2 (Cooley & Tukey 1965), no scaling.
 * @param re, im real and imaginary parts; the length must be a power of two
 */
export function fftInPlace(re: Float64Array, im: Float64Array): void {
  const n = re.length
  const { cos, sin, mirror } = tableFor(n)
  for (let i = 0; i < n; i++) {
    const j = mirror[i]
    if (i < j) {
      const a = re[i]
      re[i] = re[j]
      re[j] = a
      const b = im[i]
      im[i] = im[j]
      im[j] = b
    }
  }
  for (let half = 1; half < n; half <<= 1) {
    const step = n / (2 * half)
    for (let start = 0; start < n; start += 2 * half) {
      for (let k = 0, t = 0; k < half; k++, t += step) {
        const a = start + k
        const b = a + half
        const xr = re[b] * cos[t] - im[b] * sin[t]
        const xi = re[b] * sin[t] + im[b] * cos[t]
        re[b] = re[a] - xr
        im[b] = im[a] - xi
        re[a] += xr
        im[a] += xi
      }
    }
  }
}

interface Table {
  /** exp(−2πik/n) for the first half. */
  cos: Float64Array
  sin: Float64Array
  /** Each index with its bits in opposite order. */
  mirror: Uint32Array
}
const kept = new Map<number, Table>()

/** Made once for each length. */
function tableFor(n: number): Table {
  let t = kept.get(n)
  if (!t) {
    const angle = (k: number) => (-2 * Math.PI * k) / n
    const bits = Math.log2(n)
    t = {
      cos: Float64Array.from({ length: n >> 1 }, (_, k) => Math.cos(angle(k))),
      sin: Float64Array.from({ length: n >> 1 }, (_, k) => Math.sin(angle(k))),
      mirror: Uint32Array.from({ length: n }, (_, i) => {
        let out = 0
        for (let b = 0; b < bits; b++) if (i & (1 << b)) out |= 1 << (bits - 1 - b)
        return out
      }),
    }
    kept.set(n, t)
  }
  return t
}
