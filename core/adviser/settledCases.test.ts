import { describe, expect, it } from 'vitest'
import { DayBuilder, space } from '../test/dayBuilder.ts'
import type { DayHistory } from './dayHistory.ts'
import { summarise } from './summary.ts'
import { faultsOf, type Case } from './test/fieldCase.ts'

const good = { word: 'good', end: 'both' } as const
/** Settled as it stands now. */
const settled = (d: DayBuilder): DayHistory => ({
  ...d.history(),
  settledSetupId: d.history().currentSetupId,
})
const wake = /It was settled; now it no longer is/

const cases: Case[] = [
  {
    day: 'Settled at 8, then “kicks” once at 7',
    story: () =>
      settled(
        new DayBuilder()
          .run(8, [good])
          .run(8, [good])
          .run(7, [{ word: 'kicks' }]),
      ),
    card: 'leave-it',
    says: /Settled/,
    why: 'One bad run is a bad run',
  },
  {
    day: 'One ride, a 9, and not a word',
    story: () => new DayBuilder().run(9).history(),
    card: 'repeat',
    moves: [],
    says: /Rated 9, once/,
    why: 'So high a number is made sure of before a dial is turned to find out',
  },
  {
    day: 'The same, on settings that were turned once: 7, then a 9.5',
    story: () => new DayBuilder().run(7).change({ fr: 5 }).run(9.5).history(),
    card: ['repeat', 'leave-it'],
    moves: [],
    why: 'What is liked so much is not left after one ride',
  },
  {
    day: 'A 9, but “harsh everywhere” in front',
    story: () => new DayBuilder().run(9, [{ word: 'harsh-everywhere', end: 'front' }]).history(),
    card: ['ask', 'change', 'separating-test', 'read', 'check-first', 'leave-it'],
    never: /once\. Whether/,
    why: 'What is complained of is answered, however good the number',
  },
  {
    day: 'One ride, a 7, and not a word',
    story: () => new DayBuilder().run(7).history(),
    card: ['change', 'separating-test', 'read', 'ask', 'tell-the-feel', 'repeat'],
    never: /Rated 7, once/,
    why: 'A middling number is no praise',
  },
  {
    day: 'Settled at 8.5, then 7, 6 and 5.5, with another word each time',
    story: () =>
      settled(
        new DayBuilder()
          .run(8.5, [good])
          .run(7, [{ word: 'kicks' }])
          .run(6, [{ word: 'dives', end: 'front' }])
          .run(5.5, [{ word: 'harsh-everywhere', end: 'front' }]),
      ),
    card: 'check-first',
    says: wake,
    why: 'Riders seldom say the same word twice; the numbers fall all the same',
  },
  {
    day: 'Settled at 8.5, then 6 and 6 without a word',
    story: () => settled(new DayBuilder().run(8.5, [good]).run(8.5).run(6).run(6)),
    card: 'check-first',
    says: /No word on runs 3 and 4, rated 6 and 6; before, 8.5/,
    why: 'Silence does not make it good again',
  },
  {
    day: 'Settled at 8.5, then one 6 without a word',
    story: () => settled(new DayBuilder().run(8.5, [good]).run(8.5).run(6)),
    card: 'leave-it',
    why: 'One bad run is a bad run',
  },
  {
    day: 'Settled at 8.5, then “bounces on”, strong, at 4',
    story: () =>
      settled(new DayBuilder().run(8.5, [good]).run(4, [{ word: 'pogo', end: 'rear', strength: 3 }])),
    card: 'check-first',
    says: wake,
    why: 'That strong and that far down is not waited for a second time',
  },
  {
    day: 'Settled at 8.5, then “bounces on”, strong, at 7.5',
    story: () =>
      settled(new DayBuilder().run(8.5, [good]).run(7.5, [{ word: 'pogo', end: 'rear', strength: 3 }])),
    card: 'leave-it',
    why: 'It was liked all the same',
  },
  {
    day: 'Settled, and a dial was turned since',
    story: () => {
      const d = new DayBuilder().run(8.5, [good]).run(8.5, [good])
      const at = d.history().currentSetupId
      return { ...d.change({ rr: 9 }).history(), settledSetupId: at }
    },
    card: 'ride-it',
    says: /New: Rear rebound/,
    why: 'What is on the bike is not what was settled',
  },
  {
    day: 'Settled, turned since, and turned back',
    story: () => {
      const d = new DayBuilder().run(8.5, [good]).run(8.5, [good])
      const at = d.history().currentSetupId
      return { ...d.change({ rr: 9 }).change({ rr: 7 }).history(), settledSetupId: at }
    },
    card: 'leave-it',
    says: /Settled/,
    why: 'It stands where it was settled',
  },
  {
    day: 'Race day, “bounces on”, strong, twice, at 4',
    story: () => ({
      ...new DayBuilder()
        .run(4, [{ word: 'pogo', end: 'rear', strength: 3 }])
        .run(4, [{ word: 'pogo', end: 'rear', strength: 3 }])
        .history(),
      purpose: 'race' as const,
    }),
    card: 'check-first',
    moves: [],
    says: /Not as it should be.*strong, on runs 1 and 2/,
    why: 'Nothing new is tried, and nobody is sent down on it either',
  },
  {
    day: 'Race day, “bounces on” twice, not strong',
    story: () => ({
      ...new DayBuilder()
        .run(6, [{ word: 'pogo', end: 'rear' }])
        .run(6, [{ word: 'pogo', end: 'rear' }])
        .history(),
      purpose: 'race' as const,
    }),
    card: 'leave-it',
    why: 'Race day: known settings are kept',
  },
]

describe('a settled day, and a race', () => {
  it.each(cases)('$day: $why', (c) => {
    expect(faultsOf(c)).toEqual([])
  })

  it('is not called settled in words where something was turned since', () => {
    const d = new DayBuilder().run(8.5, [good]).run(8.5, [good])
    const at = d.history().currentSetupId
    const known = summarise({ ...d.change({ rr: 9 }).history(), settledSetupId: at }, space)
    expect(known.settled).toBe(false)
    expect(known.words).toMatch(/^Something was turned since it was settled/)
  })
})
