import { describe, expect, it } from 'vitest'
import { placesAround } from '../adjusters/range.ts'
import { fork, frontRebound, shock } from '../test/dayBuilder.ts'
import { dialsOf } from './dials.ts'
import { reachableLoss } from './reachable.ts'
import { lossOf } from './surface/samples.ts'
import type { ResponseSurface } from './surface/model.ts'

const dials = dialsOf({ front: { ...fork, adjusters: [frontRebound] }, rear: null })
/** One sample, its best place that of a fraction of a click. */
const surface = (clicks: number, straightFrom: number): ResponseSurface => {
  const s = {
    best: Float64Array.of(dials[0].toClicks(clicks)),
    steepness: Float64Array.of(0.2),
    noiseSd: Float64Array.of(0.7),
    straightFrom: Float64Array.of(straightFrom),
    samples: 1,
    dials: 1,
    residual: new Float64Array(0),
  }
  return { ...s, lossAt: (z) => lossOf(s, z) }
}
const lostAt = (place: number, best: number, shape = 1.5) =>
  reachableLoss(surface(best, shape), dials, [dials[0].toClicks(place)])[0]

describe('what is lost against the best that a hand can set', () => {
  it('is nothing at the place next to the best, on either side of it', () => {
    expect(lostAt(6, 6.4)).toBeCloseTo(0, 12)
    expect(lostAt(7, 6.6)).toBeCloseTo(0, 12)
    expect(lostAt(6, 6)).toBe(0)
  })
  it('is what the other place loses more', () => {
    expect(lostAt(7, 6.4)).toBeGreaterThan(0)
    expect(lostAt(7, 6.4)).toBeCloseTo(
      surface(6.4, 1.5).lossAt([dials[0].toClicks(7)])[0] -
        surface(6.4, 1.5).lossAt([dials[0].toClicks(6)])[0],
      12,
    )
  })
  it('is never less than nothing, and never more than the loss against the place between', () => {
    for (let place = 0; place <= 10; place++)
      for (let best = 0; best <= 10; best += 0.23)
        for (const shape of [0.6, 4, Infinity]) {
          const lost = lostAt(place, best, shape)
          expect(lost).toBeGreaterThanOrEqual(0)
          expect(lost).toBeLessThanOrEqual(surface(best, shape).lossAt([dials[0].toClicks(place)])[0] + 1e-12)
        }
  })
})

describe('the places around', () => {
  const spacers = shock.adjusters.find((a) => a.kind === 'spacer')!
  it('are next to it, and the same where it stands at one or beyond an end', () => {
    expect(placesAround(spacers)(1.2)).toEqual([1, 2])
    expect(placesAround(spacers)(2)).toEqual([2, 2])
    expect(placesAround(spacers)(9)).toEqual([3, 3])
    expect(placesAround(spacers)(-1)).toEqual([0, 0])
    const coil = { ...spacers, kind: 'spring-rate', ratesNPerMm: [60, 50, 80] } as never
    expect(placesAround(coil)(55)).toEqual([50, 60])
    expect(placesAround(coil)(80)).toEqual([80, 80])
    expect(placesAround(coil)(90)).toEqual([80, 80])
  })
})
