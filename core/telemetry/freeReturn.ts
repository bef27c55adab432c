/** A free return of one end: a damped swing about a resting depth. */
export interface FreeReturn {
  /** 0.8 meaning "0.8 or above": from there on overshoot tells nothing. */
  dampingRatio: number
  /** Standard error of the ratio. */
  se: number
  naturalHz: number
}

export const returnRules = {
  /** Shorter is no settling. */
  leastS: 0.6,
  longestS: 1.5,
  /** Least way from the resting depth at its start, % of travel. */
  leastPct: 5,
  /** Ground under the wheel that the swing does not explain, share of that way, root mean square. */
  mostUnexplained: 0.07,
  mostSe: 0.05,
  cap: 0.8,
  /** The fit works on means over blocks of about this rate. */
  fitHz: 100,
} as const

/** Swing of a suspended rider, Hz; what lies outside is the ground or the wheel. */
const slowestHz = 0.9
const fastestHz = 7
const grid = { ratios: [0.06, 0.12, 0.2, 0.3, 0.42, 0.56, 0.72, 0.9, 1.15], frequencies: 9 }

/**
 * Damping ratio of the return between two samples: the least-squares fit of d(t) = c + e^(−ζωt)·(A cos ω_d t + B sin ω_d t),
 * linear in c, A and B for every ζ and ω (variable projection: Golub & Pereyra 1973), so a ripple on it is noise and no low
 * point. The standard error is that of the projected problem, widened for residuals that hang together
 * ((1 + ρ)/(1 − ρ), Bayley & Hammersley 1946).
 *
 * @param depthPct low-passed depth of one gap-free stretch
 * @returns null where it is no quiet return: too short, too small, or driven by the ground
 * Cost O(samples), about 150 evaluations of at most 150 blocks.
 */
export function freeReturn(
  depthPct: Float64Array,
  from: number,
  to: number,
  sampleRateHz: number,
): FreeReturn | null {
  const end = Math.min(to, from + Math.round(returnRules.longestS * sampleRateHz))
  if (end - from < returnRules.leastS * sampleRateHz) return null
  const block = Math.max(1, Math.round(sampleRateHz / returnRules.fitHz))
  const n = Math.floor((end - from) / block)
  const y = new Float64Array(n)
  for (let k = 0; k < n; k++) {
    let sum = 0
    for (let i = 0; i < block; i++) sum += depthPct[from + k * block + i]
    y[k] = sum / block
  }
  const stepS = block / sampleRateHz
  // The grid is as coarse as its steps: it needs no finer values.
  const best = new Fit(y, stepS).search(gridded(meansOf(y, coarse), coarse * stepS))
  const { ratio, residual, way, se } = best
  const rmsPct = Math.sqrt(best.sumOfSquares / n)
  if (!(Math.abs(way) >= returnRules.leastPct) || rmsPct > returnRules.mostUnexplained * Math.abs(way))
    return null
  const widened = se * Math.sqrt((1 + correlation(residual)) / (1 - correlation(residual)))
  const naturalHz = best.omega / (2 * Math.PI)
  if (ratio - 2 * widened >= returnRules.cap - 0.1 && ratio >= returnRules.cap)
    return { dampingRatio: returnRules.cap, se: widened, naturalHz }
  return widened <= returnRules.mostSe && ratio > 0 && naturalHz > slowestHz && naturalHz < fastestHz
    ? { dampingRatio: Math.min(returnRules.cap, ratio), se: widened, naturalHz }
    : null
}

interface Found {
  ratio: number
  omega: number
  sumOfSquares: number
  residual: Float64Array
  /** From the resting depth at the start, % of travel. */
  way: number
  se: number
}

/** Values of the grid's fit are means over so many blocks. */
const coarse = 3
/** A step that takes less of the squares moves both by a fiftieth of their standard errors at most. */
const converged = 1e-6

function meansOf(y: Float64Array, width: number): Float64Array {
  const out = new Float64Array(Math.floor(y.length / width))
  for (let k = 0; k < out.length; k++) {
    let sum = 0
    for (let i = 0; i < width; i++) sum += y[k * width + i]
    out[k] = sum / width
  }
  return out
}

/** One node of the grid: both forms at every step, and their sums over the first steps. */
interface Node {
  ratio: number
  omega: number
  e: Float64Array
  s: Float64Array
  sums: { e: Float64Array; s: Float64Array; ee: Float64Array; ss: Float64Array; es: Float64Array }
}

