import { normalFrom, seededRandom } from '../numeric/random.ts'
import { cholesky, choleskyInverse } from '../stats/solve.ts'
import { sessionPriors } from '../stats/session.ts'

/** A rating (`b` alone) or a difference said between two runs (`b` against `a`); indexes into `points`. */
export interface RatedRow {
  a: number | null
  b: number
  value: number
  /** Multiplies the noise variance of a rating; a run ridden nervous says less. */
  mind: number
  /** Added to the variance, rating points squared. */
  extraVariance: number
}

/** A word: it speaks for each of its causes by a share, and may be misled. */
export interface Clue {
  point: number
  /** Likelihood that is there whatever stands where: being misled, and causes that no dial answers. */
  floor: number
  parts: { dial: number; direction: 1 | -1; share: number }[]
  /** Clicks off from which it is said so strongly, and from which it would have been said more strongly. */
  feltFrom: number
  fadesFrom: number
}

/** A measured finding: log-likelihood weight for "this dial wants to go this way". */
export interface Hint {
  point: number
  dial: number
  direction: 1 | -1
  weight: number
}

/** A run in which nothing was said against a dial: it is the less likely to stand far off. */
export interface Silence {
  point: number
  dial: number
  /** Chance that a dial that stands far off would have been named. */
  weight: number
}

/** Everything known of a day, with every position in click-equivalents (see dials.ts). */
export interface SurfaceData {
  /** Range of each dial and where its best place is expected before anything was ridden. */
  dials: { low: number; high: number; expected: number; expectedSd: number }[]
  /** Positions of each run, one number per dial, and its place in the day. */
  points: { at: Float64Array; index: number }[]
  rows: RatedRow[]
  clues: Clue[]
  hints: Hint[]
  silences: Silence[]
}

/** Samples of "where is the best place, how steeply does it fall off, how noisy is a rating". */
export interface Surface {
  /** Best place per sample and dial, click-equivalents, inside the range; sample-major. */
  best: Float64Array
  /** A ninth of the points lost three click-equivalents off, per sample and dial; sample-major. */
  steepness: Float64Array
  noiseSd: Float64Array
  /** Shape of the fall-off per sample, see `fallOff`. */
  straightFrom: Float64Array
  samples: number
  dials: number
  /** Departure of each run's settings from the bowl, posterior mean, rating points. */
  residual: Float64Array
  /** Rating points lost against the best place, per sample. */
  lossAt: (at: ArrayLike<number>) => Float64Array
}

/** All constants of the surface; documented in docs/models.md, "Next change". */
export const surfacePriors = {
  /** Passes over all dials on a usual day. */
  sweeps: 2000,
  /** The place where the day began is about this far from the best one, click-equivalents. */
  expectedSd: 3.5,
  /** Rating points lost three clicks off, median, and the spread of its logarithm. */
  lossThreeClicksOff: 1,
  steepnessLogSd: 0.75,
  levelMean: 8.2,
  levelSd: 1,
  /** Wider than in a comparison of two setups: riders who learn a track gain a quarter of a point a run. */
  driftSd: 0.15,
  noiseSd: sessionPriors.noiseSd,
  noiseLogSd: 0.3,
  /** Departure from a bowl: Matérn 5/2, rating points and click-equivalents. */
  residualSd: 0.3,
  residualLength: 3,
  /** A cause shows in figures from about this far off, and how sharply that sets in, click-equivalents. */
  feltFrom: 0.6,
  feltSharpness: 3,
  /** How much rarer a mild word gets when a strong one would be due. */
  fade: 0.6,
  /** Nobody names a dial this near its best place; beyond that by `silentFade` it is fully off. */
  silentWithin: 0.7,
  silentFade: 1.5,
  /** Shapes: clicks from which ratings fall in a straight line, equally likely beforehand. */
  straightFrom: [0.6, 1.5, 4],
}

const noiseGrid = [-2, -1.5, -1, -0.5, 0, 0.5, 1, 1.5, 2]

/** How much a cause is present when its remedy would still go `u` clicks the right way; 0 … 1. */
export function presence(u: number, feltFrom = surfacePriors.feltFrom): number {
  return 1 / (1 + Math.exp(-surfacePriors.feltSharpness * (u - feltFrom)))
}

