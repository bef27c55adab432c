import { describe, expect, it } from 'vitest'
import { DayBuilder, fork, shock, space } from '../test/dayBuilder.ts'
import { cannotSay } from '../causes/questions.ts'
import { advise } from './advise.ts'
import { fittedOf, knownOf } from './decide.ts'
import { faultsOf, withSag, type Case } from './test/fieldCase.ts'

const right = { front: 20, rear: 30 }
const worse = (end: string) => ({ question: 'which-end', end: null, answer: end }) as const
/** Rated so, and not a word; then what was said when somebody asked which end was worse. */
const told = (end: string, rating = 4) => new DayBuilder().run(rating).answer(worse(end))

const cases: Case[] = [
  {
    day: 'Rated 4, not a word, sag never read',
    story: () => new DayBuilder().run(4).history(),
    card: 'ask',
    says: /Which end was worse/,
    leads: /front.*rear/,
    why: 'A breath is cheaper than a reading at either end',
  },
  {
    day: 'The same, and it was the front',
    story: () => told('front').history(),
    card: 'read',
    says: /Read the front sag/,
    why: 'The spring of the end that was worse',
  },
  {
    day: 'The same, and it was the rear',
    story: () => told('rear').history(),
    card: 'read',
    says: /Read the rear sag/,
    why: 'The spring of the end that was worse',
  },
  {
    day: 'The same, and nobody can say',
    story: () => told(cannotSay).history(),
    card: 'read',
    never: /Which end/,
    why: 'Asked once; then what a ring tells',
  },
  {
    day: 'Rated 4, not a word, sag right at both ends',
    story: () => withSag(new DayBuilder().run(4).history(), right),
    card: 'ask',
    says: /Which end was worse/,
    why: 'Seven dials, and nothing points at any',
  },
  {
    day: 'The same, and it was the rear',
    story: () => withSag(told('rear').history(), right),
    card: 'change',
    says: /^Rear/,
    never: /Front/,
    why: 'Nothing is tried out at the end that was the better one',
  },
  {
    day: 'The same, and it was the front',
    story: () => withSag(told('front').history(), right),
    card: 'change',
    says: /^Front/,
    never: /Rear/,
    why: 'Nothing is tried out at the end that was the better one',
  },
  {
    day: 'It was the front; a front dial was turned, and the next ride is as poor and as silent',
    story: () => withSag(told('front').change({ fc: 10 }).run(4).history(), right),
    card: ['ask', 'change', 'repeat'],
    never: /^Rear/,
    why: 'Other settings, another ride: it may be asked once more, and points no elsewhere yet',
  },
  {
    day: 'Nobody could say; a dial was turned, and the next ride is said to be the same, as poor and as silent',
    story: () =>
      withSag(
        told(cannotSay)
          .change({ fc: 10 })
          .run(4, [], { against: [1, 0] })
          .history(),
        right,
      ),
    card: ['change', 'repeat', 'read', 'go-back'],
    never: /Which end/,
    why: 'Who could not say is not asked all day',
  },
  {
    day: 'Told twice today; the third ride is said to be the same, as poor and as silent',
    story: () =>
      withSag(
        told('front')
          .change({ fc: 10 })
          .run(4)
          .answer(worse('rear'))
          .change({ rr: 9 })
          .run(4, [], { against: [2, 0] })
          .history(),
        right,
      ),
    card: ['change', 'repeat', 'read', 'go-back'],
    never: /Which end/,
    why: 'Nobody likes to be questioned',
  },
  {
    day: 'Rated 4: “kicks”, rear',
    story: () => new DayBuilder().run(4, [{ word: 'kicks', end: 'rear' }]).history(),
    card: 'ask',
    never: /Which end/,
    why: 'Said already',
  },
  {
    day: 'Rated 7.5, not a word',
    story: () => new DayBuilder().run(7.5).history(),
    card: ['repeat', 'change', 'read', 'leave-it'],
    never: /Which end/,
    why: 'What was not bad has no worse end to speak of',
  },
  {
    day: 'Rated 4, not a word, no spring behind',
    bike: { front: fork, rear: null },
    story: () => new DayBuilder().run(4).history(),
    card: ['read', 'change', 'repeat', 'check-first'],
    never: /Which end/,
    why: 'There is one end',
  },
  {
    day: 'The same, sag read right',
    bike: { front: fork, rear: null },
    story: () => withSag(new DayBuilder().run(4).history(), { front: 20 }),
    card: 'change',
    never: /pressure/,
    why: 'To find out, a spring that is right is not the first to be pumped',
  },
  {
    day: 'Rated 4, not a word, rear sag read at 38 % for 30',
    story: () => withSag(new DayBuilder().run(4).history(), { front: 20, rear: 38 }),
    card: 'change',
    moves: ['rear pressure firmer'],
    why: 'A spring that is wrong needs no question',
  },
  {
    day: 'Rated 6, not a word, held back, and the rear ring stands at the end of its travel',
    story: () => new DayBuilder().run(6, [], { ringRearMm: 55, effort: 'held-back' }).history(),
    card: 'read',
    says: /Read the rear sag first.*ring shows 100 %/,
    why: 'The ring says which end',
  },
  {
    day: 'Rated 6, not a word, all out, and the front ring leaves half of its travel',
    story: () => new DayBuilder().run(6, [], { ringFrontMm: 80, effort: 'all-out' }).history(),
    card: 'read',
    says: /Read the front sag first.*ring shows 53 %/,
    why: 'The ring says which end',
  },
  {
    day: 'Rated 5, “good here”',
    story: () => new DayBuilder().run(5, [{ word: 'good', end: 'both' }]).history(),
    card: 'ask',
    says: /rated 5, and nothing was complained of/,
    why: 'Praise of one thing, and a poor ride: the rest was not said',
  },
  {
    day: 'Race day, rated 4, not a word',
    story: () => ({ ...new DayBuilder().run(4).history(), purpose: 'race' }),
    card: ['leave-it', 'repeat', 'read', 'change'],
    never: /Which end/,
    why: 'On race day nothing new is looked for',
  },
]

