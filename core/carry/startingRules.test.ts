import { describe, expect, it } from 'vitest'
import type { SuspensionUnit } from '#contract/unit'
import { canStandAt } from '../adjusters/range.ts'
import { effectWord } from '../adjusters/words.ts'
import { DayBuilder, fork, shock } from '../test/dayBuilder.ts'
import { applyProfile } from './profile.ts'
import { ruleShifts, startingRules } from './startingRules.ts'

const [base] = new DayBuilder().history().setups
const units = [fork, shock]
const rule = (key: string) => startingRules.find((r) => r.key === key)!
/** What a rule does, in the words of each dial itself. */
const effects = (
  key: string,
  on: { positions: typeof base.positions } = base,
  of: SuspensionUnit[] = units,
) => applyProfile(ruleShifts(rule(key), on, of), on, of).map((a) => effectWord(a.adjuster!, a.from!, a.to!))

describe('rules of thumb', () => {
  // As they are told: docs/models.md, "Starting rules".
  it.each([
    ['jump', ['firmer', 'slower']],
    ['rough', ['softer', 'faster']],
    ['flow', ['firmer']],
    ['chatter', ['softer']],
    ['wet', ['softer']],
    ['winter', ['softer', 'faster']],
    ['braking', ['firmer']],
  ])('%s goes that way only', (key, ways) => {
    const said = effects(key)
    expect(said.length).toBeGreaterThan(0)
    expect([...new Set(said)].sort()).toEqual([...ways].sort())
  })
  it('a platform for braking is in front only, and is no air', () => {
    expect(ruleShifts(rule('braking'), base, units).map((s) => [s.end, s.role])).toEqual([
      ['front', 'low-speed-compression'],
    ])
  })
  it('no rule winds a dial to its stop, from wherever it stands', () => {
    for (const r of startingRules)
      for (let stands = 0; stands <= 12; stands++) {
        const on = {
          positions: base.positions.map((p) =>
            ['fc', 'fr', 'rr'].includes(p.adjusterId) ? { ...p, value: stands } : p,
          ),
        }
        for (const a of applyProfile(ruleShifts(r, on, units), on, units)) {
          if (a.adjuster!.kind !== 'click') continue
          expect(canStandAt(a.adjuster!, a.to!)).toBe(true)
          if (a.to! < a.from!) expect(a.to!).toBeGreaterThanOrEqual(2)
        }
      }
  })
  it('says nothing of a dial that nobody has read', () => {
    const unread = { positions: base.positions.filter((p) => p.adjusterId !== 'fc') }
    expect(ruleShifts(rule('braking'), unread, units)).toEqual([])
  })
})
