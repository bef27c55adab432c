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
    const around = placesAround(d.adjuster)
    for (let i = 0; i < samples; i++) {
      const wanted = best[i * surface.dials + k]
      const [below, above] = around(d.fromClicks(wanted))
      const left = Math.min(
        fallOff(d.toClicks(below) - wanted, straightFrom[i]),
        fallOff(d.toClicks(above) - wanted, straightFrom[i]),
      )
      out[i] -= steepness[i * surface.dials + k] * left
    }
  })
  return out.map((x) => Math.max(0, x))
}