describe('cases of a poor ride without a word', () => {
  it.each(cases)('$day: $why', (c) => expect(faultsOf(c)).toEqual([]))
})

describe('which end was worse', () => {
  /** Points that the dials of an end are expected to lose where they stand. */
  const lossOf = (day: DayBuilder, end: 'front' | 'rear') => {
    const { surface, dials } = knownOf(withSag(day.history(), right), space)
    const { data } = fittedOf(withSag(day.history(), right), space)
    return dials.reduce((sum, d, k) => {
      if (d.end !== end) return sum
      const z = data.points[0].at[k]
      let off = 0
      for (let i = 0; i < surface.samples; i++)
        off += surface.steepness[i * dials.length + k] * (z - surface.best[i * dials.length + k]) ** 2
      return sum + off / surface.samples
    }, 0)
  }
  it('is believed of that end, against the other one', () => {
    const share = (end: string) => {
      const [front, rear] = [lossOf(told(end), 'front'), lossOf(told(end), 'rear')]
      return front / (front + rear)
    }
    expect(share('front')).toBeGreaterThan(share(cannotSay) + 0.05)
    expect(share('rear')).toBeLessThan(share(cannotSay) - 0.05)
    expect(Math.abs(share('both') - share(cannotSay))).toBeLessThan(0.08)
  })
  it('names no cause by itself: none of them leads', () => {
    for (const end of ['front', 'rear', 'both']) {
      const { causes } = advise(withSag(told(end).history(), right), { front: fork, rear: shock })
      for (const c of causes) if (c.end !== null) expect(c.probability, `${end} ${c.kind}`).toBeLessThan(0.2)
    }
  })
})