let nodes: { stepS: number; steps: number; all: Node[] } = { stepS: 0, steps: 0, all: [] }

/** The nodes for values `stepS` apart. Every return is tried at the same ones, so their forms are made once. */
function nodesFor(stepS: number): Node[] {
  if (nodes.stepS === stepS) return nodes.all
  const steps = Math.ceil(returnRules.longestS / stepS) + 1
  const all: Node[] = []
  for (let f = 0; f < grid.frequencies; f++) {
    const hz = slowestHz * (fastestHz / slowestHz) ** (f / (grid.frequencies - 1))
    for (const ratio of grid.ratios) all.push(node(ratio, 2 * Math.PI * hz, stepS, steps))
  }
  nodes = { stepS, steps, all }
  return all
}

function node(ratio: number, omega: number, stepS: number, steps: number): Node {
  const beat = omega * Math.sqrt(Math.abs(1 - ratio * ratio))
  const form = (cos: (x: number) => number, scale: number) =>
    Float64Array.from(
      { length: steps },
      (_, k) => Math.exp(-ratio * omega * k * stepS) * cos(beat * k * stepS) * scale,
    )
  const e = form(ratio < 1 ? Math.cos : Math.cosh, 1)
  const s = form(ratio < 1 ? Math.sin : Math.sinh, omega / beat)
  const summed = (x: (k: number) => number) => {
    const out = new Float64Array(steps + 1)
    for (let k = 0; k < steps; k++) out[k + 1] = out[k] + x(k)
    return out
  }
  return {
    ratio,
    omega,
    e,
    s,
    sums: {
      e: summed((k) => e[k]),
      s: summed((k) => s[k]),
      ee: summed((k) => e[k] * e[k]),
      ss: summed((k) => s[k] * s[k]),
      es: summed((k) => e[k] * s[k]),
    },
  }
}

/** The best ratio and frequency of a coarse grid. */
function gridded(y: Float64Array, stepS: number): { ratio: number; omega: number } {
  const n = y.length
  let mean = 0
  for (let k = 0; k < n; k++) mean += y[k] / n
  let found = { ratio: 0.3, omega: 2 * Math.PI * 2.5 }
  let most = -Infinity
  for (const at of nodesFor(stepS)) {
    const { e, s, sums } = at
    let [ey, by] = [0, 0]
    for (let k = 0; k < n; k++) {
      const v = y[k] - mean
      ey += e[k] * v
      by += s[k] * v
    }
    const ee = sums.ee[n] - (sums.e[n] * sums.e[n]) / n
    const bb = sums.ss[n] - (sums.s[n] * sums.s[n]) / n
    const eb = sums.es[n] - (sums.e[n] * sums.s[n]) / n
    const det = ee * bb - eb * eb
    if (!(det > 1e-12 * ee * bb)) continue
    // What the fit takes away of the squares about the mean.
    const taken = (ey * ey * bb - 2 * ey * by * eb + by * by * ee) / det
    if (taken > most) {
      most = taken
      found = at
    }
  }
  return found
}

/** The swing through evenly spaced values. */
class Fit {
  private readonly e: Float64Array
  private readonly s: Float64Array
  readonly residual: Float64Array
  private way = 0

  constructor(
    private readonly y: Float64Array,
    private readonly stepS: number,
  ) {
    this.e = new Float64Array(y.length)
    this.s = new Float64Array(y.length)
    this.residual = new Float64Array(y.length)
  }

  /** Sum of squares that the best c, A and B leave; the residual is in `residual`. */
  private left(ratio: number, omega: number): number {
    const { y, e, s, residual, stepS } = this
    const n = y.length
    fillForms(e, s, ratio, omega, stepS)
    const me = meanOf(e)
    const ms = meanOf(s)
    const my = meanOf(y)
    // Means taken off: two unknowns are left.
    let [ee, bb, eb, ey, by] = [0, 0, 0, 0, 0]
    for (let k = 0; k < n; k++) {
      const a = e[k] - me
      const b = s[k] - ms
      const v = y[k] - my
      ee += a * a
      bb += b * b
      eb += a * b
      ey += a * v
      by += b * v
    }
    const det = ee * bb - eb * eb
    if (!(det > 1e-12 * ee * bb)) return Infinity
    const A = (ey * bb - by * eb) / det
    const B = (by * ee - ey * eb) / det
    const c = my - A * me - B * ms
    let left = 0
    for (let k = 0; k < n; k++) {
      const r = y[k] - c - A * e[k] - B * s[k]
      residual[k] = r
      left += r * r
    }
    this.way = A
    return left
  }

