import { describe, expect, it } from 'vitest'
import { sagTargetMm, strokePct } from './sag.ts'

describe('sag', () => {
  it('55 mm at 25 % is 13.75 mm', () => {
    expect(sagTargetMm(25, 55)).toBe(13.75)
    expect(strokePct(13.75, 55)).toBe(25)
  })
})
