import { cholesky, choleskyInverse } from '../../stats/solve.ts'
import { drifted, surfacePriors, type RatedRow, type SurfaceData } from './model.ts'

/** Noise levels that are weighed, in spreads of its logarithm. */
export const noiseGrid = [-2, -1.5, -1, -0.5, 0, 0.5, 1, 1.5, 2]

/** Matérn 5/2 of a scaled distance. Source: Rasmussen & Williams, Gaussian Processes, eq. 4.17. */
function matern52(r: number): number {
  const s = Math.sqrt(5) * r
  return (1 + s + (s * s) / 3) * Math.exp(-s)
}

export interface NoiseFit {
  sd: number
  inverse: Float64Array
  logWeight: number
}

/** Covariance of the rows at each noise level, inverted once: level, drift and residual are integrated out in it. */
export function noiseFits(data: SurfaceData, residual: Float64Array): NoiseFit[] {
  const p = surfacePriors
  const N = data.rows.length
  const index = data.points.map((x) => x.index)
  // Who learns a track learns fast at first, then less and less.
  const learning = index.map((i) => 1 - Math.exp(-(i - 1) / p.learningRuns))
  const drift = index.map(drifted)
  const [meanDrift, meanLearning] = [meanOf(drift), meanOf(learning)]
  /** A course over the day at a row: against its mean, or between the two runs that were compared. */
  const along = (course: readonly number[], mean: number, row: RatedRow) =>
    course[row.b] - (row.a === null ? mean : course[row.a])
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
      const gone = data.habit.drift.sd ** 2 * along(drift, meanDrift, r) * along(drift, meanDrift, o)
      const learnt = p.learningSd ** 2 * along(learning, meanLearning, r) * along(learning, meanLearning, o)
      shared[i * N + j] = shared[j * N + i] = level + res + gone + learnt
    }
  return noiseGrid.map((g) => {
    const sd = data.habit.noiseSd * Math.exp(g * data.habit.noiseLogSd)
    const a = shared.slice()
    data.rows.forEach((r, i) => (a[i * N + i] += sd * sd * r.noiseTimes + r.extraVariance))
    const factor = cholesky(a, N)
    let logDet = 0
    for (let i = 0; i < N; i++) logDet += 2 * Math.log(factor[i * N + i])
    const inverse = choleskyInverse(factor, N)
    return { sd, inverse, logWeight: -0.5 * logDet - 0.5 * g * g }
  })
}

const meanOf = (x: readonly number[]) => x.reduce((t, v) => t + v, 0) / Math.max(1, x.length)

/** Covariance of the departures of all runs' settings from the bowl. */
export function residualKernel(data: SurfaceData): Float64Array {
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

/**
 * Adds `share` of the residual's conditional mean at every run: K·V⁻¹·(what bowl, level and drift leave).
 *
 * @param weighed V⁻¹ times what they leave
 */
export function addResidual(
  out: Float64Array,
  weighed: Float64Array,
  data: SurfaceData,
  kernel: Float64Array,
  share: number,
): void {
  const N = data.rows.length
  const n = data.points.length
  for (let i = 0; i < N; i++) {
    const { a, b } = data.rows[i]
    for (let x = 0; x < n; x++)
      out[x] += share * weighed[i] * (kernel[x * n + b] - (a === null ? 0 : kernel[x * n + a]))
  }
}
