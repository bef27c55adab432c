/**
 * Discrete Fourier transform in place, stages of four (Cooley & Tukey 1965), no scaling.
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
  // An odd number of stages begins with one of pairs; the rest go two at a time, four values in one visit.
  let size = 1
  if (Math.log2(n) % 2 === 1) {
    for (let a = 0; a < n; a += 2) {
      const b = a + 1
      const xr = re[b]
      const xi = im[b]
      re[b] = re[a] - xr
      im[b] = im[a] - xi
      re[a] += xr
      im[a] += xi
    }
    size = 2
  }
  for (; size < n; size *= 4) {
    const step = n / (4 * size)
    for (let start = 0; start < n; start += 4 * size) {
      for (let k = 0; k < size; k++) {
        const t1 = k * step
        const t2 = 2 * t1
        const a = start + k
        const b = a + size
        const c = b + size
        const d = c + size
        // First stage of the two: pairs (a, b) and (c, d), with the turn of k over 2·size.
        const br = re[b] * cos[t2] - im[b] * sin[t2]
        const bi = re[b] * sin[t2] + im[b] * cos[t2]
        const dr = re[d] * cos[t2] - im[d] * sin[t2]
        const di = re[d] * sin[t2] + im[d] * cos[t2]
        const ar = re[a] + br
        const ai = im[a] + bi
        const er = re[a] - br
        const ei = im[a] - bi
        const cr = re[c] + dr
        const ci = im[c] + di
        const fr = re[c] - dr
        const fi = im[c] - di
        // Second stage: (a, c) with the turn of k over 4·size, (b, d) with a quarter turn more.
        const gr = cr * cos[t1] - ci * sin[t1]
        const gi = cr * sin[t1] + ci * cos[t1]
        const hr = fr * sin[t1] + fi * cos[t1]
        const hi = fi * sin[t1] - fr * cos[t1]
        re[a] = ar + gr
        im[a] = ai + gi
        re[c] = ar - gr
        im[c] = ai - gi
        re[b] = er + hr
        im[b] = ei + hi
        re[d] = er - hr
        im[d] = ei - hi
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
