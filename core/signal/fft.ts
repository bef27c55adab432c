/**
 * Discrete Fourier transform in place, stages of four (Cooley & Tukey 1965), no scaling.
 * @param re, im real and imaginary parts; the length must be a power of two
 */
export function fftInPlace(re: Float64Array, im: Float64Array): void {
  const n = re.length
  const { cos, sin, swaps } = tableFor(n)
  for (let k = 0; k < swaps.length; k += 2) {
    const i = swaps[k]
    const j = swaps[k + 1]
    const a = re[i]
    re[i] = re[j]
    re[j] = a
    const b = im[i]
    im[i] = im[j]
    im[j] = b
  }
  if (n < 4) return pairs(re, im, cos, sin, n >> 1)
  quads(re, im)
  let size = 4
  for (; 4 * size <= n; size *= 4) {
    const step = n / (4 * size)
    for (let start = 0; start < n; start += 4 * size) {
      for (let k = 0; k < size; k++) {
        const t1 = k * step
        const t2 = 2 * t1
        const a = start + k
        const b = a + size
        const c = b + size
        const d = c + size
        // Each value once into a name of its own: the compiler would fetch it again for every mention.
        const w1r = cos[t1]
        const w1i = sin[t1]
        const w2r = cos[t2]
        const w2i = sin[t2]
        const xa = re[a]
        const ya = im[a]
        const xb = re[b]
        const yb = im[b]
        const xc = re[c]
        const yc = im[c]
        const xd = re[d]
        const yd = im[d]
        // First stage of the two: pairs (a, b) and (c, d), with the turn of k over 2·size.
        const br = xb * w2r - yb * w2i
        const bi = xb * w2i + yb * w2r
        const dr = xd * w2r - yd * w2i
        const di = xd * w2i + yd * w2r
        const ar = xa + br
        const ai = ya + bi
        const er = xa - br
        const ei = ya - bi
        const cr = xc + dr
        const ci = yc + di
        const fr = xc - dr
        const fi = yc - di
        // Second stage: (a, c) with the turn of k over 4·size, (b, d) with a quarter turn more.
        const gr = cr * w1r - ci * w1i
        const gi = cr * w1i + ci * w1r
        const hr = fr * w1i + fi * w1r
        const hi = fi * w1i - fr * w1r
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
  // An odd number of stages ends with one of pairs.
  if (size < n) pairs(re, im, cos, sin, size)
}

/** The last stage alone. */
function pairs(re: Float64Array, im: Float64Array, cos: Float64Array, sin: Float64Array, half: number): void {
  for (let a = 0; a < half; a++) {
    const b = a + half
    const br = re[b] * cos[a] - im[b] * sin[a]
    const bi = re[b] * sin[a] + im[b] * cos[a]
    re[b] = re[a] - br
    im[b] = im[a] - bi
    re[a] += br
    im[a] += bi
  }
}

/** The first two stages, in which nothing is turned but by a quarter. */
function quads(re: Float64Array, im: Float64Array): void {
  for (let a = 0; a < re.length; a += 4) {
    const sumR = re[a] + re[a + 1]
    const sumI = im[a] + im[a + 1]
    const difR = re[a] - re[a + 1]
    const difI = im[a] - im[a + 1]
    const sum2R = re[a + 2] + re[a + 3]
    const sum2I = im[a + 2] + im[a + 3]
    const dif2R = re[a + 2] - re[a + 3]
    const dif2I = im[a + 2] - im[a + 3]
    re[a] = sumR + sum2R
    im[a] = sumI + sum2I
    re[a + 1] = difR + dif2I
    im[a + 1] = difI - dif2R
    re[a + 2] = sumR - sum2R
    im[a + 2] = sumI - sum2I
    re[a + 3] = difR - dif2I
    im[a + 3] = difI + dif2R
  }
}

interface Table {
  /** exp(−2πik/n) for the first half. */
  cos: Float64Array
  sin: Float64Array
  /** Pairs of indices that change places: each with its bits in opposite order. */
  swaps: Uint32Array
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
      swaps: Uint32Array.from(
        Array.from({ length: n }, (_, i) => [i, mirrored(i, bits)])
          .filter(([i, j]) => i < j)
          .flat(),
      ),
    }
    kept.set(n, t)
  }
  return t
}

/** A number with its bits in opposite order. */
function mirrored(i: number, bits: number): number {
  let out = 0
  for (let b = 0; b < bits; b++) if (i & (1 << b)) out |= 1 << (bits - 1 - b)
  return out
}
