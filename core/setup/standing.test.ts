import { describe, expect, it } from 'vitest'
import type { SuspensionUnit } from '#contract/unit'
import { DayBuilder, fork, shock } from '../test/dayBuilder.ts'
import { checkSetup } from './check.ts'
import { standing } from './standing.ts'

/** Fork pressure 80, compression 8 of 16, rebound 6; shock pressure 180, rebound 7, one spacer. */
const present = () => new DayBuilder().history().setups[0]
const ids = (s: { positions: { adjusterId: string }[] }) => s.positions.map((p) => p.adjusterId)
const withDial = (unit: SuspensionUnit, id: string, over: object): SuspensionUnit => ({
  ...unit,
  adjusters: unit.adjusters.map((a) => (a.id === id ? ({ ...a, ...over } as typeof a) : a)),
})

describe('what is on the bike, when a dial was given another range', () => {
  it('is the very same where every part can stand as it is written', () => {
    const s = present()
    expect(standing(s, [fork, shock])).toBe(s)
    expect(standing(s, [withDial(fork, 'fc', { clicks: 8 }), shock])).toBe(s)
  })
  it('a dial without that place is unread, and nothing else is', () => {
    const s = present()
    const units = [withDial(fork, 'fc', { clicks: 7 }), shock]
    expect(ids(standing(s, units))).toEqual(ids(s).filter((id) => id !== 'fc'))
    expect(checkSetup(standing(s, units), units)).toEqual([])
    // The record keeps what was written: with the range put right it shows again.
    expect(ids(s)).toContain('fc')
  })
  it('a half click on a dial of whole ones is no place', () => {
    const s = present()
    const half = {
      ...s,
      positions: s.positions.map((p) => (p.adjusterId === 'rr' ? { ...p, value: 6.5 } : p)),
    }
    expect(ids(standing(half, [fork, shock]))).not.toContain('rr')
    expect(standing(half, [fork, withDial(shock, 'rr', { step: 0.5 })])).toBe(half)
  })
  it('fewer spacers than are written inside are counted anew', () => {
    const s = present()
    expect(ids(standing(s, [fork, withDial(shock, 'rs', { maxCount: 0 })]))).not.toContain('rs')
  })
  it('a pressure that was read stays, however low the limit: too much air is to be seen', () => {
    const s = present()
    const low = [fork, withDial(shock, 'rp', { maxPsi: 150 })]
    expect(standing(s, low)).toBe(s)
    const [fault] = checkSetup(s, low)
    expect(fault.message).toMatch(/^Rear pressure goes from .* to 150 psi; it cannot stand at 180 psi\.$/)
  })
})