/** How likely a word of a clue's strength is when its remedy would still go `u` clicks the right way; 0 … 1. */
function sayable(u: number, c: Clue): number {
  const rise = presence(u, c.feltFrom)
  return c.fadesFrom < 9 ? rise * (1 - surfacePriors.fade * presence(u, c.fadesFrom)) : rise
}

/**
 * How ratings fall off `u` clicks from the best place: u² near it, straight further out (pseudo-Huber), and 9 at three
 * clicks whatever the shape. Where the straight part begins is learned: some riders feel the first click, some not.
 */
export function fallOff(u: number, straightFrom: number): number {
  if (straightFrom !== scaledShape) {
    scaledShape = straightFrom
    scale = 9 / (Math.sqrt(1 + 9 / (straightFrom * straightFrom)) - 1)
  }
  const x = u / straightFrom
  return scale * (Math.sqrt(1 + x * x) - 1)
}
/** The scale of the shape that was asked last: it is asked many thousand times in a row. */
let scaledShape = NaN
let scale = NaN

/** 0 near the best place, 1 where a dial would be named if anything is. */
function farOff(u: number): number {
  const x = (Math.abs(u) - surfacePriors.silentWithin) / surfacePriors.silentFade
  return x <= 0 ? 0 : x >= 1 ? 1 : x
}

/** Matérn 5/2 of a scaled distance. Source: Rasmussen & Williams, Gaussian Processes, eq. 4.17. */
function matern52(r: number): number {
  const s = Math.sqrt(5) * r
  return (1 + s + (s * s) / 3) * Math.exp(-s)
}

/**
 * Posterior of a Gaussian process over the settings: its mean a bowl with an unknown best place and an unknown width
 * per dial (the length scales), its departure from the bowl Matérn 5/2, with level and linear drift of the day
 * integrated out; ratings and said differences are Gaussian, words and figures enter through `presence`.
 * Best places, widths and noise are drawn by Metropolis steps, one dial at a time, from a fixed seed: the same day
 * always gives the same answer.
 *
 * Source: Rasmussen & Williams, ch. 2 and 5 (explicit basis, hyperparameters integrated); Neal 1997.
 * @param sweeps passes over all dials; the first fifth is thrown away
 */
