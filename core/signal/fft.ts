/**
 * Discrete Fourier transform in place, radix 2 (Cooley & Tukey 1965), no scaling.
 * @param re, im real and imaginary parts; the length must be a power of two
 */
export function fftInPlace(re: Float64Array, im: Float64Array): void {
  const n = re.length
  for (let i = 1, j = 0; i < n; i++) {
    let bit = n >> 1
    for (; j & bit; bit >>= 1) j ^= bit
    j ^= bit
    if (i < j) {
      const [a, b] = [re[i], im[i]]
      re[i] = re[j]
      im[i] = im[j]
      re[j] = a
      im[j] = b
    }
  }
  for (let size = 2; size <= n; size <<= 1) {
    const half = size >> 1
    const [cos, sin] = turns(size)
    for (let start = 0; start < n; start += size) {
      for (let k = 0; k < half; k++) {
        const a = start + k
        const b = a + half
        const xr = re[b] * cos[k] - im[b] * sin[k]
        const xi = re[b] * sin[k] + im[b] * cos[k]
        re[b] = re[a] - xr
        im[b] = im[a] - xi
        re[a] += xr
        im[a] += xi
      }
    }
  }
}

const kept = new Map<number, [Float64Array, Float64Array]>()

/** exp(−2πik/size) for the first half, kept between calls. */
function turns(size: number): [Float64Array, Float64Array] {
  let t = kept.get(size)
  if (!t) {
    const angle = (k: number) => (-2 * Math.PI * k) / size
    t = [
      Float64Array.from({ length: size >> 1 }, (_, k) => Math.cos(angle(k))),
      Float64Array.from({ length: size >> 1 }, (_, k) => Math.sin(angle(k))),
    ]
    kept.set(size, t)
  }
  return t
}
