import { describe, expect, it } from 'vitest'
import type { Adjuster } from '#contract/adjuster'
import type { Answer } from '#contract/question'
import type { FeelWord } from '#contract/run'
import type { SetupSpace } from './dayHistory.ts'
import { DayBuilder, fork, frontLsc, frontRebound, rearRebound, shock } from '../test/dayBuilder.ts'
import { base, coil, faultsOf, withSag, type Case } from './test/fieldCase.ts'

const hardtail: SetupSpace = { front: fork, rear: null }
const onHardtail = { fp: 80, fc: 8, fr: 6 }

const preload = (id: string): Adjuster => ({
  ...base,
  id,
  kind: 'turn',
  role: 'preload',
  turns: 4,
  stepTurns: 0.25,
  countBase: 'open',
})
/** A coil fork whose collar screws in by 1.5 mm a turn; one spring comes with it. */
const coilFork: SetupSpace = {
  front: { ...fork, spring: 'coil', adjusters: [preload('fpre'), frontLsc, frontRebound] },
  rear: shock,
}
const onCoilFork = (turnsIn: number) => ({ fpre: 4 - turnsIn, fc: 8, fr: 6, rp: 180, rr: 7, rs: 1 })
const coilShock: SetupSpace = {
  front: fork,
  rear: { ...shock, spring: 'coil', adjusters: [coil, preload('rpre'), rearRebound] },
}
const onCoilShock = (turnsIn: number, rate = 75) => ({
  fp: 80,
  fc: 8,
  fr: 6,
  coil: rate,
  rpre: 4 - turnsIn,
  rr: 7,
})

const threeWay: Adjuster = {
  ...base,
  id: 'rr',
  kind: 'click',
  role: 'rebound',
  clicks: 2,
  step: 1,
  countBase: 'open',
}

/** Sag right at both ends, the front low-speed dial so far from closed; its open stop is 16, and there is no high-speed one. */
const edges = (fc: number, runs = 1) => {
  const day = new DayBuilder({ fp: 80, fc, fr: 6, rp: 180, rr: 7, rs: 1 })
  for (let k = 0; k < runs; k++) day.run(5, [{ word: 'harsh-square-edge', end: 'front', strength: 2 }])
  return withSag(day.history(), { front: 20, rear: 30 })
}

/** Every hand dial one click before its open or its closed stop; one word of the front, and what was answered. */
const nearStops = (at: 'open' | 'closed', word: FeelWord, ...answers: Answer[]) => {
  const dials = at === 'open' ? { fc: 15, fr: 11, rr: 13 } : { fc: 1, fr: 1, rr: 1 }
  const day = new DayBuilder({ fp: 80, rp: 180, rs: 1, ...dials }).run(5, [
    { word, end: 'front', strength: 2 },
  ])
  for (const a of answers) day.answer(a)
  return day.history()
}

