import { describe, expect, it } from 'vitest'
import { DayBuilder, fork, rearRebound, shock, analysisWith } from '../test/dayBuilder.ts'
import type { SetupSpace } from './dayHistory.ts'
import {
  coil,
  faultsOf,
  front,
  frontSpacers,
  rearHsc,
  start,
  withSag,
  without,
  type Case,
} from './test/fieldCase.ts'

const sagRight = { front: 20, rear: 30 }
const spaced = front(...fork.adjusters, frontSpacers)
const threeIn = { ...start, fs: 3 }
const coilRear: SetupSpace = {
  front: fork,
  rear: { ...shock, spring: 'coil', adjusters: [coil, rearRebound, rearHsc] },
}
const unused = (end: 'front' | 'rear', strength: 1 | 2 = 2) => ({
  word: 'unused-travel' as const,
  end,
  strength,
})
const bottoming = (end: 'front' | 'rear') => ({ word: 'bottoms' as const, end, strength: 2 as const })
/** Sag right; it bottoms, high-speed compression goes two clicks firmer, and it bottoms still. */
const firmerOnCoil = (rating: number, verdict: 1 | -1) =>
  withSag(
    new DayBuilder({ fp: 80, fc: 8, fr: 6, coil: 75, rr: 7, rh: 4 })
      .run(6, [bottoming('rear')])
      .change({ rh: 2 })
      .run(rating, [bottoming('rear')], { against: [1, verdict] })
      .history(),
    sagRight,
  )
const rearSagRead = (day: DayBuilder) => day.readSag('front', 20).readSag('rear', 30)
const answered = (answer: string) => ({ question: 'travel-due', end: 'front', answer }) as const

