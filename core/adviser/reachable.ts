import { placesAround } from '../adjusters/range.ts'
import type { Dial } from './dials.ts'
import { fallOff, type ResponseSurface } from './surface/model.ts'

/**
 * Rating points lost at a place against the best that a hand can set, per sample: nobody turns half a click or half a
 * spacer, so what lies between two places of a part is no loss that something could be done about.
 *
 * @param at place of every dial, click-equivalents
 */
export function reachableLoss(
  surface: ResponseSurface,
  dials: readonly Dial[],
  at: ArrayLike<number>,
): Float64Array {
  const { best, steepness, straightFrom, samples } = surface
  const out = surface.lossAt(at)
  dials.forEach((d, k) => {
    for (let i = 0; i < samples; i++) {
      const wanted = best[i * surface.dials + k]
      const [below, above] = placesAround(d.adjuster, d.fromClicks(wanted)).map((p) =>
        fallOff(d.toClicks(p) - wanted, straightFrom[i]),
      )
      out[i] -= steepness[i * surface.dials + k] * Math.min(below, above)
    }
  })
  return out.map((x) => Math.max(0, x))
}
