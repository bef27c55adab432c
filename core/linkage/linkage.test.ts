import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import {
  axlePct,
  leverageFromPoints,
  leverageOf,
  linearLeverage,
  ratioAt,
  shaftMmAt,
  wheelTravelMm,
} from './leverage.ts'

const curve = leverageFromPoints([
  { shaftMm: 0, ratio: 3.1 },
  { shaftMm: 20, ratio: 2.8 },
  { shaftMm: 45, ratio: 2.5 },
  { shaftMm: 65, ratio: 2.6 },
])
const anyCurve = fc
  .array(
    fc.tuple(fc.double({ min: 2, max: 20, noNaN: true }), fc.double({ min: 1.2, max: 4.5, noNaN: true })),
    {
      minLength: 2,
      maxLength: 12,
    },
  )
  .map((steps) => {
    let at = -steps[0][0]
    return leverageFromPoints(steps.map(([d, ratio]) => ({ shaftMm: (at += d), ratio })))
  })

describe('leverage', () => {
  it('wheel travel is the integral of the ratio', () => {
    let z = 0
    const n = 200_000
    for (let i = 0; i < n; i++) z += ratioAt(curve, ((i + 0.5) * 60) / n).ratio * (60 / n)
    expect(wheelTravelMm(60, curve)).toBeCloseTo(z, 6)
  })
  it('a straight one from 3.0 to 2.4 over 60 mm moves the wheel 162 mm', () => {
    expect(wheelTravelMm(60, linearLeverage(3, 2.4, 60))).toBeCloseTo(162, 12)
    expect(axlePct(30, 60, linearLeverage(3, 2.4, 60))).toBeGreaterThan(30)
    expect(axlePct(30, 60, linearLeverage(2.7, 2.7, 60))).toBeCloseTo(30, 12)
  })
  it('wheel and shaft lead back to each other', () => {
    fc.assert(
      fc.property(anyCurve, fc.double({ min: -5, max: 300, noNaN: true }), (l, s) => {
        expect(shaftMmAt(wheelTravelMm(s, l), l)).toBeCloseTo(s, 7)
      }),
    )
  })
  it('a bike’s curve goes before its start and end, and nothing known is null', () => {
    const none = { leverageCurve: null, leverageStart: null, leverageEnd: null }
    expect(leverageOf(none, 60)).toBeNull()
    expect(leverageOf({ ...none, leverageStart: 3, leverageEnd: 2.4 }, 60)!.wheelMm[1]).toBeCloseTo(162, 12)
    const both = {
      leverageStart: 3,
      leverageEnd: 2,
      leverageCurve: [
        { shaftMm: 0, ratio: 2.5 },
        { shaftMm: 60, ratio: 2.5 },
      ],
    }
    expect(wheelTravelMm(60, leverageOf(both, 60)!)).toBe(150)
  })
  it('refuses points that do not rise', () => {
    expect(() =>
      leverageFromPoints([
        { shaftMm: 10, ratio: 2 },
        { shaftMm: 10, ratio: 3 },
      ]),
    ).toThrow(/rise from row to row/)
  })
})
