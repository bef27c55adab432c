import { seededRandom } from '../../numeric/random.ts'
import { Chain } from './chain.ts'
import { addResidual, noiseFits, residualKernel } from './kernel.ts'
import { surfacePriors, type ResponseSurface, type SurfaceData } from './model.ts'
import { lossOf } from './samples.ts'

/** The departure from the bowl is dear and smooth: every so-manieth sample is enough. */
const residualEvery = 8

/**
 * Posterior of a Gaussian process over the settings: its mean a bowl with an unknown best place and an unknown width
 * per dial (the length scales), its departure from the bowl Matérn 5/2, with level and linear drift of the day
 * integrated out; ratings and said differences are Gaussian, words and figures enter through `presence`.
 * Best places, widths and noise are drawn by Metropolis steps, one dial at a time, from a fixed seed: the same day
 * always gives the same answer. A rating at the top of the scale is only known to lie there or beyond, and is
 * drawn with the rest.
 *
 * Source: Rasmussen & Williams, ch. 2 and 5 (explicit basis, hyperparameters integrated); Neal 1997; Chib 1992 (censored).
 * @param sweeps passes over all dials; the first fifth is thrown away
 */
export function fitSurface(data: SurfaceData, sweeps = usualSweeps(data), seed = 20407): ResponseSurface {
  const K = data.dials.length
  const kernel = residualKernel(data)
  const chain = new Chain(data, noiseFits(data, kernel), seededRandom(seed))
  const burn = Math.floor(sweeps / 5)
  const kept = sweeps - burn
  const best = new Float64Array(kept * K)
  const steepness = new Float64Array(kept * K)
  const noiseSd = new Float64Array(kept)
  const straightFrom = new Float64Array(kept)
  const residual = new Float64Array(data.points.length)
  for (let sweep = 0; sweep < sweeps; sweep++) {
    chain.sweep()
    const at = sweep - burn
    if (at < 0) continue
    straightFrom[at] = chain.straightFrom
    for (let k = 0; k < K; k++) {
      best[at * K + k] = chain.best[k]
      steepness[at * K + k] = Math.exp(chain.logSteepness[k])
    }
    noiseSd[at] = chain.noise.sd
    if (at % residualEvery === 0)
      addResidual(residual, chain.weighedRest, data, kernel, 1 / Math.ceil(kept / residualEvery))
  }
  const drawn = { best, steepness, noiseSd, straightFrom, samples: kept, dials: K, residual }
  return { ...drawn, lossAt: (z) => lossOf(drawn, z) }
}

/** A usual day gets all passes: with fewer, chance in the drawing costs runs. On a very long one fewer keep the answer quick. */
function usualSweeps({ dials, rows, clues }: SurfaceData): number {
  const perSweep = Math.max(1, dials.length * (rows.length + 30 * clues.length))
  return Math.round(Math.min(surfacePriors.sweeps, Math.max(110, 3.6e6 / perSweep)))
}