  /** The best ratio and frequency: Gauss–Newton steps on both, each taken only where it helps. */
  search(start: { ratio: number; omega: number }): Found {
    let { ratio, omega } = start
    const n = this.y.length
    let best = this.left(ratio, omega)
    const j1 = new Float64Array(n)
    const j2 = new Float64Array(n)
    const base = new Float64Array(n)
    let [h11, h12, h22] = [0, 0, 0]
    for (let turn = 0; turn < 12; turn++) {
      base.set(this.residual)
      this.slope(j1, base, ratio + 1e-4, omega, 1e-4)
      this.slope(j2, base, ratio, omega * (1 + 1e-4), 1e-4)
      h11 = dot(j1, j1)
      h12 = dot(j1, j2)
      h22 = dot(j2, j2)
      const [g1, g2] = [dot(j1, base), dot(j2, base)]
      const det = h11 * h22 - h12 * h12
      if (!(det > 0)) break
      const d1 = -(g1 * h22 - g2 * h12) / det
      const d2 = -(g2 * h11 - g1 * h12) / det
      let share = 1
      let moved = false
      for (; share > 0.02 && !moved; share /= 2) {
        const r = Math.min(2, Math.max(0.01, ratio + share * d1))
        const w = omega * Math.exp(Math.min(0.5, Math.max(-0.5, share * d2)))
        const left = this.left(r, w)
        if (left < best) {
          moved = true
          const small = best - left < converged * best
          ;[ratio, omega, best] = [r, w, left]
          if (small) turn = 12
        }
      }
      if (!moved) break
    }
    best = this.left(ratio, omega)
    const det = h11 * h22 - h12 * h12
    const variance = best / Math.max(1, n - 5)
    const se = det > 0 ? Math.sqrt((variance * h22) / det) : Infinity
    return { ratio, omega, sumOfSquares: best, residual: this.residual, way: this.way, se }
  }

  /** How the residual changes with a small step of one of both. */
  private slope(into: Float64Array, base: Float64Array, ratio: number, omega: number, step: number): void {
    this.left(ratio, omega)
    for (let k = 0; k < into.length; k++) into[k] = (this.residual[k] - base[k]) / step
  }
}

/** e^(−ζωt)·cos ω_d t and the like of the sine over ω_d/ω, from step to step by what both turn and fall in one. */
function fillForms(e: Float64Array, s: Float64Array, ratio: number, omega: number, stepS: number): void {
  const beat = omega * Math.sqrt(Math.abs(1 - ratio * ratio))
  const swings = ratio < 1
  const fall = Math.exp(-ratio * omega * stepS)
  if (beat * stepS < 1e-9) {
    // At 1 both forms meet, and the second is ωt·e^(−ωt).
    for (let k = 0; k < e.length; k++) {
      e[k] = fall ** k
      s[k] = omega * k * stepS * e[k]
    }
    return
  }
  const cos = swings ? fall * Math.cos(beat * stepS) : fall * Math.cosh(beat * stepS)
  const sin = swings ? fall * Math.sin(beat * stepS) : fall * Math.sinh(beat * stepS)
  const turn = swings ? -sin : sin
  const scale = omega / beat
  let a = 1.0
  let b = 0.0
  for (let k = 0; k < e.length; k++) {
    e[k] = a
    s[k] = b * scale
    const next = a * cos + b * turn
    b = a * sin + b * cos
    a = next
  }
}

function meanOf(x: Float64Array): number {
  let sum = 0
  for (let k = 0; k < x.length; k++) sum += x[k]
  return sum / x.length
}

function dot(a: Float64Array, b: Float64Array): number {
  let sum = 0
  for (let k = 0; k < a.length; k++) sum += a[k] * b[k]
  return sum
}

/** Lag-one correlation of residuals, 0 to 0.95. */
function correlation(r: Float64Array): number {
  let [along, all] = [0, 0]
  for (let k = 0; k < r.length; k++) {
    all += r[k] * r[k]
    if (k > 0) along += r[k] * r[k - 1]
  }
  return all > 0 ? Math.min(0.95, Math.max(0, along / all)) : 0
}
