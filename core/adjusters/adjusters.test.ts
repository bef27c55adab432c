import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import type { Adjuster, CountBase } from '#contract/adjuster'
import { fromCount, toCount } from './count.ts'
import { adjusterRange, canStandAt, clampToRange } from './range.ts'
import { distanceWords, effectWord, positionWords, turnSign, unitWord } from './words.ts'

const click = (countBase: CountBase, role: 'rebound' | 'low-speed-compression' = 'rebound'): Adjuster => ({
  id: 'a',
  alias: null,
  tool: 'hand',
  kind: 'click',
  role,
  clicks: 14,
  step: 1,
  countBase,
})
const pressure: Adjuster = {
  id: 'p',
  alias: null,
  tool: 'shock-pump',
  kind: 'pressure',
  role: 'main-pressure',
  minPsi: 40,
  maxPsi: 120,
  stepPsi: 1,
}
const coil: Adjuster = {
  id: 's',
  alias: null,
  tool: 'workshop',
  kind: 'spring-rate',
  role: 'spring-rate',
  ratesNPerMm: [90, 70, 80],
}

describe('counting clicks', () => {
  it('means the same place from three bases', () => {
    expect(toCount(click('closed-0'), 5)).toBe(5)
    expect(toCount(click('closed-1'), 5)).toBe(6)
    expect(toCount(click('open'), 5)).toBe(9)
  })
  it('comes back where it started, whatever the base', () => {
    fc.assert(
      fc.property(
        fc.constantFrom<CountBase>('closed-0', 'closed-1', 'open'),
        fc.integer({ min: 0, max: 14 }),
        (base, v) => fromCount(click(base), toCount(click(base), v)) === v,
      ),
    )
  })
  it('refuses a count the dial does not have, naming its range', () => {
    expect(() => fromCount(click('closed-0'), 15)).toThrow(/outside 0 to 14/)
    expect(() => fromCount(click('closed-1'), 0)).toThrow(/outside 0 to 14/)
  })
})

describe('what a part can stand at', () => {
  it('knows its own limits and steps', () => {
    expect(canStandAt(click('open'), 14)).toBe(true)
    expect(canStandAt(click('open'), 14.5)).toBe(false)
    expect(canStandAt({ ...click('open'), step: 0.5 } as Adjuster, 7.5)).toBe(true)
    expect(canStandAt(pressure, 121)).toBe(false)
    expect(canStandAt(coil, 85)).toBe(false)
    expect(canStandAt(pressure, NaN)).toBe(false)
  })
  it('pulls a wish back to the nearest real place', () => {
    expect(clampToRange(pressure, 300)).toBe(120)
    expect(clampToRange(coil, 76)).toBe(80)
    expect(clampToRange(click('open'), 3.4)).toBe(3)
    expect(adjusterRange(coil)).toMatchObject({ min: 70, max: 90 })
  })
})

describe('words of a move', () => {
  it('rebound toward open is faster and turns counter-clockwise', () => {
    expect(effectWord(click('closed-0'), 7, 8)).toBe('faster')
    expect(turnSign(click('closed-0'), 7, 8)).toBe('↺')
  })
  it('the words do not flip with the count base', () => {
    expect(effectWord(click('open'), 7, 6)).toBe('slower')
    expect(effectWord(click('open', 'low-speed-compression'), 7, 6)).toBe('firmer')
    expect(turnSign(click('open'), 7, 6)).toBe('↻')
  })
  it('air: up is firmer, and has no turn', () => {
    expect(effectWord(pressure, 80, 84)).toBe('firmer')
    expect(turnSign(pressure, 80, 84)).toBeNull()
    expect(distanceWords(pressure, 80, 84)).toBe('4 psi')
  })
  it('says the position in the part’s own count', () => {
    expect(positionWords(click('open'), 13)).toBe('1 click')
    expect(positionWords(coil, 87.56)).toBe('87.56 N/mm')
    expect(unitWord(click('closed-1'))).toBe('of 15')
  })
})