export function fitSurface(data: SurfaceData, sweeps = usualSweeps(data), seed = 20407): Surface {
  const p = surfacePriors
  const K = data.dials.length
  const N = data.rows.length
  const random = seededRandom(seed)
  const kernel = residualKernel(data)
  const noise = noiseFits(data, kernel)

  const b = Float64Array.from(data.dials, (d) => Math.min(d.high, Math.max(d.low, d.expected)))
  const logA0 = Math.log(p.lossThreeClicksOff / 9)
  const logA = new Float64Array(K).fill(logA0)
  let s = (noiseGrid.length - 1) / 2
  let shape = 1

  const rowAt = (k: number, row: RatedRow, best: number, a: number) => {
    const zb = data.points[row.b].at[k] - best
    const c = p.straightFrom[shape]
    if (row.a === null) return -a * fallOff(zb, c)
    return a * (fallOff(data.points[row.a].at[k] - best, c) - fallOff(zb, c))
  }
  const target = Float64Array.from(data.rows, (r) => (r.a === null ? r.value - p.levelMean : r.value))
  // Contribution of each dial to each row, so that one dial's step touches only its own.
  const part = Array.from({ length: K }, (_, k) =>
    Float64Array.from(data.rows, (r) => rowAt(k, r, b[k], Math.exp(logA[k]))),
  )
  const rest = Float64Array.from(target)
  for (let k = 0; k < K; k++) for (let i = 0; i < N; i++) rest[i] -= part[k][i]
  const quadratic = (v: Float64Array, inverse: Float64Array) => {
    let q = 0
    for (let i = 0; i < N; i++) {
      let row = 0
      const at = i * N
      for (let j = 0; j < i; j++) row += inverse[at + j] * v[j]
      q += v[i] * (2 * row + inverse[at + i] * v[i])
    }
    return q
  }
  let q = quadratic(rest, noise[s].inverse)

  const cluesOf = Array.from({ length: K }, (_, k) =>
    data.clues.flatMap((c, i) => (c.parts.some((x) => x.dial === k) ? [i] : [])),
  )
  const hintsOf = Array.from({ length: K }, (_, k) => data.hints.filter((h) => h.dial === k))
  const silencesOf = Array.from({ length: K }, (_, k) => data.silences.filter((x) => x.dial === k))
  const clueSum = Float64Array.from(data.clues, (c) =>
    c.parts.reduce(
      (t, x) => t + x.share * sayable(x.direction * (b[x.dial] - data.points[c.point].at[x.dial]), c),
      0,
    ),
  )
  const newSum = new Float64Array(data.clues.length)
  /** Log-likelihood of what was said and measured that depends on one dial. */
  const said = (k: number, best: number, old: number, sums: Float64Array | null) => {
    let log = 0
    for (const i of cluesOf[k]) {
      const c = data.clues[i]
      let sum = clueSum[i]
      for (const x of c.parts) {
        if (x.dial !== k) continue
        const z = data.points[c.point].at[k]
        if (best !== old)
          sum += x.share * (sayable(x.direction * (best - z), c) - sayable(x.direction * (old - z), c))
      }
      if (sums) sums[i] = sum
      log += Math.log(c.floor + Math.max(0, sum))
    }
    for (const h of hintsOf[k]) log += h.weight * presence(h.direction * (best - data.points[h.point].at[k]))
    for (const x of silencesOf[k]) log += Math.log(1 - x.weight * farOff(best - data.points[x.point].at[k]))
    return log
  }

  const burn = Math.floor(sweeps / 5)
  const kept = sweeps - burn
  const best = new Float64Array(kept * K)
  const steepness = new Float64Array(kept * K)
  const noiseSd = new Float64Array(kept)
  const straightFrom = new Float64Array(kept)
  const residual = new Float64Array(data.points.length)
  const proposal = new Float64Array(N)
  const change = new Float64Array(N)
  const square = (x: number) => x * x

  for (let sweep = 0; sweep < sweeps; sweep++) {
    for (let k = 0; k < K; k++) {
      const d = data.dials[k]
      for (let what = 0; what < 2; what++) {
        const oldB = b[k]
        const oldA = logA[k]
        const newB = what === 0 ? oldB + (random() < 0.3 ? 4 : 1.3) * normalFrom(random) : oldB
        const newA = what === 1 ? oldA + 0.7 * normalFrom(random) : oldA
        if (newB < d.low || newB > d.high) continue
        let log =
          0.5 * (square((oldB - d.expected) / d.expectedSd) - square((newB - d.expected) / d.expectedSd)) +
          0.5 * (square((oldA - logA0) / p.steepnessLogSd) - square((newA - logA0) / p.steepnessLogSd))
        const a = Math.exp(newA)
        let moved = false
        for (let i = 0; i < N; i++) {
          change[i] = rowAt(k, data.rows[i], newB, a)
          if (change[i] !== part[k][i]) moved = true
          proposal[i] = rest[i] + part[k][i] - change[i]
        }
        const newQ = moved ? quadratic(proposal, noise[s].inverse) : q
        log += 0.5 * (q - newQ)
        if (what === 0) log += said(k, newB, oldB, newSum) - said(k, oldB, oldB, null)
        if (Math.log(1 - random()) >= log) continue
        b[k] = newB
        logA[k] = newA
        q = newQ
        part[k].set(change)
        rest.set(proposal)
        if (what === 0) for (const i of cluesOf[k]) clueSum[i] = newSum[i]
      }
    }
    const to = s + (random() < 0.5 ? -1 : 1)
    if (noise[to]) {
      const newQ = quadratic(rest, noise[to].inverse)
      const log = 0.5 * (q - newQ) + noise[to].logWeight - noise[s].logWeight
      if (Math.log(1 - random()) < log) {
        s = to
        q = newQ
      }
    }
    const old = shape
    shape = Math.min(p.straightFrom.length - 1, Math.max(0, shape + (random() < 0.5 ? -1 : 1)))
    if (shape !== old) {
      const parts = part.map((_, k) =>
        Float64Array.from(data.rows, (r) => rowAt(k, r, b[k], Math.exp(logA[k]))),
      )
      for (let i = 0; i < N; i++) {
        proposal[i] = target[i]
        for (let k = 0; k < K; k++) proposal[i] -= parts[k][i]
      }
      const newQ = quadratic(proposal, noise[s].inverse)
      if (Math.log(1 - random()) < 0.5 * (q - newQ)) {
        q = newQ
        rest.set(proposal)
        parts.forEach((x, k) => part[k].set(x))
      } else shape = old
    }
    const at = sweep - burn
    if (at < 0) continue
    straightFrom[at] = p.straightFrom[shape]
    for (let k = 0; k < K; k++) {
      best[at * K + k] = b[k]
      steepness[at * K + k] = Math.exp(logA[k])
    }
    noiseSd[at] = noise[s].sd
    if (at % 8 === 0) addResidual(residual, rest, noise[s], data, kernel, 1 / Math.ceil(kept / 8))
  }
  return {
    best,
    steepness,
    noiseSd,
    straightFrom,
    samples: kept,
    dials: K,
    residual,
    lossAt: (z) => {
      const out = new Float64Array(kept)
      for (let i = 0; i < kept; i++)
        for (let k = 0; k < K; k++)
          out[i] += steepness[i * K + k] * fallOff(z[k] - best[i * K + k], straightFrom[i])
      return out
    },
  }
}

