import type { MindTag } from '#contract/run'
import { normal80, normalCdf } from './normal.ts'
import { cholesky, choleskyQuadratic, choleskySolve } from './solve.ts'

/** One rated, counted run. `index` counts all runs of the day, so that drift is per run ridden. */
export interface RatedRun {
  runId: string
  /** Settings that are the same share one key. */
  setupKey: string
  index: number
  rating: number
  mind: MindTag
  /** Ridden under other conditions than the latest run: its noise variance is multiplied. */
  otherConditions?: boolean
}

/** "B against A" as the rider said it, −2 … 2. */
export interface SaidDifference {
  setupA: string
  setupB: string
  indexA: number
  indexB: number
  value: number
}

export interface SessionPriors {
  /** Noise of one rating when nothing is known, rating points. */
  noiseSd: number
  /** How many runs that guess is worth. */
  noiseRuns: number
  /** Spread of setups around the day's level, rating points. */
  setupSd: number
  /** Spread of drift, rating points per run. */
  driftSd: number
  /** What "better" means in rating points, and its own scatter. */
  saidStep: number
  saidSd: number
}

export const sessionPriors: SessionPriors = {
  noiseSd: 0.7,
  noiseRuns: 4,
  setupSd: 1.2,
  driftSd: 0.1,
  saidStep: 0.9,
  saidSd: 0.8,
}

/** Noise variance of a run under other conditions, multiple. */
export const otherConditionsVariance = 4

/** A run ridden nervous or tired says less: its noise variance is multiplied. */
export const mindVariance: Record<MindTag, number> = {
  normal: 1,
  'track-new': 2,
  nervous: 2,
  tired: 2,
  'saving-tyres': 3,
}

/** Difference between two setups after noise and drift. */
export interface Effect {
  /** B − A, rating points: median, and the 80 % interval. */
  effect: number
  low80: number
  high80: number
  /** Probability that B is truly better than A. */
  probability: number
}

export interface Session {
  setups: string[]
  /** Posterior mean of the noise of one rating, rating points. */
  noiseSd: number
  /** How many runs repeated a setup: 0 means the noise is only the prior. */
  repeats: number
  driftPerRun: number
  /** Spread of that. */
  driftSd: number
  /** Level of a setup against the day's mean: posterior mean and sd. */
  level: (setup: string) => { mean: number; sd: number; runs: number }
  compare: (setupA: string, setupB: string) => Effect
  /** Chance that B is better than A: that of `compare`, without its bounds. */
  chanceOfBetter: (setupA: string, setupB: string) => number
}

const gridSize = 25

/**
 * y = μ + setup + drift·(index − mean) + noise, with a scaled-inverse-χ² prior on the noise variance, integrated on a
 * grid; setups, drift and said differences are conjugate Gaussians given the noise.
 * Source: Gelman et al., Bayesian Data Analysis, ch. 14 (linear model); constants: docs/models.md, "Is it better?".
 */
