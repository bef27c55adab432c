import { describe, expect, it } from 'vitest'
import { canonicalUnits, type Quantity, type UnitChoice } from './choice.ts'
import { typedNumber } from './typed.ts'

const metric: UnitChoice = { ...canonicalUnits, pressure: 'bar' }
const american: UnitChoice = {
  pressure: 'psi',
  length: 'in',
  mass: 'lb',
  temperature: '°F',
  springRate: 'lb/in',
  altitude: 'ft',
}
describe('a number as it is typed', () => {
  it.each<[string, Quantity | undefined, UnitChoice, number | null]>([
    ['', 'pressure', metric, null],
    ['  ', undefined, metric, null],
    ['82', 'pressure', canonicalUnits, 82],
    [' 28,5 ', undefined, metric, 28.5],
    ['-3', 'temperature', metric, -3],
    ['−3', 'temperature', metric, -3],
    ['.5', undefined, metric, 0.5],
    ['5,6', 'pressure', metric, 81.221],
    // The unit may be typed with it: its own, or the other one of the same kind.
    ['5.6 bar', 'pressure', metric, 81.221],
    ['82 psi', 'pressure', metric, 82],
    ['82psi', 'pressure', metric, 82],
    ['5,6 bar', 'pressure', canonicalUnits, 81.221],
    ['560 kPa', 'pressure', canonicalUnits, 81.221],
    ['180 lbs', 'mass', metric, 81.647],
    ['82 kg', 'mass', american, 82],
    ['20 C', 'temperature', american, 20],
    ['68 °F', 'temperature', metric, 20],
    ['450 lbs', 'springRate', metric, 78.807],
    ['450 lb/in', 'springRate', metric, 78.807],
    ['79 N/mm', 'springRate', american, 79],
    ['1200 ft', 'altitude', metric, 365.76],
    ['1200m', 'altitude', american, 1200],
    ['2 in', 'length', metric, 50.8],
    ['2"', 'length', metric, 50.8],
    ['55 mm', 'length', american, 55],
  ])('"%s" of %s', (text, quantity, units, is) => {
    const typed = typedNumber(text, quantity, units)
    if (is === null) expect(typed).toBeNull()
    else expect(typed).toBeCloseTo(is, 2)
  })
  it.each<[string, Quantity | undefined, UnitChoice]>([
    ['eighty', 'pressure', metric],
    ['82 mm', 'pressure', metric],
    ['82 kg', 'pressure', metric],
    ['82 psi 3', 'pressure', metric],
    ['8-9', undefined, metric],
    ['1e3', undefined, metric],
    ['0x10', undefined, metric],
    ['5.6.1', undefined, metric],
    ['-', 'temperature', metric],
    ['8 clicks', undefined, metric],
    // Thousands or thousandths? A metre above the sea is no height of a trail.
    ['1,200', 'altitude', metric],
    ['1.200', 'altitude', metric],
    ['1,200 m', 'altitude', american],
  ])('"%s" of %s is none', (text, quantity, units) => {
    expect(typedNumber(text, quantity, units)).toBeNaN()
  })
  it('its own unit may be typed where a field has one of its own', () => {
    expect(typedNumber('8 clicks', undefined, metric, 'clicks')).toBe(8)
    expect(typedNumber('30 %', undefined, metric, '%')).toBe(30)
    expect(typedNumber('112,3 s', undefined, metric, 's')).toBe(112.3)
    // A lap as the clock says it.
    expect(typedNumber('1:52', undefined, metric, 's')).toBe(112)
    expect(typedNumber('1:52,3', undefined, metric, 's')).toBeCloseTo(112.3, 9)
    expect(typedNumber('12:05', undefined, metric, 's')).toBe(725)
    expect(typedNumber('1:72', undefined, metric, 's')).toBeNaN()
    expect(typedNumber('1:52', undefined, metric, 'mm')).toBeNaN()
    expect(typedNumber('0.125 in', 'length', american)).toBeCloseTo(3.175, 6)
  })
})