/** What the end of the stroke tells: travel that is never used, and bottoming that nobody put into a word. */
const cases: Case[] = [
  {
    day: 'Front bottoms and never uses it all, on one run; no ring was looked at',
    story: () => withSag(new DayBuilder().run(6, [bottoming('front'), unused('front')]).history(), sagRight),
    card: 'check-first',
    moves: [],
    says: /front ring.*cannot both be so/,
    why: 'They ask for opposite turns, and the ring tells which is so',
  },
  {
    day: 'The same twice and a third time, and still no ring',
    story: () =>
      withSag(
        new DayBuilder()
          .run(6, [bottoming('front'), unused('front')])
          .run(6, [bottoming('front'), unused('front')])
          .run(6, [bottoming('front'), unused('front')])
          .history(),
        sagRight,
      ),
    card: ['change', 'ask', 'read'],
    never: /cannot both be so/,
    why: 'Who does not look after two cards is not asked a third time',
  },
  {
    day: 'The same, and the ring stands at 60 %',
    story: () =>
      withSag(
        new DayBuilder().run(6, [bottoming('front'), unused('front')], { ringFrontMm: 90 }).history(),
        sagRight,
      ),
    card: ['check-first', 'ask', 'change'],
    never: /cannot both be so|firmer/,
    why: 'The ring has told: there was travel left',
  },
  {
    day: 'The front bottoms on the lip and never uses it all in the roots',
    story: () =>
      withSag(
        new DayBuilder()
          .run(6, [
            { ...bottoming('front'), sectionId: 'lip' },
            { ...unused('front'), sectionId: 'roots' },
          ])
          .history(),
        sagRight,
      ),
    card: ['change', 'ask', 'read'],
    never: /cannot both be so/,
    why: 'On other ground both may be so',
  },
  {
    day: 'The front bottoms, the rear never uses it all',
    story: () => withSag(new DayBuilder().run(6, [bottoming('front'), unused('rear')]).history(), sagRight),
    card: ['change', 'ask', 'read'],
    never: /cannot both be so/,
    why: 'Two ends are two things',
  },
  {
    day: 'Front never uses it all, sag right, 3 of 5 spacers, nobody asked yet',
    bike: spaced,
    story: () => withSag(new DayBuilder(threeIn).run(6.5, [unused('front')]).history(), sagRight),
    card: 'ask',
    leads: /1 spacer less.*leave it alone/,
    why: 'Without a hit that was big enough, travel that is left says nothing',
  },
  {
    day: 'The same, and there was a big hit',
    bike: spaced,
    story: () =>
      withSag(
        new DayBuilder(threeIn).run(6.5, [unused('front')], { answers: [answered('big-hit')] }).history(),
        sagRight,
      ),
    card: 'change',
    moves: ['front spacers 3→2 less', 'front pressure 80→81 firmer'],
    says: /Sag is right/,
    why: 'With the right sag it is ramp: a spacer comes out, and the air that keeps the sag goes in',
  },
  {
    day: 'The same, and nothing was that big',
    bike: spaced,
    story: () =>
      withSag(
        new DayBuilder(threeIn).run(6.5, [unused('front')], { answers: [answered('no-big-hit')] }).history(),
        sagRight,
      ),
    card: 'leave-it',
    moves: [],
    says: /bigger hit/,
    why: 'The last of the travel is for the day the hit comes',
  },
  {
    day: 'Nothing was that big, but it also washes in front',
    bike: spaced,
    story: () =>
      withSag(
        new DayBuilder(threeIn)
          .run(6, [unused('front'), { word: 'washes-out', end: 'front' }], {
            answers: [answered('no-big-hit')],
          })
          .history(),
        sagRight,
      ),
    card: ['ask', 'change', 'check-first', 'read'],
    never: /bigger hit|spacer/i,
    why: 'Another complaint is not answered by leaving the travel alone',
  },
  {
    day: 'Two runs, ring at 100 and 102 of 150, nobody could say of a hit, sag right, 3 spacers',
    bike: spaced,
    story: () =>
      withSag(
        new DayBuilder(threeIn)
          .run(6.5, [unused('front')], { ringFrontMm: 100, answers: [answered('cannot-say')] })
          .run(6.5, [unused('front')], { ringFrontMm: 102 })
          .history(),
        sagRight,
      ),
    card: 'change',
    moves: ['front spacers 3→2 less', 'front pressure firmer'],
    never: /softer \(|pressure, \d+ psi softer/,
    why: 'Air out of a fork with the right sag only makes it sit deeper',
  },
  {
    day: 'A big hit, sag right, no spacer left to take, a high-speed dial',
    bike: front(...fork.adjusters, frontSpacers, { ...rearHsc, id: 'fh' }),
    story: () =>
      withSag(
        new DayBuilder({ ...start, fs: 0, fh: 3 })
          .run(6.5, [unused('front')], { answers: [answered('big-hit')] })
          .history(),
        sagRight,
      ),
    card: 'change',
    moves: ['front high-speed compression 3→4 softer'],
    why: 'What stops it before the end is the damper then',
  },
  {
    day: 'A big hit, sag never read',
    bike: spaced,
    story: () =>
      new DayBuilder(threeIn).run(6.5, [unused('front')], { answers: [answered('big-hit')] }).history(),
    card: 'read',
    moves: [],
    says: /Read the front sag first/,
    why: 'Shallow: spring; right: ramp. A minute tells',
  },
  {
    day: 'A big hit, sag 13 % for 20',
    bike: spaced,
    story: () =>
      withSag(
        new DayBuilder(threeIn).run(6.5, [unused('front')], { answers: [answered('big-hit')] }).history(),
        { front: 13, rear: 30 },
      ),
    card: 'change',
    moves: ['front pressure softer'],
    why: 'The spring goes to its target before its ramp is touched',
  },
  {
    day: 'Held back, and it never used it all',
    bike: spaced,
    story: () =>
      withSag(
        new DayBuilder(threeIn)
          .run(6.5, [unused('front')], {
            effort: 'held-back',
            answers: [answered('big-hit')],
          })
          .history(),
        sagRight,
      ),
    card: 'repeat',
    moves: [],
    says: /usual pace/,
    why: 'Who holds back leaves travel whatever is fitted',
  },
  {
    day: 'Rear never uses it all, rated 8.5, only mildly said, sag right',
    story: () => withSag(new DayBuilder().run(8.5, [unused('rear', 1)]).history(), sagRight),
    card: 'ask',
    never: /pressure.*softer/i,
    why: 'A liked ride is not let down for travel that nothing asked for',
  },
  {
    day: 'Four bottom-outs at the rear counted by ear, not a word, sag right, 1 of 3 spacers',
    story: () => withSag(new DayBuilder().run(6.5, [], { heardBottomsRear: 4 }).history(), sagRight),
    card: 'change',
    moves: ['rear spacers 1→2 more', 'rear pressure softer'],
    says: /4 bottom-outs at the rear counted by ear/,
    why: 'What was counted was heard, whether it was put into a word or not',
  },
  {
    day: 'Four counted by ear, sag never read',
    story: () => new DayBuilder().run(6.5, [], { heardBottomsRear: 4 }).history(),
    card: 'read',
    moves: [],
    says: /Read the rear sag first/,
    why: 'Deep or right: the answer decides between spring and spacer',
  },
  {
    day: 'Two counted by ear, ridden all out',
    story: () =>
      withSag(new DayBuilder().run(7, [], { heardBottomsRear: 2, effort: 'all-out' }).history(), sagRight),
    card: ['change', 'ask', 'repeat', 'read'],
    never: /spacer/i,
    why: 'Ridden all out, the end may be found twice',
  },
  {
    day: 'Four counted by ear, and rated 8.5 all the same',
    story: () => withSag(new DayBuilder().run(8.5, [], { heardBottomsRear: 4 }).history(), sagRight),
    card: ['change', 'ask', 'repeat', 'read', 'leave-it'],
    never: /spacer/i,
    why: 'Who likes it so is not sent to the workshop',
  },
  {
    day: 'The rear ring at the end twice, rated 7, sag right',
    story: () =>
      withSag(
        new DayBuilder().run(7, [], { ringRearMm: 55 }).run(7, [], { ringRearMm: 55 }).history(),
        sagRight,
      ),
    card: 'change',
    moves: ['rear spacers 1→2 more', 'rear pressure softer'],
    says: /ring stood at the end on runs 1 and 2/,
    why: 'The right sag stays; the end gets its ramp',
  },
  {
    day: 'The rear ring at the end once',
    story: () => withSag(new DayBuilder().run(7, [], { ringRearMm: 55 }).history(), sagRight),
    card: ['change', 'ask', 'read', 'repeat'],
    never: /spacer/i,
    why: 'Once may have been one bad landing',
  },
  {
    day: 'The ring at the end twice, but a sensor says 88 %',
    story: () =>
      withSag(
        new DayBuilder()
          .run(7, [], { ringRearMm: 55, analysis: analysisWith({}, {}) })
          .run(7, [], { ringRearMm: 55, analysis: analysisWith({}, {}) })
          .history(),
        sagRight,
      ),
    card: ['change', 'ask', 'read', 'repeat', 'leave-it'],
    never: /spacer/i,
    why: 'A ring is pushed on when the bike is loaded; the sensor was there',
  },
  {
    day: 'Fork at the highest pressure it may have, dives, sag 28 % for 20',
    bike: { front: fork, rear: { ...shock, adjusters: without(shock.adjusters, 'rs') } },
    story: () =>
      withSag(new DayBuilder({ ...start, fp: 140 }).run(5, [{ word: 'dives', end: 'front' }]).history(), {
        front: 28,
      }),
    card: 'change',
    moves: ['front low-speed compression 8→7 firmer'],
    says: /pressure is at the highest that its unit may have/,
    never: /clicks are used up/,
    why: 'Air has no clicks, and a limit is not pumped past',
  },
  {
    day: 'A spacer went in, 6 and then 9 that “never uses it all”',
    story: () =>
      rearSagRead(
        new DayBuilder()
          .run(6, [bottoming('rear')])
          .change({ rs: 2, rp: 177 }, { linked: true })
          .run(9, [unused('rear', 1)])
          .answer({ question: 'travel-due', end: 'rear', answer: 'big-hit' }),
      ).history(),
    card: ['change', 'repeat', 'leave-it', 'ask'],
    never: /spacer/i,
    why: 'What was three points worse a run ago is not built in again for one mild word',
  },
  {
    day: 'Out, worse, and back in again: the card had said so',
    story: () =>
      rearSagRead(
        new DayBuilder({ ...start, rs: 2, rp: 177 })
          .run(8, [unused('rear')])
          .change({ rs: 1, rp: 180 }, { linked: true })
          .run(6, [bottoming('rear')]),
      ).history(),
    card: ['change', 'go-back'],
    says: /spacers, 1 spacer more|Go back to run 1/,
    why: 'The travel was kept for that hit',
  },
  {
    day: 'Out, worse, back in, and once more “never uses it all”',
    story: () =>
      rearSagRead(
        new DayBuilder({ ...start, rs: 2, rp: 177 })
          .run(8, [unused('rear')])
          .change({ rs: 1, rp: 180 }, { linked: true })
          .run(6.5, [bottoming('rear')])
          .change({ rs: 2, rp: 177 }, { source: 'revert', linked: true })
          .run(7.5, [unused('rear')])
          .answer({ question: 'travel-due', end: 'rear', answer: 'big-hit' }),
      ).history(),
    card: ['change', 'repeat', 'leave-it', 'ask', 'check-first'],
    never: /1 spacer less/i,
    why: 'The day would go round in a circle',
  },
  {
    day: 'In, worse, back out, and it bottoms again',
    story: () =>
      rearSagRead(
        new DayBuilder()
          .run(7, [bottoming('rear')])
          .change({ rs: 2, rp: 177 }, { linked: true })
          .run(5.5, [{ word: 'harsh-everywhere', end: 'rear', strength: 2 }])
          .change({ rs: 1, rp: 180 }, { source: 'revert', linked: true })
          .run(7, [bottoming('rear')]),
      ).history(),
    card: ['change', 'repeat', 'leave-it', 'ask', 'check-first'],
    never: /1 spacer more|No spacer is left/i,
    why: 'The same circle the other way round',
  },
  {
    day: 'Coil, bottoms with the right sag; two clicks of high-speed compression firmer: worse, and bottoms still',
    story: () => firmerOnCoil(5.5, -1),
    bike: coilRear,
    card: ['go-back', 'repeat', 'change', 'ask'],
    never: /high-speed compression, \d clicks? firmer|spacer is left/i,
    why: 'What was just worse is not turned one further by the book',
  },
  {
    day: 'The same, and two clicks firmer was better: still bottoms',
    story: () => firmerOnCoil(6.5, 1),
    bike: coilRear,
    card: 'change',
    moves: ['rear high-speed compression firmer'],
    never: /spacer is left/i,
    why: 'It helped; and in a coil shock there never was a spacer',
  },
  {
    day: 'Falls through at the right sag; no low-speed dial, a spacer may still go in',
    story: () =>
      withSag(
        new DayBuilder().run(6, [{ word: 'blows-through', end: 'rear', strength: 2 }]).history(),
        sagRight,
      ),
    card: ['change', 'ask'],
    never: /pressure, ([6-9]|\d\d) psi firmer/i,
    why: 'What only stands in, on a spring that is right, is turned a little, not by a whole step',
  },
]

describe('the end of the stroke', () => {
  it.each(cases)('$day: $why', (c) => {
    expect(faultsOf(c)).toEqual([])
  })
})