const cases: Case[] = [
  {
    day: 'All dials nearly open; the front “dead” out of fast turns',
    story: () =>
      nearStops('open', 'dead', { question: 'stays-down-when', end: 'front', answer: 'out-of-fast-turns' }),
    card: ['change', 'read', 'check-first'],
    never: /firmer|rear (rebound|pressure)/i,
    why: 'That most dials are not found at their stops is no reason to turn this one against the word',
  },
  {
    day: 'All dials nearly closed; the front “bounces on”, rated 5',
    story: () => nearStops('closed', 'pogo'),
    card: ['change', 'read', 'check-first', 'ask'],
    never: /rear rebound|faster/i,
    why: 'Nothing was said of the rear; and what bounces is not made faster',
  },
  {
    day: 'All dials nearly open; the front skates, tyres as before, sag right',
    story: () =>
      withSag(
        nearStops(
          'open',
          'nervous',
          { question: 'nervous-where', end: 'front', answer: 'on-the-ground' },
          { question: 'tyres-now', end: null, answer: 'as-before' },
        ),
        { front: 20, rear: 30 },
      ),
    card: ['change', 'check-first'],
    never: /firmer|rear rebound/i,
    why: 'Compression is not closed for what skates, and the rear is not asked',
  },
  {
    day: 'Front “harsh on edges”, no high-speed dial, low-speed two clicks before its open stop',
    story: () => edges(14),
    card: 'change',
    moves: ['front low-speed compression softer'],
    why: 'What stands in for it has two clicks left; nothing speaks for the rear',
  },
  {
    day: 'The same, one click before its stop',
    story: () => edges(15),
    card: 'change',
    moves: ['front low-speed compression softer'],
    why: 'The last click, and never one firmer to find out',
  },
  {
    day: 'The same, at its stop',
    story: () => edges(16),
    card: 'check-first',
    moves: [],
    says: /no click left this way.*at its stop/,
    why: 'Said so, before anything at the other end is turned for it',
  },
  {
    day: '“Harsh everywhere” in front, on square edges when asked; one click before the open stop',
    story: () =>
      withSag(
        new DayBuilder({ fp: 80, fc: 15, fr: 6, rp: 180, rr: 7, rs: 1 })
          .run(5, [{ word: 'harsh-everywhere', end: 'front', strength: 2 }])
          .answer({ question: 'harsh-on', end: 'front', answer: 'square-edges' })
          .history(),
        { front: 20, rear: 30 },
      ),
    card: ['change', 'check-first'],
    never: /firmer|rear/i,
    why: 'What stands in for the dial that is not there is never turned against the cause',
  },
  {
    day: 'Front “harsh on edges” on two runs, at the stop: the card was read, and they ride on',
    story: () => edges(16, 3),
    card: ['change', 'check-first'],
    never: /rear|firmer/i,
    why: 'What is tried next is tried where it was complained of',
  },
  {
    day: 'Hardtail, “kicks” behind, rated 5',
    bike: hardtail,
    story: () => new DayBuilder(onHardtail).run(5, [{ word: 'kicks', end: 'rear' }]).history(),
    card: 'check-first',
    moves: [],
    says: /rear tyre/i,
    why: 'Nothing springs there but the tyre: no fork mends a hard rear',
  },
  {
    day: 'Hardtail, “harsh everywhere” behind, strong, and the tyres were looked at',
    bike: hardtail,
    story: () =>
      new DayBuilder(onHardtail)
        .run(5, [{ word: 'harsh-everywhere', end: 'rear', strength: 3 }])
        .answer({ question: 'tyres-now', end: null, answer: 'as-before' })
        .history(),
    card: ['leave-it', 'check-first', 'repeat'],
    moves: [],
    never: /^Front/,
    why: 'What is left is the tyre and the rider’s legs, not the fork',
  },
  {
    day: 'Hardtail, “kicks” behind and “dives” in front',
    bike: hardtail,
    story: () =>
      withSag(
        new DayBuilder(onHardtail)
          .run(5, [
            { word: 'kicks', end: 'rear' },
            { word: 'dives', end: 'front', strength: 3 },
          ])
          .answer({ question: 'sinks-when', end: 'front', answer: 'on-the-brakes' })
          .history(),
        { front: 20 },
      ),
    card: 'change',
    moves: ['front low-speed compression firmer'],
    why: 'What is said of the fork is answered by the fork',
  },
  {
    day: 'Coil fork, sag read at 14 % for 20 with two turns of preload in, “never uses it all”',
    bike: coilFork,
    story: () =>
      withSag(new DayBuilder(onCoilFork(2)).run(6, [{ word: 'unused-travel', end: 'front' }]).history(), {
        front: 14,
        rear: 30,
      }),
    card: 'change',
    moves: ['front preload less'],
    says: /sag was read at 14 %/,
    why: 'Two turns of 1.5 mm are 2 of the 6 points: out with them before a damper is asked',
  },
  {
    day: 'The same with no preload in: only a softer spring is left',
    bike: coilFork,
    story: () =>
      withSag(new DayBuilder(onCoilFork(0)).run(6, [{ word: 'unused-travel', end: 'front' }]).history(), {
        front: 14,
        rear: 30,
      }),
    card: 'check-first',
    moves: [],
    says: /softer spring/,
    why: 'A collar that is out cannot go further out',
  },
  {
    day: 'Coil shock, sag 36 % for 30 with no preload: two turns are 5 points of 55 mm, and a firmer spring lies in the box',
    bike: coilShock,
    story: () =>
      withSag(new DayBuilder(onCoilShock(0)).run(6, [{ word: 'wallows', end: 'rear' }]).history(), {
        rear: 36,
        front: 20,
      }),
    card: 'change',
    moves: ['rear preload more'],
    says: /near 30|near 31/,
    why: 'The collar brings it to its target, and costs a minute; the spring would cost a workshop',
  },
  {
    day: 'Coil shock, sag 44 % for 30: the collar is not enough',
    bike: coilShock,
    story: () =>
      withSag(new DayBuilder(onCoilShock(0)).run(6, [{ word: 'wallows', end: 'rear' }]).history(), {
        rear: 44,
        front: 20,
      }),
    card: 'change',
    moves: ['rear spring firmer'],
    why: 'Preload moves where it rests, not how firm it is',
  },
  {
    day: 'Coil shock on its firmest spring, sag 44 %: what the collar can do is little',
    bike: coilShock,
    story: () =>
      withSag(new DayBuilder(onCoilShock(0, 80)).run(6, [{ word: 'wallows', end: 'rear' }]).history(), {
        rear: 44,
        front: 20,
      }),
    card: 'check-first',
    moves: [],
    says: /firmer spring/,
    why: 'Nobody screws a collar in for half of it',
  },
  {
    day: 'Coil shock, firmest spring, two turns of preload in, sag 37 % for 30',
    bike: coilShock,
    story: () =>
      withSag(new DayBuilder(onCoilShock(2, 80)).run(6, [{ word: 'wallows', end: 'rear' }]).history(), {
        rear: 37,
        front: 20,
      }),
    card: 'check-first',
    moves: [],
    says: /firmer spring/,
    never: /preload/,
    why: 'Two turns are what a collar may have: more binds the spring',
  },
  {
    day: 'Air bike without a rebound dial, sag read right at both ends, “kicks” behind on single hits',
    bike: {
      front: { ...fork, adjusters: fork.adjusters.filter((a) => a.id === 'fp') },
      rear: { ...shock, adjusters: shock.adjusters.filter((a) => a.id === 'rp') },
    },
    story: () =>
      withSag(
        new DayBuilder({ fp: 80, rp: 180 })
          .run(5, [{ word: 'kicks', end: 'rear', strength: 3 }])
          .answer({ question: 'kicks-when', end: 'rear', answer: 'single-hits' })
          .history(),
        { front: 20, rear: 30 },
      ),
    card: ['check-first', 'leave-it', 'change'],
    never: /^Rear pressure, .* firmer/,
    why: 'A firmer spring throws harder where nothing holds it back',
  },
  {
    day: 'One dial of three places, all ridden: 4, 6.5, 5; back in the middle 6.5 and 6.5, “kicks” both times',
    bike: {
      front: { ...fork, adjusters: [] },
      rear: { ...shock, adjusters: [threeWay] },
    },
    story: () => {
      const kicks = [{ word: 'kicks', end: 'rear' } as const]
      return new DayBuilder({ rr: 1 })
        .run(6.5)
        .change({ rr: 0 })
        .run(4)
        .change({ rr: 2 })
        .run(5)
        .change({ rr: 1 })
        .run(6.5, kicks)
        .run(6.5, kicks)
        .history()
    },
    card: 'check-first',
    moves: [],
    says: /No dial left for this/,
    never: /Nothing more to learn/,
    why: 'The dial is where it is best, and the complaint stands: that is not “leave it until somebody complains”',
  },
]

describe('cases of bikes with few parts', () => {
  it.each(cases)('$day: $why', (c) => expect(faultsOf(c)).toEqual([]))
})
