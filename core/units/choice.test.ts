import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import {
  canonicalUnits,
  chosenNumber,
  fromChosen,
  say,
  sayDifference,
  toChosen,
  unitsOf,
  type Quantity,
} from './choice.ts'
import { otherUnits } from '../test/otherUnits.ts'

describe('chosen units', () => {
  it('say what was stored in the person’s own unit, as precise as it can be set', () => {
    expect(say('pressure', 84, otherUnits)).toBe('5.79 bar')
    expect(say('length', 30, otherUnits)).toBe('1.18 in')
    expect(say('mass', 71, otherUnits)).toBe('157 lb')
    expect(say('temperature', -40, otherUnits)).toBe('-40 °F')
    expect(say('temperature', 20, otherUnits)).toBe('68 °F')
    expect(say('springRate', 78.807, otherUnits)).toBe('450 lb/in')
    expect(say('altitude', 300, otherUnits)).toBe('984 ft')
    expect(say('pressure', 84.2, canonicalUnits)).toBe('84 psi')
    expect(say('length', 13.75, canonicalUnits)).toBe('13.8 mm')
  })
  it('a difference of temperatures has no zero point', () => {
    expect(sayDifference('temperature', 10, otherUnits)).toBe('18 °F')
    expect(sayDifference('pressure', 7.25, otherUnits)).toBe('0.5 bar')
  })
  it('lead back to what was stored', () => {
    fc.assert(
      fc.property(
        fc.constantFrom(...(Object.keys(unitsOf) as Quantity[])),
        fc.boolean(),
        fc.double({ min: -50, max: 500, noNaN: true }),
        (q, canonical, x) => {
          const choice = canonical ? canonicalUnits : otherUnits
          expect(fromChosen(q, toChosen(q, x, choice), choice)).toBeCloseTo(x, 9)
        },
      ),
    )
  })
  it('a field can give back finer than it says', () => {
    expect(chosenNumber('pressure', 83.98, otherUnits, 1)).toBe('5.79')
    expect(chosenNumber('mass', 71.3, otherUnits, 1)).toBe('157.2')
    expect(chosenNumber('temperature', -0.01, canonicalUnits)).toBe('0')
  })
})
