import { describe, expect, it } from 'vitest'
import type { CheckedPart } from '#core/tent/check'
import { setBy } from '#core/setup/known'
import { frontPressure, frontRebound } from '#core/test/dayBuilder'
import { asKept, fieldOf, saidBy, standsAt } from './saidOfPart.ts'

const part = (adjuster: CheckedPart['adjuster'], value: number | null): CheckedPart => ({
  end: 'front',
  adjuster,
  stored:
    value === null
      ? null
      : {
          end: 'front',
          adjusterId: adjuster.id,
          value,
          known: setBy({ at: '2031-05-02T08:00:00.000Z', by: '' }),
        },
  last: null,
  lookedAt: false,
})
const air = part(frontPressure, 64)
/** Counted back from fully open. */
const dial = part({ ...frontRebound, countBase: 'open' } as CheckedPart['adjuster'], 5)
const clicks = (dial.adjuster as { clicks: number }).clicks

describe('what was said of a part in the morning', () => {
  it('a pressure that was typed is what the gauge shows: what that gauge reads high is taken off', () => {
    expect(standsAt(air, saidBy(air, 70), 6)).toBe(64)
    expect(standsAt(air, saidBy(air, 70), 0)).toBe(70)
    expect(standsAt(air, saidBy(air, 61), -3)).toBe(64)
  })
  it('the number that was seen stays when another gauge is chosen, also after “as kept”', () => {
    const typed = saidBy(air, 70)
    expect(fieldOf(air, typed)).toBe(70)
    const still = asKept(air, 0)!
    expect(standsAt(air, still, 0)).toBe(64)
    expect(fieldOf(air, still)).toBe(64)
    // It was seen on a gauge that reads 6 high, as it turns out.
    expect(standsAt(air, still, 6)).toBe(58)
    expect(standsAt(air, asKept(air, 6)!, 6)).toBe(64)
  })
  it('a dial is where it was counted, in its own count, whatever the gauge', () => {
    const said = saidBy(dial, 3)
    expect(standsAt(dial, said, 6)).toBe(clicks - 3)
    expect(fieldOf(dial, said)).toBe(3)
    expect(fieldOf(dial, asKept(dial, 6)!)).toBe(clicks - 5)
    expect(() => saidBy(dial, clicks + 1)).toThrow()
  })
  it('who is not sure says no number, and what nobody has read is like nothing', () => {
    expect(standsAt(air, 'unsure', 6)).toBeNull()
    expect(fieldOf(air, 'unsure')).toBeNull()
    expect(fieldOf(air, undefined)).toBeNull()
    expect(asKept(part(frontPressure, null), 6)).toBeNull()
  })
})
