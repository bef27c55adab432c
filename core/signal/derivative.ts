import { InputError } from '../errors.ts'

/**
 * First derivative by Savitzky–Golay: a cubic is fitted to each odd window and differentiated at its centre;
 * the first and last half-windows use the cubic of the nearest full window.
 * Source: Savitzky & Golay (1964), Anal. Chem. 36, 1627; closed-form weights for cubic and quartic, Gorry (1990).
 *
 * @param x            finite samples, length ≥ window; not modified
 * @param sampleRateHz > 0
 * @param window       odd, ≥ 5 samples
 * @param out          where the result goes; a new array when left out
 * @param scale        units of the result in one unit of x
 * @returns those units per second
 * @throws InputError 'signal.window', 'signal.too-short'
 */
export function savitzkyGolayDerivative(
  x: Float64Array,
  sampleRateHz: number,
  window: number,
  out: Float64Array = new Float64Array(x.length),
  scale = 1,
): Float64Array {
  if (!(window >= 5 && window % 2 === 1)) throw new InputError('signal.window', { got: window })
  const n = x.length
  if (n < window) throw new InputError('signal.too-short', { needed: window, got: n })
  const m = (window - 1) / 2
  const { s2, s4, s6 } = evenMoments(m)
  const perStep = sampleRateHz * scale
  // Normal equations of the odd part, value = c1·k + c3·k³: [s2 s4; s4 s6].
  const det = s2 * s6 - s4 * s4
  // Odd weights: each pair around the centre needs one multiplication.
  const weights = Float64Array.from({ length: m + 1 }, (_, k) => ((s6 * k - s4 * k ** 3) / det) * perStep)
  let i = m
  // Four at a time, their samples before and behind kept at hand: a step outward moves all of them by one, and only the
  // outermost is fetched.
  for (; i + 4 <= n - m; i += 4) {
    let s0 = 0
    let s1 = 0
    let s2 = 0
    let s3 = 0
    let p0 = x[i]
    let p1 = x[i + 1]
    let p2 = x[i + 2]
    let p3 = x[i + 3]
    let r0 = p0
    let r1 = p1
    let r2 = p2
    let r3 = p3
    for (let k = 1; k <= m; k++) {
      const w = weights[k]
      p0 = p1
      p1 = p2
      p2 = p3
      p3 = x[i + 3 + k]
      r3 = r2
      r2 = r1
      r1 = r0
      r0 = x[i - k]
      s0 += w * (p0 - r0)
      s1 += w * (p1 - r1)
      s2 += w * (p2 - r2)
      s3 += w * (p3 - r3)
    }
    out[i] = s0
    out[i + 1] = s1
    out[i + 2] = s2
    out[i + 3] = s3
  }
  for (; i < n - m; i++) {
    let sum = 0
    for (let k = 1; k <= m; k++) sum += weights[k] * (x[i + k] - x[i - k])
    out[i] = sum
  }
  edge(x, 0, m, -m, out, 0, perStep)
  edge(x, n - window, m, 1, out, n - m, perStep)
  return out
}

/** Window length nearest to `spanMs` that is odd and at least 5 samples. */
export function oddWindow(spanMs: number, sampleRateHz: number): number {
  const half = Math.round(((spanMs / 1000) * sampleRateHz - 1) / 2)
  return Math.max(5, 2 * half + 1)
}

function evenMoments(m: number) {
  let s2 = 0
  let s4 = 0
  let s6 = 0
  for (let k = 1; k <= m; k++) {
    s2 += 2 * k ** 2
    s4 += 2 * k ** 4
    s6 += 2 * k ** 6
  }
  return { s2, s4, s6 }
}

/** Derivative of one window's cubic at the m places from `firstK` on, written to `out` from `at`. */
function edge(
  x: Float64Array,
  start: number,
  m: number,
  firstK: number,
  out: Float64Array,
  at: number,
  perStep: number,
): void {
  const { s2, s4, s6 } = evenMoments(m)
  const s0 = 2 * m + 1
  let t0 = 0
  let t1 = 0
  let t2 = 0
  let t3 = 0
  for (let k = -m; k <= m; k++) {
    const v = x[start + m + k]
    t0 += v
    t1 += v * k
    t2 += v * k * k
    t3 += v * k ** 3
  }
  const c2 = (s0 * t2 - s2 * t0) / (s0 * s4 - s2 * s2)
  const det = s2 * s6 - s4 * s4
  const c1 = (s6 * t1 - s4 * t3) / det
  const c3 = (s2 * t3 - s4 * t1) / det
  for (let i = 0; i < m; i++) {
    const k = firstK + i
    out[at + i] = (c1 + 2 * c2 * k + 3 * c3 * k * k) * perStep
  }
}