export function fitSession(
  runs: readonly RatedRun[],
  said: readonly SaidDifference[],
  priors: SessionPriors = sessionPriors,
): Session {
  const setups = [...new Set(runs.map((r) => r.setupKey))]
  const place = new Map(setups.map((s, i) => [s, i]))
  const usable = said.filter((d) => place.has(d.setupA) && place.has(d.setupB) && d.setupA !== d.setupB)
  const S = setups.length
  const n = S + 2
  const meanIndex = runs.reduce((s, r) => s + r.index, 0) / Math.max(1, runs.length)
  const level = runs.reduce((s, r) => s + r.rating, 0) / Math.max(1, runs.length)

  const rows = runs.map((r) => {
    const x = new Float64Array(n)
    x[place.get(r.setupKey)!] = 1
    x[S] = 1
    x[S + 1] = r.index - meanIndex
    return {
      x,
      y: r.rating - level,
      variance: (s2: number) => s2 * mindVariance[r.mind] * (r.otherConditions ? otherConditionsVariance : 1),
    }
  })
  for (const d of usable) {
    const x = new Float64Array(n)
    x[place.get(d.setupB)!] = 1
    x[place.get(d.setupA)!] = -1
    x[S + 1] = d.indexB - d.indexA
    rows.push({ x, y: d.value * priors.saidStep, variance: (s2) => s2 + priors.saidSd ** 2 })
  }
  const priorPrecision = Float64Array.from(
    { length: n },
    (_, i) => 1 / (i < S ? priors.setupSd : i === S ? 2 : priors.driftSd) ** 2,
  )

  const fits = Array.from({ length: gridSize }, (_, k) => {
    const sd = priors.noiseSd * Math.exp(((k - (gridSize - 1) / 2) / ((gridSize - 1) / 2)) * Math.log(4))
    return fitAt(rows, priorPrecision, n, sd, priors)
  })
  const top = Math.max(...fits.map((f) => f.logWeight))
  const weights = fits.map((f) => Math.exp(f.logWeight - top))
  const total = weights.reduce((s, w) => s + w, 0)
  weights.forEach((w, i) => (weights[i] = w / total))
  const average = (f: (fit: (typeof fits)[number]) => number) =>
    fits.reduce((s, fit, i) => s + weights[i] * f(fit), 0)

  const spread = (direction: Float64Array) => {
    const means = fits.map((f) => dot(direction, f.mean))
    const sds = fits.map((f) => Math.sqrt(choleskyQuadratic(f.factor, n, direction)))
    return { means, sds }
  }
  /** Chance that B stands above A by less than so much; null where both are one or nothing is known of one. */
  const belowOf = (a: string, b: string) => {
    const ia = place.get(a)
    const ib = place.get(b)
    if (ia === undefined || ib === undefined || ia === ib) return null
    const d = new Float64Array(n)
    d[ib] = 1
    d[ia] = -1
    const { means, sds } = spread(d)
    return (x: number) => means.reduce((s, m, k) => s + weights[k] * normalCdf((x - m) / sds[k]), 0)
  }
  const levels = new Map<string, { mean: number; sd: number; runs: number }>()
  return {
    setups,
    noiseSd: average((f) => f.noiseSd),
    repeats: runs.length - S,
    driftPerRun: average((f) => f.mean[S + 1]),
    driftSd: average((f) => Math.sqrt(choleskySolve(f.factor, n, unitAt(n, S + 1))[S + 1])),
    level: (setup) => {
      const i = place.get(setup)
      if (i === undefined) return { mean: 0, sd: priors.setupSd, runs: 0 }
      const known = levels.get(setup)
      if (known) return known
      const d = new Float64Array(n)
      d[i] = 1
      const { means, sds } = spread(d)
      const mean = means.reduce((s, m, k) => s + weights[k] * m, 0)
      const second = means.reduce((s, m, k) => s + weights[k] * (sds[k] ** 2 + m ** 2), 0)
      const level = {
        mean,
        sd: Math.sqrt(Math.max(0, second - mean ** 2)),
        runs: runs.filter((r) => r.setupKey === setup).length,
      }
      levels.set(setup, level)
      return level
    },
    compare: (a, b) => {
      const below = belowOf(a, b)
      if (!below) {
        const half = a === b ? 0 : normal80 * Math.SQRT2 * priors.setupSd
        return { effect: 0, low80: -half, high80: half, probability: 0.5 }
      }
      return {
        effect: invert(below, 0.5),
        low80: invert(below, 0.1),
        high80: invert(below, 0.9),
        probability: 1 - below(0),
      }
    },
    chanceOfBetter: (a, b) => {
      const below = belowOf(a, b)
      return below ? 1 - below(0) : 0.5
    },
  }
}

function fitAt(
  rows: { x: Float64Array; y: number; variance: (s2: number) => number }[],
  priorPrecision: Float64Array,
  n: number,
  noiseSd: number,
  priors: SessionPriors,
) {
  const s2 = noiseSd ** 2
  const a = new Float64Array(n * n)
  const b = new Float64Array(n)
  let quadratic = 0
  let logDet = 0
  for (let i = 0; i < n; i++) a[i * n + i] = priorPrecision[i]
  for (const r of rows) {
    const w = 1 / r.variance(s2)
    quadratic += w * r.y * r.y
    logDet -= Math.log(w)
    for (let i = 0; i < n; i++) {
      if (r.x[i] === 0) continue
      b[i] += w * r.x[i] * r.y
      for (let j = 0; j < n; j++) a[i * n + j] += w * r.x[i] * r.x[j]
    }
  }
  const factor = cholesky(a, n)
  const mean = choleskySolve(factor, n, b)
  for (let i = 0; i < n; i++) logDet += 2 * Math.log(factor[i * n + i])
  // Marginal likelihood of the data at this noise, times scaled-inverse-χ² density on a log grid (Jacobian folded in).
  const v = priors.noiseRuns
  const logPrior = -(v / 2) * Math.log(s2) - (v * priors.noiseSd ** 2) / (2 * s2)
  return { noiseSd, factor, mean, logWeight: logPrior - 0.5 * (quadratic - dot(b, mean) + logDet) }
}

function unitAt(n: number, i: number): Float64Array {
  const out = new Float64Array(n)
  out[i] = 1
  return out
}

function dot(a: ArrayLike<number>, b: ArrayLike<number>): number {
  let s = 0
  for (let i = 0; i < a.length; i++) s += a[i] * b[i]
  return s
}

/** x with below(x) = p, by bisection; effects beyond ±20 rating points do not occur on a 1–10 scale. */
function invert(below: (x: number) => number, p: number): number {
  let low = -20
  let high = 20
  for (let i = 0; i < 60; i++) {
    const mid = (low + high) / 2
    if (below(mid) < p) low = mid
    else high = mid
  }
  return (low + high) / 2
}
