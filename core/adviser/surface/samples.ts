import {
  fallOff,
  floorOf,
  loudness,
  presence,
  sayable,
  surfacePriors,
  type Clue,
  type Hint,
  type ResponseSurface,
  type SurfaceData,
} from './model.ts'

/** Rating points lost at a place, per sample. */
export function lossOf(s: Omit<ResponseSurface, 'lossAt'>, z: ArrayLike<number>): Float64Array {
  const out = new Float64Array(s.samples)
  for (let i = 0; i < s.samples; i++)
    for (let k = 0; k < s.dials; k++)
      out[i] += s.steepness[i * s.dials + k] * fallOff(z[k] - s.best[i * s.dials + k], s.straightFrom[i])
  return out
}

/** Likelihood of a word under every sample. */
export function clueLikelihood(s: ResponseSurface, { points }: SurfaceData, clue: Clue): Float64Array {
  const out = new Float64Array(s.samples).fill(floorOf(clue))
  const { at } = points[clue.point]
  const loud = clue.only ? loudOn(s, at) : null
  for (const part of clue.parts) {
    const said = sayableOn(s, at[part.dial], part, clue)
    for (let i = 0; i < s.samples; i++)
      out[i] += part.share * said[i] * (loud ? loud[i * s.dials + part.dial] : 1)
  }
  return out
}

/** Per sample and dial, its share of what is felt where all dials stand so; sample-major. */
const louds = new WeakMap<Float64Array, WeakMap<Float64Array, Float64Array>>()
function loudOn(s: ResponseSurface, at: Float64Array): Float64Array {
  let known = louds.get(s.best)
  if (!known) louds.set(s.best, (known = new WeakMap()))
  const before = known.get(at)
  if (before) return before
  const out = new Float64Array(s.samples * s.dials)
  for (let i = 0; i < s.samples; i++) {
    const first = i * s.dials
    let total = loudness(surfacePriors.hardlyFelt)
    for (let k = 0; k < s.dials; k++) {
      const loss = s.steepness[first + k] * fallOff(at[k] - s.best[first + k], s.straightFrom[i])
      out[first + k] = loudness(loss)
      total += out[first + k]
    }
    for (let k = 0; k < s.dials; k++) out[first + k] /= total
  }
  known.set(at, out)
  return out
}

/** Answers change the shares of a word, not what is sayable: asked for many times on one surface, worked out once. */
const kept = new WeakMap<Float64Array, Map<string, Float64Array>>()
function sayableOn(s: ResponseSurface, at: number, { dial, direction }: Clue['parts'][number], clue: Clue) {
  const key = `${dial} ${direction} ${at} ${clue.feltFrom} ${clue.fadesFrom}`
  let known = kept.get(s.best)
  if (!known) kept.set(s.best, (known = new Map()))
  let said = known.get(key)
  if (!said) {
    said = Float64Array.from({ length: s.samples }, (_, i) =>
      sayable(direction * (s.best[i * s.dials + dial] - at), clue),
    )
    known.set(key, said)
  }
  return said
}

/** Likelihood of hints under every sample. */
export function hintLikelihood(
  s: ResponseSurface,
  { points }: SurfaceData,
  hints: readonly Hint[],
): Float64Array {
  const out = new Float64Array(s.samples).fill(1)
  for (const h of hints) {
    const at = points[h.point].at[h.dial]
    for (let i = 0; i < s.samples; i++)
      out[i] *= Math.exp(h.weight * presence(h.direction * (s.best[i * s.dials + h.dial] - at)))
  }
  return out
}

/**
 * The surface as it would be after something was learnt: samples drawn anew in proportion to their weights, evenly
 * spaced so that the same weights always give the same surface (systematic resampling: Kitagawa 1996).
 *
 * @param weights likelihood of what was learnt, per sample; any scale
 * @param count   samples to keep
 */
export function reweighted(s: ResponseSurface, weights: ArrayLike<number>, count: number): ResponseSurface {
  let total = 0
  for (let i = 0; i < s.samples; i++) total += weights[i]
  const K = s.dials
  const out = {
    best: new Float64Array(count * K),
    steepness: new Float64Array(count * K),
    noiseSd: new Float64Array(count),
    straightFrom: new Float64Array(count),
    samples: count,
    dials: K,
    residual: s.residual,
  }
  let from = 0
  let reached = weights[0]
  for (let n = 0; n < count; n++) {
    const wanted = ((n + 0.5) / count) * total
    while (reached < wanted && from < s.samples - 1) reached += weights[++from]
    for (let k = 0; k < K; k++) {
      out.best[n * K + k] = s.best[from * K + k]
      out.steepness[n * K + k] = s.steepness[from * K + k]
    }
    out.noiseSd[n] = s.noiseSd[from]
    out.straightFrom[n] = s.straightFrom[from]
  }
  return { ...out, lossAt: (z) => lossOf(out, z) }
}
