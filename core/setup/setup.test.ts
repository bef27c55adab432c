import { describe, expect, it } from 'vitest'
import { DayBuilder, fork, shock } from '../test/dayBuilder.ts'
import { checkLinked, checkSetup } from './check.ts'
import { diffSetups, moveWords } from './diff.ts'

const two = (to: Record<string, number>, linked = false) =>
  new DayBuilder().change(to, { linked }).history().setups

describe('differences', () => {
  it('name what moved, springs first, in the part’s own count', () => {
    const [a, b] = two({ rr: 8, fp: 84 })
    const words = diffSetups(a, b, [fork, shock]).map((m) => moveWords(m))
    expect(words).toEqual([
      'Front pressure 80 → 84 psi, 4 psi firmer',
      'Rear rebound 7 → 6 clicks, 1 click faster',
    ])
  })
  it('nothing moved, nothing said', () => {
    const [a, b] = two({})
    expect(diffSetups(a, b, [fork, shock])).toEqual([])
  })
})

describe('soundness', () => {
  it('a sound setup has no faults', () => {
    expect(checkSetup(two({})[0], [fork, shock])).toEqual([])
  })
  it('names positions that the part cannot take and adjusters it lacks; one left out is unread, no fault', () => {
    const s = two({ rr: 15, zz: 1 })[1]
    const cut = { ...s, positions: s.positions.filter((p) => p.adjusterId !== 'fp') }
    const codes = checkSetup(cut, [fork, shock])
      .map((f) => f.code)
      .sort()
    expect(codes).toEqual(['out-of-range', 'unknown-adjuster'])
  })
  it('two adjusters at once need the word "linked"', () => {
    const [a, b] = two({ rr: 8, fp: 84 })
    expect(checkLinked(a, b, [fork, shock])[0].code).toBe('not-linked')
    const [c, d] = two({ rr: 8, fp: 84 }, true)
    expect(checkLinked(c, d, [fork, shock])).toEqual([])
  })
})