/** A usual day gets all passes: with fewer, chance in the drawing costs runs. On a very long one fewer keep the answer quick. */
function usualSweeps({ dials, rows, clues }: SurfaceData): number {
  const perSweep = Math.max(1, dials.length * (rows.length ** 2 + 30 * clues.length))
  return Math.round(Math.min(surfacePriors.sweeps, Math.max(140, 7e6 / perSweep)))
}

interface NoiseFit {
  sd: number
  inverse: Float64Array
  logWeight: number
}

/** Covariance of the rows at each noise level, inverted once: level, drift and residual are integrated out in it. */
function noiseFits(data: SurfaceData, residual: Float64Array): NoiseFit[] {
  const p = surfacePriors
  const N = data.rows.length
  const meanIndex = data.points.reduce((t, x) => t + x.index, 0) / Math.max(1, data.points.length)
  const shared = new Float64Array(N * N)
  const n = data.points.length
  for (let i = 0; i < N; i++)
    for (let j = 0; j <= i; j++) {
      const r = data.rows[i]
      const o = data.rows[j]
      const level = r.a === null && o.a === null ? p.levelSd ** 2 : 0
      const k = (x: number, y: number) => residual[x * n + y]
      let res = k(r.b, o.b)
      if (r.a !== null) res -= k(r.a, o.b)
      if (o.a !== null) res -= k(r.b, o.a)
      if (r.a !== null && o.a !== null) res += k(r.a, o.a)
      const time = (row: RatedRow) =>
        row.a === null
          ? data.points[row.b].index - meanIndex
          : data.points[row.b].index - data.points[row.a].index
      shared[i * N + j] = shared[j * N + i] = level + res + p.driftSd ** 2 * time(r) * time(o)
    }
  return noiseGrid.map((g) => {
    const sd = p.noiseSd * Math.exp(g * p.noiseLogSd)
    const a = shared.slice()
    data.rows.forEach((r, i) => (a[i * N + i] += sd * sd * r.mind + r.extraVariance))
    const factor = cholesky(a, N)
    let logDet = 0
    for (let i = 0; i < N; i++) logDet += 2 * Math.log(factor[i * N + i])
    const inverse = choleskyInverse(factor, N)
    return { sd, inverse, logWeight: -0.5 * logDet - 0.5 * g * g }
  })
}

function residualKernel(data: SurfaceData): Float64Array {
  const n = data.points.length
  const out = new Float64Array(n * n)
  for (let i = 0; i < n; i++)
    for (let j = 0; j <= i; j++) {
      let square = 0
      for (let k = 0; k < data.dials.length; k++)
        square += ((data.points[i].at[k] - data.points[j].at[k]) / surfacePriors.residualLength) ** 2
      out[i * n + j] = out[j * n + i] = surfacePriors.residualSd ** 2 * matern52(Math.sqrt(square))
    }
  return out
}

/** Adds `share` of the residual's conditional mean at every run: K·V⁻¹·(what bowl, level and drift leave). */
function addResidual(
  out: Float64Array,
  rest: Float64Array,
  fit: NoiseFit,
  data: SurfaceData,
  kernel: Float64Array,
  share: number,
): void {
  const N = data.rows.length
  const n = data.points.length
  for (let i = 0; i < N; i++) {
    let w = 0
    for (let j = 0; j < N; j++) w += fit.inverse[i * N + j] * rest[j]
    const { a, b } = data.rows[i]
    for (let x = 0; x < n; x++)
      out[x] += share * w * (kernel[x * n + b] - (a === null ? 0 : kernel[x * n + a]))
  }
}
