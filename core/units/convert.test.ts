import { describe, expect, it } from 'vitest'
import * as u from './convert.ts'

describe('unit conversions', () => {
  it('agree with the published factors', () => {
    expect(u.psiPerBar).toBeCloseTo(14.5038, 4)
    expect(u.nPerMmPerLbIn).toBeCloseTo(0.175127, 6)
    expect(u.kgToLb(1)).toBeCloseTo(2.20462, 5)
  })
  it('come back where they started', () => {
    for (const x of [0.1, 1, 77, 450]) {
      expect(u.barToPsi(x / u.psiPerBar)).toBeCloseTo(x, 10)
      expect(u.lbToKg(u.kgToLb(x))).toBeCloseTo(x, 10)
      expect(u.lbInToNPerMm(u.nPerMmToLbIn(x))).toBeCloseTo(x, 10)
    }
  })
})
