import { describe, expect, it } from 'vitest'
import type { FeelWord, Mark } from '#contract/run'
import { outlookOf } from './decide.ts'
import { DayBuilder, rearPressure, rearRebound, space } from '../test/dayBuilder.ts'
import { faultsOf, rear, rearLever, rearSpacers, start, withSag, type Case } from './test/fieldCase.ts'

const said = (word: FeelWord, end: Mark['end'], strength: Mark['strength'] = 2) => [{ word, end, strength }]
const { rs: _in, ...spacersUnread } = start
const leverBike = rear(rearPressure, rearRebound, rearSpacers, rearLever)
const everyId = Object.keys(start)

/** What nobody has read, and levers that nobody has looked at. */
const cases: Case[] = [
  {
    day: '“Bottoms” behind, strong, sag right, nobody knows how many spacers are in',
    story: () =>
      withSag(new DayBuilder(spacersUnread).run(4, said('bottoms', 'rear', 3)).history(), {
        front: 20,
        rear: 30,
      }),
    card: 'read',
    moves: [],
    says: /rear spacers/i,
    never: /No spacer/,
    why: 'None noted is not none left',
  },
  {
    day: '“Never uses it all” behind on a big hit, sag right, spacers unread',
    story: () =>
      withSag(
        new DayBuilder(spacersUnread)
          .run(6, said('unused-travel', 'rear'))
          .answer({ question: 'travel-due', end: 'rear', answer: 'big-hit' })
          .history(),
        { front: 20, rear: 30 },
      ),
    card: 'read',
    moves: [],
    says: /rear spacers/i,
    why: 'The other way round',
  },
  {
    day: 'Every part assumed off a card, 9 and praised',
    story: () =>
      new DayBuilder()
        .assuming(...everyId)
        .run(9, said('good', 'both'))
        .history(),
    card: 'leave-it',
    moves: [],
    says: /read|count/i,
    never: /call it settled/,
    why: 'What nobody has counted cannot be found again: it is read before it is called settled',
  },
  {
    day: 'Nothing known of any part, 9 and praised',
    story: () => new DayBuilder({}).run(9, said('good', 'both')).history(),
    card: 'leave-it',
    never: /call it settled/,
    says: /read|count/i,
    why: 'The same',
  },
  {
    day: 'Lever firm, 7, and nothing said',
    bike: leverBike,
    story: () => new DayBuilder({ ...start, rl: 1 }).run(7).history(),
    card: 'change',
    moves: ['rear lever more open'],
    why: 'A free look before any dial: behind a firm lever dials do little',
  },
  {
    day: 'Lever firm, 8.5 and praised',
    bike: leverBike,
    story: () => new DayBuilder({ ...start, rl: 1 }).run(8.5, said('good', 'both')).history(),
    card: ['leave-it', 'repeat'],
    moves: [],
    why: 'Who likes it firm rides it firm',
  },
  {
    day: 'Lever unread, “harsh everywhere” behind, strong',
    bike: leverBike,
    story: () => new DayBuilder(start).run(5, said('harsh-everywhere', 'rear', 3)).history(),
    card: 'ask',
    says: /lever/i,
    why: 'A look that costs nothing comes before every other question',
  },
]

describe('cases of what nobody has read', () => {
  it.each(cases)('$day: $why', (c) => expect(faultsOf(c)).toEqual([]))
  it('parts that were only assumed are not all read', () => {
    const day = () => new DayBuilder().run(8, said('good', 'both'))
    expect(outlookOf(day().history(), space).allRead).toBe(true)
    expect(outlookOf(day().assuming('rr').history(), space).allRead).toBe(false)
  })
})
