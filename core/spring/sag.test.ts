import { describe, expect, it } from 'vitest'
import { sagPct, sagTargetMm } from './sag.ts'

describe('sag', () => {
  it('55 mm at 25 % is 13.75 mm', () => {
    expect(sagTargetMm(25, 55)).toBe(13.75)
    expect(sagPct(13.75, 55)).toBe(25)
  })
  it('refuses what a ring cannot read', () => {
    expect(() => sagPct(60, 55)).toThrow(/longer than the stroke of 55 mm/)
    expect(() => sagPct(-1, 55)).toThrow(/below 0 mm/)
    expect(() => sagPct(10, 0)).toThrow(/above 0 mm/)
    expect(() => sagPct(NaN, 55)).toThrow()
  })
})
