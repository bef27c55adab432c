import { describe, expect, it } from 'vitest'
import type { Effect, Session } from './session.ts'
import { judge } from './verdict.ts'

/** A session that says what it is told, so that only the verdict's own rules are tried. */
function saying(effect: Partial<Effect>, runsA = 2, runsB = 2): Session {
  const whole = { effect: 0, low80: -1, high80: 1, probability: 0.5, ...effect }
  return {
    compare: () => whole,
    level: (setup: string) => ({ mean: 6, sd: 0.3, runs: setup === 'A' ? runsA : runsB }),
  } as unknown as Session
}
const verdict = (effect: Partial<Effect>, runsA?: number, runsB?: number) =>
  judge(saying(effect, runsA, runsB), 'A', 'B')

describe('the word for two setups', () => {
  it.each([
    [
      'nine in ten for it',
      { probability: 0.9, effect: 1.2 },
      'better',
      'Better, by about 1.2 rating points.',
    ],
    [
      'nine in ten against it',
      { probability: 0.1, effect: -0.8 },
      'worse',
      'Worse, by about 0.8 rating points.',
    ],
    ['a hair less than sure', { probability: 0.899, effect: 1.2 }, 'open', null],
    [
      'both ends of the bracket below what can be felt',
      { low80: -0.49, high80: 0.49 },
      'same',
      'No difference a rider would notice.',
    ],
    ['the low end could be felt', { low80: -0.5, high80: 0.3 }, 'open', null],
    ['the high end could be felt', { low80: -0.3, high80: 0.5 }, 'open', null],
  ] as const)('%s', (_, effect, state, words) => {
    const v = verdict(effect)
    expect(v.state).toBe(state)
    if (words) expect(v.words).toBe(words)
  })

  it.each([
    [1, 2, 1, 'Not yet: one more run is needed before it can be judged.'],
    [2, 1, 1, 'Not yet: one more run is needed before it can be judged.'],
    [1, 1, 2, 'Not yet: 2 more runs are needed before it can be judged.'],
    [0, 5, 2, 'Not yet: 2 more runs are needed before it can be judged.'],
  ])('is not spoken over %i and %i runs, however sure the numbers are', (a, b, more, words) => {
    const v = verdict({ probability: 0.6, effect: 3 }, a, b)
    expect([v.state, v.runsToSettle, v.words]).toEqual(['not-yet', more, words])
    expect(verdict({ probability: 0.999, effect: 3 }, a, b).state).toBe('not-yet')
  })

  it.each([
    [0.7, ' It leans toward better.'],
    [0.3, ' It leans toward worse.'],
    [0.69, ''],
    [0.31, ''],
  ])('says where %f leans, and only from seven in ten', (probability, lean) => {
    expect(verdict({ probability }, 1, 2).words.replace(/^.*judged\./, '')).toBe(lean)
  })
})

describe('runs until it is settled', () => {
  it('is as many as bring the half bracket under the difference: 1/a + 1/b falls as they are ridden in turns', () => {
    // From 2 + 2 (sum 1) a half bracket of 1 must come under 0.8: the sum must fall under 0.64. 3+2: 0.83, 3+3: 0.67, 4+3: 0.58.
    const v = verdict({ effect: 0.8, low80: -0.2, high80: 1.8, probability: 0.8 })
    expect(v.runsToSettle).toBe(3)
    expect(v.words).toBe('Still open; about 3 more runs would settle it. It leans toward better.')
  })
  it('goes to the thinner side first', () => {
    // From 6 + 2 (sum 0.667) by the second side alone: 6+3: 0.5; half 1 · √(0.5 / 0.667) = 0.866 < 0.87.
    expect(verdict({ effect: 0.87, low80: -0.13, high80: 1.87, probability: 0.8 }, 6, 2).runsToSettle).toBe(1)
    expect(verdict({ effect: 0.87, low80: -0.13, high80: 1.87, probability: 0.8 }, 2, 6).runsToSettle).toBe(1)
  })
  it('weighs a difference nobody would feel as the smallest that can be felt', () => {
    // Half 0.6 under 0.5: the sum must fall under 0.694: 3+3.
    expect(verdict({ effect: 0.05, low80: -0.55, high80: 0.65 }).runsToSettle).toBe(2)
  })
  it('takes a difference for the worse as it takes one for the better', () => {
    expect(verdict({ effect: -0.8, low80: -1.8, high80: 0.2, probability: 0.2 }).runsToSettle).toBe(3)
  })
  it('is not promised when a dozen runs would not do', () => {
    // From 2 + 2 to 8 + 8 the half shrinks to a half of itself: 1.0 to 0.5 is not under 0.5, 0.99 is.
    const far = verdict({ effect: 0, low80: -1, high80: 1 })
    expect(far.runsToSettle).toBeNull()
    expect(far.words).toBe('The runs scatter more than the two setups differ.')
    expect(verdict({ effect: 0, low80: -0.99, high80: 0.99 }).runsToSettle).toBe(12)
  })
  it('is none once the word is spoken', () => {
    expect(verdict({ probability: 0.95, effect: 1 }).runsToSettle).toBe(0)
  })
  it('is said in the singular for one', () => {
    expect(verdict({ effect: 0.87, low80: -0.13, high80: 1.87 }, 6, 2).words).toContain(
      'about one more run would',
    )
  })
})
