import { describe, expect, it } from 'vitest'
import type { Setup } from '#contract/setup'
import { cannotSay } from '../causes/questions.ts'
import { analysisWith, DayBuilder, fork, shock, space } from '../test/dayBuilder.ts'
import type { DayHistory } from './dayHistory.ts'
import { summarise } from './summary.ts'
import {
  coil,
  foundAt,
  front,
  frontSpacers,
  faultsOf,
  rear,
  rearHsc,
  rearLever,
  rearSpacers,
  start,
  without,
  withSag,
  type Case,
} from './test/fieldCase.ts'

/** The rear kicked, two clicks helped, and two runs were liked. */
const likedTwice = () =>
  new DayBuilder()
    .run(5.5, [{ word: 'kicks' }])
    .change({ rr: 5 })
    .run(8.5, [{ word: 'good', end: 'both' }])
    .run(9, [{ word: 'good', end: 'both' }])

/** Rated low, not a word, and nobody can say which end was worse. */
const silent = () => new DayBuilder().run(4.5).answer({ question: 'which-end', end: null, answer: cannotSay })

/** Where everything stands but one part, which nobody has read. */
const withoutPart = (id: keyof typeof start) =>
  Object.fromEntries(Object.entries(start).filter(([part]) => part !== id))

/** A day on which a part was said not to be known any more, after its last run. */
function unsureOf(id: string, h: DayHistory): DayHistory {
  const now = h.setups[h.setups.length - 1]
  const unsure: Setup = {
    ...now,
    id: 'unsure',
    parentId: now.id,
    positions: now.positions.filter((p) => p.adjusterId !== id),
    reason: { ...now.reason, source: 'reading', linked: true },
  }
  return { ...h, setups: [...h.setups, unsure], currentSetupId: unsure.id }
}

/** Days as practitioners tell them, the card a good mechanic would hand over, and his reason. */
const cases: Case[] = [
  {
    day: 'Rear rebound was opened one click after run 1; nobody has ridden since',
    story: () =>
      new DayBuilder()
        .run(6, [{ word: 'harsh-gets-worse' }])
        .change({ rr: 8 })
        .history(),
    card: 'ride-it',
    moves: [],
    says: /Rear rebound 7 → 8|rebound .* faster/,
    why: 'Nothing can be said of a turn that was not ridden',
  },
  {
    day: 'A probe was set after run 1, not ridden',
    story: () =>
      new DayBuilder()
        .run(5, [{ word: 'kicks' }])
        .change({ rr: 6 }, { source: 'proposal' })
        .history(),
    card: 'ride-it',
    moves: [],
    why: 'A probe is a question to the trail; the next card waits for the answer',
  },
  {
    day: 'Probe ridden, then turned on without a ride',
    story: () =>
      new DayBuilder()
        .run(5, [{ word: 'kicks' }])
        .change({ rr: 6 })
        .run(6, [{ word: 'kicks', strength: 1 }])
        .change({ rr: 5 })
        .history(),
    card: 'ride-it',
    moves: [],
    why: 'The last turn is unridden, whatever was ridden before it',
  },
  {
    day: 'Rear lever at Firm, harsh everywhere, travel unused',
    bike: rear(...shock.adjusters, rearLever),
    story: () =>
      new DayBuilder({ ...start, rl: 1 })
        .run(5, [{ word: 'harsh-everywhere' }, { word: 'unused-travel' }])
        .history(),
    card: 'change',
    moves: ['rear lever 1→0'],
    says: /lever stands at “Firm”/,
    why: 'A lever that is not open explains it before any dial',
  },
  {
    day: 'Rear lever at Firm, kicks',
    bike: rear(...shock.adjusters, rearLever),
    story: () => new DayBuilder({ ...start, rl: 1 }).run(4, [{ word: 'kicks', strength: 3 }]).history(),
    card: 'change',
    moves: ['rear lever 1→0'],
    why: 'Kicks behind a firm lever are the lever’s until it is open',
  },
  {
    day: 'Rear lever open, harsh everywhere',
    bike: rear(...shock.adjusters, rearLever),
    story: () => new DayBuilder({ ...start, rl: 0 }).run(5, [{ word: 'harsh-everywhere' }]).history(),
    card: ['ask', 'change', 'separating-test', 'check-first'],
    never: /lever/,
    why: 'An open lever is no news',
  },
  {
    day: 'Rear kicks, bench sag 36 % for 30, ring at the end',
    story: () =>
      withSag(new DayBuilder().run(5, [{ word: 'kicks' }], { ringRearMm: 54 }).history(), { rear: 36 }),
    card: 'change',
    moves: ['rear pressure firmer'],
    says: /sag was read at 36 %/,
    why: 'The spring goes to its target first; a damper cannot repair it',
  },
  {
    day: 'Rear kicks, bench sag 22 % for 30',
    story: () => withSag(new DayBuilder().run(5, [{ word: 'kicks' }]).history(), { rear: 22 }),
    card: 'change',
    moves: ['rear pressure softer'],
    why: 'Too firm is as wrong as too soft',
  },
  {
    day: 'Bench sag 36 % for 30, but rated 8.5 and praised',
    story: () => withSag(new DayBuilder().run(8.5, [{ word: 'good', end: 'both' }]).history(), { rear: 36 }),
    card: 'leave-it',
    moves: [],
    why: 'Who likes it so is left alone',
  },
  {
    day: 'Rear bottoms, sag right, 3 of 6 spacers',
    bike: rear(...without(shock.adjusters, 'rs'), rearSpacers),
    story: () =>
      withSag(new DayBuilder({ ...start, rs: 3 }).run(6, [{ word: 'bottoms' }]).history(), { rear: 30 }),
    card: 'change',
    moves: ['rear spacers 3→4', 'rear pressure softer'],
    why: 'Right sag and all travel used: more ramp, with the pressure of the same sag',
  },
  {
    day: 'Rear bottoms, sag right, 6 of 6 spacers, a high-speed dial',
    bike: rear(...without(shock.adjusters, 'rs'), rearSpacers, rearHsc),
    story: () =>
      withSag(new DayBuilder({ ...start, rs: 6, rh: 4 }).run(6, [{ word: 'bottoms' }]).history(), {
        rear: 30,
      }),
    card: 'change',
    moves: ['rear high-speed compression 4→3'],
    never: /spacers, 1 .*(less|fewer)/i,
    why: 'No spacer left: high-speed compression, with its price said; never a spacer less',
  },
  {
    day: 'Rear bottoms, sag right, 6 of 6 spacers and no high-speed dial',
    bike: rear(...without(shock.adjusters, 'rs'), rearSpacers),
    story: () =>
      withSag(new DayBuilder({ ...start, rs: 6 }).run(6, [{ word: 'bottoms' }]).history(), { rear: 30 }),
    card: 'change',
    moves: ['rear pressure firmer'],
    says: /No spacer and no high-speed dial is left.*costs grip/,
    why: 'Less sag, and the trade is said; never a spacer less',
  },
  {
    day: 'Rear bottoms, sag never read',
    story: () => new DayBuilder().run(6, [{ word: 'bottoms' }]).history(),
    card: 'read',
    moves: [],
    says: /sag/,
    why: 'Deep sag asks for a spring, right sag for a spacer: a minute decides',
  },
  {
    day: 'Rear bottoms for the third time, sag still not read',
    story: () =>
      new DayBuilder()
        .run(6, [{ word: 'bottoms' }])
        .run(6, [{ word: 'bottoms' }])
        .run(6, [{ word: 'bottoms' }])
        .history(),
    card: ['change', 'separating-test'],
    why: 'Who cannot read it is not held up for ever',
  },
  {
    day: 'Rear bottoms, sag 37 % for 30',
    story: () => withSag(new DayBuilder().run(6, [{ word: 'bottoms' }]).history(), { rear: 37 }),
    card: 'change',
    moves: ['rear pressure firmer'],
    why: 'Deep sag first; a spacer would hide it',
  },
  {
    day: 'Coil without high-speed dial bottoms, sag 36 % for 30, spring 75',
    bike: rear(coil, ...without(shock.adjusters, 'rp', 'rs')),
    story: () =>
      withSag(
        new DayBuilder({ fp: 80, fc: 8, fr: 6, rr: 7, coil: 75 }).run(6, [{ word: 'bottoms' }]).history(),
        {
          rear: 36,
        },
      ),
    card: 'change',
    moves: ['rear spring 75→80'],
    why: 'A coil that sits deep wants the next spring',
  },
  {
    day: 'The same with the firmest spring already in',
    bike: rear(coil, ...without(shock.adjusters, 'rp', 'rs')),
    story: () =>
      withSag(
        new DayBuilder({ fp: 80, fc: 8, fr: 6, rr: 7, coil: 80 }).run(6, [{ word: 'bottoms' }]).history(),
        {
          rear: 36,
        },
      ),
    card: 'check-first',
    moves: [],
    says: /firmer spring/,
    why: 'None at hand: said, not replaced by a dial',
  },
  {
    day: 'Front harsh and bottoms, sag right, 1 of 5 spacers',
    bike: front(...fork.adjusters, frontSpacers),
    story: () =>
      withSag(
        new DayBuilder({ ...start, fs: 1 }).run(5, [{ word: 'harsh-and-bottoms', end: 'front' }]).history(),
        { front: 20 },
      ),
    card: 'change',
    moves: ['front spacers 1→2', 'front pressure softer'],
    why: 'More ramp, fewer psi',
  },
  {
    day: '“Bounces on”, strong, twice, rear rebound at its slow stop',
    story: () =>
      new DayBuilder({ ...start, rr: 0 })
        .run(4, [{ word: 'pogo', strength: 3 }])
        .run(4, [{ word: 'pogo', strength: 3 }])
        .history(),
    card: ['check-first', 'change'],
    never: /rebound, \d.* faster/,
    says: /stop/,
    why: 'Never faster when everything says too fast: clicks are used up',
  },
  {
    day: 'Dives, strong, twice, front compression fully closed',
    story: () =>
      new DayBuilder({ ...start, fc: 0 })
        .run(5, [{ word: 'dives', end: 'front', strength: 3 }])
        .run(5, [{ word: 'dives', end: 'front', strength: 3 }])
        .history(),
    card: ['change', 'read', 'check-first'],
    never: /compression, \d.* softer/,
    why: 'The dial is at its stop; air or sag, never softer',
  },
  {
    day: 'Compression at its open stop on both ends, ratings of 6, no words',
    story: () => new DayBuilder({ ...start, fc: 16 }).run(6).history(),
    card: 'change',
    why: 'A stop is a place like any other; something is tried, and it is no happiness',
  },
  {
    day: 'Five runs, ratings only, all 6',
    story: () => {
      const d = new DayBuilder()
      for (let i = 0; i < 5; i++) d.run(6)
      return d.history()
    },
    card: 'change',
    why: 'Nothing was said: neither settled nor happy; the most useful dial is tried',
  },
  {
    day: 'The rear bounces on, one click before its slow stop, sag right',
    story: () =>
      withSag(new DayBuilder({ ...start, rr: 1 }).run(4, [{ word: 'pogo', end: 'rear' }]).history(), {
        front: 20,
        rear: 30,
      }),
    card: 'change',
    moves: ['rear rebound slower'],
    why: 'What is left of the right dial comes before a guess at the other end',
  },
  {
    day: 'A wordless 3',
    story: () => new DayBuilder().run(3).history(),
    // Nothing points anywhere: asked which end, a dial tried, or the spring read before it is turned.
    card: ['ask', 'change', 'read'],
    why: 'A low rating is a complaint without a word',
  },
  {
    day: '“Harsh, gets worse” at the rear three times, rated 5, nothing else said',
    story: () =>
      new DayBuilder()
        .run(5, [{ word: 'harsh-gets-worse' }])
        .run(5, [{ word: 'harsh-gets-worse' }])
        .run(5, [{ word: 'harsh-gets-worse' }])
        .history(),
    card: 'change',
    moves: ['rear rebound faster'],
    why: 'The named end first; the front is not declared good by silence',
  },
  {
    day: 'Good on two runs at 8.5, then one run',
    story: () =>
      new DayBuilder()
        .run(8.5, [{ word: 'good', end: 'both' }])
        .run(8.5, [{ word: 'good', end: 'both' }])
        .history(),
    card: 'leave-it',
    moves: [],
    why: 'Rated well, praised, nothing complained of',
  },
  {
    day: 'Settled by doubt, but “kicks” on the last run',
    story: () =>
      new DayBuilder()
        .run(8, [{ word: 'good', end: 'both' }])
        .run(8, [{ word: 'good', end: 'both' }])
        .run(7, [{ word: 'kicks', strength: 3 }])
        .history(),
    card: ['change', 'separating-test', 'repeat'],
    why: 'A day is never settled over a standing complaint',
  },
  {
    day: 'Spacer and high-speed compression, linked with a reason, 6 → 7.5',
    bike: rear(...shock.adjusters, rearHsc),
    story: () =>
      new DayBuilder({ ...start, rh: 4 })
        .run(6, [{ word: 'bottoms' }])
        .change({ rs: 2, rp: 175 }, { linked: true })
        .run(7.5, [{ word: 'good' }], { against: [1, 2] })
        .history(),
    card: ['leave-it', 'repeat', 'change'],
    never: /mess|Go back/,
    why: 'A linked change that helped is kept',
  },
  {
    day: 'Tyre read 20 psi, then 26 psi',
    story: () =>
      new DayBuilder()
        .run(6, [], { tyreFrontPsi: 20 })
        .run(6, [{ word: 'washes-out', end: 'front' }], { tyreFrontPsi: 26 })
        .history(),
    card: ['check-first', 'leave-it'],
    moves: [],
    says: /tyre/i,
    why: 'Tyres that changed are not blamed on a dial',
  },
  {
    day: 'Unread sag of a rear that bottoms, but a sensor was on the run',
    story: () =>
      new DayBuilder()
        .run(6, [{ word: 'bottoms' }], { analysis: analysisWith({}, { bottomOuts: 4, rideHeightPct: 38 }) })
        .history(),
    card: 'change',
    moves: ['rear pressure firmer'],
    why: 'The sensor has read the spring already: low ride height is the spring',
  },
  {
    day: 'Race day, 27 °C, settings found at 12 °C, “dives” and “bounces on”',
    story: () =>
      foundAt(
        new DayBuilder()
          .run(6, [
            { word: 'dives', end: 'front' },
            { word: 'pogo', end: 'rear' },
          ])
          .history(),
        12,
        27,
        'race',
      ),
    card: 'change',
    moves: ['front rebound slower', 'rear rebound slower', 'front low-speed compression firmer'],
    says: /27 °C now, 12 °C/,
    why: 'The heat package: both ends together, before a dial is blamed',
  },
  {
    day: 'The same on a test day',
    story: () => foundAt(new DayBuilder().run(6, [{ word: 'pogo', end: 'front' }]).history(), 12, 27),
    card: 'change',
    moves: ['front rebound slower', 'rear rebound slower', 'front low-speed compression firmer'],
    why: 'Heat is the same on every day',
  },
  {
    day: 'Found at 25 °C, ridden at 5 °C: dead and harsh',
    story: () => foundAt(new DayBuilder().run(5, [{ word: 'dead', end: 'rear' }]).history(), 25, 5),
    card: 'change',
    moves: ['front rebound faster', 'rear rebound faster', 'front low-speed compression softer'],
    why: 'Cold, the other way',
  },
  {
    day: '27 °C, found at 12 °C, but it is harsh and gets worse',
    story: () => foundAt(new DayBuilder().run(5, [{ word: 'harsh-gets-worse' }]).history(), 12, 27),
    card: ['change', 'separating-test'],
    never: /For the heat/,
    why: 'Packing is not what thin oil sounds like',
  },
  {
    day: 'Found at 20 °C, ridden at 27 °C, bounces on',
    story: () => foundAt(new DayBuilder().run(5, [{ word: 'pogo' }]).history(), 20, 27),
    card: ['change', 'separating-test'],
    never: /For the heat/,
    why: 'Seven degrees are not worth a package',
  },
  {
    day: 'The heat package was turned and ridden; it still bounces on',
    story: () =>
      foundAt(
        new DayBuilder()
          .run(6, [{ word: 'pogo' }])
          .change({ fr: 5, rr: 6, fc: 7 }, { linked: true, source: 'proposal' })
          .run(6.5, [{ word: 'pogo' }])
          .history(),
        12,
        27,
      ),
    card: ['change', 'separating-test', 'repeat'],
    never: /For the heat|mess/,
    why: 'Once a day; and one linked change is no mess',
  },
  {
    day: 'Rebound one slower at both ends for heat, linked, ridden, better',
    story: () =>
      new DayBuilder()
        .run(6, [{ word: 'soft-when-hot', end: 'both' }])
        .change({ fr: 5, rr: 6 }, { linked: true })
        .run(8, [{ word: 'good', end: 'both' }], { against: [1, 1] })
        .history(),
    card: ['leave-it', 'repeat', 'settled'],
    never: /mess|Go back/,
    why: 'One change, kept',
  },
  {
    day: 'Lever left firm on purpose for three runs, harsh each time',
    bike: rear(...shock.adjusters, rearLever),
    story: () =>
      new DayBuilder({ ...start, rl: 1 })
        .run(5, [{ word: 'harsh-everywhere' }])
        .run(5, [{ word: 'harsh-everywhere' }])
        .run(5, [{ word: 'harsh-everywhere' }])
        .history(),
    card: ['change', 'separating-test', 'check-first'],
    never: /Open the rear lever/,
    why: 'Said twice; who leaves it is not held on it for ever',
  },
  {
    day: '“Bounces on” for the fourth time, rebound at its slow stop',
    story: () => {
      const d = new DayBuilder({ ...start, rr: 0 })
      for (let i = 0; i < 4; i++) d.run(4, [{ word: 'pogo', strength: 3 }])
      return d.history()
    },
    card: ['change', 'repeat', 'check-first', 'leave-it'],
    never: /rear rebound, \d.* faster/i,
    why: 'The day goes on with something else, and still never faster',
  },
  {
    day: 'Two good runs at 8.5 and 9, then “bounces on” once, rated 9 all the same',
    story: () =>
      likedTwice()
        .run(9, [{ word: 'pogo', end: 'front' }])
        .history(),
    card: 'repeat',
    moves: [],
    says: /“bounces on” once, on settings that were liked without it/,
    why: 'A slip is not said twice; two good runs are not thrown away for one word',
  },
  {
    day: 'The same, and the run is praised beside it, as the two before were',
    story: () =>
      likedTwice()
        .run(9, [
          { word: 'good', end: 'both' },
          { word: 'pogo', end: 'front' },
        ])
        .history(),
    card: 'repeat',
    moves: [],
    says: /“bounces on” once, on settings that were liked without it/,
    why: 'Praise that was heard before makes no complaint an old one',
  },
  {
    day: 'The same, and it is said again on the next run',
    story: () =>
      likedTwice()
        .run(9, [{ word: 'pogo', end: 'front' }])
        .run(8.5, [{ word: 'pogo', end: 'front' }])
        .history(),
    card: ['change', 'ask'],
    never: /once, on settings/,
    why: 'Said twice it is no slip',
  },
  {
    day: 'Two good runs, then “bounces on”, strong',
    story: () =>
      likedTwice()
        .run(8.5, [{ word: 'pogo', end: 'front', strength: 3 }])
        .history(),
    card: ['change', 'ask'],
    never: /once, on settings/,
    why: 'Who says it strongly means it, whatever the number',
  },
  {
    day: 'Two good runs, then the rear kicks once more, as it did before the turn',
    story: () =>
      likedTwice()
        .run(9, [{ word: 'kicks' }])
        .history(),
    card: ['change', 'ask'],
    never: /once, on settings/,
    why: 'It was said before: the turn did not take all of it away',
  },
  {
    day: 'One run at 4.5, not a word, nobody can say which end, no sag read',
    story: () => silent().history(),
    card: 'read',
    moves: [],
    says: /^Read the (rear|front) sag first/,
    why: 'Nothing points anywhere: a ring before a guess',
  },
  {
    day: 'The same, rear sag on its target',
    story: () => silent().readSag('rear', 30).history(),
    card: 'read',
    says: /^Read the front sag first/,
    why: 'The other end may be the one that is wrong',
  },
  {
    day: 'The same, both read and right',
    story: () => silent().readSag('rear', 30).readSag('front', 20).history(),
    card: 'change',
    why: 'The springs are right: now a dial',
  },
  {
    day: 'The same, the rear stands at 21 % for 30',
    story: () => new DayBuilder().run(4.5).readSag('rear', 21).history(),
    card: 'change',
    moves: ['rear pressure softer'],
    why: 'Found in a minute; no damper repairs it',
  },
  {
    day: 'Three runs at 4.5, not a word, sag never read',
    story: () => new DayBuilder().run(4.5).run(4.5).run(4.5).history(),
    card: 'change',
    why: 'Who has no ring goes on without',
  },
  {
    day: 'One run at 4.5, the rear gets harsh along the roots',
    story: () => new DayBuilder().run(4.5, [{ word: 'harsh-gets-worse' }]).history(),
    card: ['change', 'ask', 'separating-test', 'read'],
    never: /front sag|points anywhere/,
    why: 'A word points to the rear: nobody goes looking in front',
  },
  {
    day: 'One run at 4.5, the rear pumped firmer, 4.5 again, not a word',
    story: () => new DayBuilder().run(4.5).change({ rp: 190 }).run(4.5).history(),
    card: ['ask', 'change', 'read', 'go-back', 'repeat'],
    never: /rear sag/,
    why: 'Who pumped without reading is not asked to read it now',
  },
  {
    day: 'A wordless 10',
    story: () => new DayBuilder().run(10).history(),
    card: 'leave-it',
    moves: [],
    says: /Rated 10 of 10/,
    why: 'The scale ends there: nothing could be said to be better',
  },
  {
    day: 'A 10 with a complaint',
    story: () => new DayBuilder().run(10, [{ word: 'kicks', strength: 3 }]).history(),
    card: ['ask', 'change', 'read'],
    why: 'A word is a word, whatever number stands beside it',
  },
  {
    day: 'A wordless 8, sag never read, and the air would be next',
    story: () => new DayBuilder().run(8).history(),
    card: 'read',
    moves: [],
    says: /Read the rear sag first/,
    why: 'Nobody pumps on a guess at a bike that is liked; a minute tells',
  },
  {
    day: 'Rear bobs while pedalling, its lever is open',
    bike: rear(...shock.adjusters, rearLever),
    story: () => new DayBuilder({ ...start, rl: 0 }).run(7, [{ word: 'pedal-bob' }]).history(),
    card: 'check-first',
    moves: [],
    says: /lever to “Firm” where you pedal/,
    why: 'That is what the lever is for; the descent keeps its settings',
  },
  {
    day: 'Rear bobs with the lever firm',
    bike: rear(...shock.adjusters, rearLever),
    story: () => new DayBuilder({ ...start, rl: 1 }).run(7, [{ word: 'pedal-bob' }]).history(),
    card: ['read', 'change', 'ask'],
    never: /lever/,
    why: 'The lever is shut already: then it is the spring',
  },
  {
    day: 'Rear bobs, lever open, and it kicks',
    bike: rear(...shock.adjusters, rearLever),
    story: () =>
      new DayBuilder({ ...start, rl: 0 })
        .run(5, [{ word: 'pedal-bob' }, { word: 'kicks', strength: 3 }])
        .history(),
    card: ['ask', 'change', 'read'],
    never: /lever/,
    why: 'What can throw the rider comes before what costs him breath',
  },
  {
    day: '“Dead” 5, two clicks faster, 6, two more, 7, and it is still a little dead',
    story: () =>
      new DayBuilder()
        .run(5, [{ word: 'dead', end: 'rear' }])
        .change({ rr: 9 })
        .run(6, [{ word: 'dead', end: 'rear' }])
        .change({ rr: 11 })
        .run(7, [{ word: 'dead', end: 'rear', strength: 1 }])
        .history(),
    card: 'change',
    moves: ['rear rebound 11→12 faster'],
    says: /helped, and “dead, no pop” is still there/,
    why: 'It helped twice and is not gone: on, before a dial of which nobody spoke',
  },
  {
    day: 'The same, but the second turn made it worse',
    story: () =>
      new DayBuilder()
        .run(5, [{ word: 'dead', end: 'rear' }])
        .change({ rr: 9 })
        .run(7, [{ word: 'dead', end: 'rear' }])
        .change({ rr: 11 })
        .run(5, [{ word: 'dead', end: 'rear' }])
        .history(),
    card: ['go-back', 'ask', 'change', 'read', 'separating-test'],
    never: /Rear rebound, \d clicks? faster/,
    why: 'What did not help is not gone on with',
  },
  {
    day: '“Harsh everywhere” in front, ridden nervous, and nobody can say more',
    story: () =>
      new DayBuilder()
        .run(4, [{ word: 'harsh-everywhere', end: 'front' }], {
          mind: 'nervous',
          answers: [
            { question: 'harsh-when', end: 'front', answer: 'cannot-say' },
            { question: 'harsh-on', end: 'front', answer: 'cannot-say' },
          ],
        })
        .history(),
    card: ['read', 'change', 'check-first'],
    never: /firmer|slower/,
    why: 'Whatever made it harsh, none of it is mended by firmer or slower',
  },
  {
    day: 'Fork pumped six psi for “dives”, better, and now it is harsh in front; nobody can say when',
    story: () =>
      new DayBuilder()
        .run(5, [{ word: 'dives', end: 'front' }])
        .change({ fp: 86 })
        .run(7, [{ word: 'harsh-everywhere', end: 'front' }], {
          answers: [
            { question: 'harsh-when', end: 'front', answer: 'cannot-say' },
            { question: 'harsh-on', end: 'front', answer: 'cannot-say' },
          ],
        })
        .history(),
    card: ['read', 'change', 'check-first', 'go-back'],
    never: /Rear/i,
    why: 'It began in front, with a turn in front; the rear was not spoken of',
  },
  {
    day: 'Rear kicks on single hits, and nobody has read where its rebound stands',
    story: () =>
      new DayBuilder(withoutPart('rr'))
        .run(5, [{ word: 'kicks' }], {
          answers: [{ question: 'kicks-when', end: 'rear', answer: 'single-hits' }],
        })
        .history(),
    card: 'read',
    moves: [],
    says: /Count the rear rebound to its stop first.*nobody has read where it stands/,
    why: 'The dial that answers it is read before another is turned in its place',
  },
  {
    day: 'The same, and nothing at all was read',
    story: () =>
      new DayBuilder({})
        .run(5, [{ word: 'kicks' }], {
          answers: [{ question: 'kicks-when', end: 'rear', answer: 'single-hits' }],
        })
        .history(),
    card: 'read',
    says: /Count the rear rebound/,
    never: /workshop|No dial left/,
    why: 'A dial that nobody looked at is not used up',
  },
  {
    day: 'Nothing was read, nothing was said, rated 5',
    story: () => new DayBuilder({}).run(5).history(),
    card: 'read',
    never: /workshop|No dial left/,
    why: 'Somebody has to look where something stands',
  },
  {
    day: 'Front washes, its pressure was never read; the rebound was',
    story: () =>
      new DayBuilder(withoutPart('fp'))
        .run(5, [{ word: 'washes-out', end: 'front' }], {
          answers: [
            { question: 'washes-when', end: 'front', answer: 'everywhere' },
            { question: 'tyres-now', end: null, answer: 'as-before' },
          ],
        })
        .history(),
    card: 'read',
    says: /Read the front pressure first/,
    why: 'Air is read at the gauge, not counted',
  },
  {
    day: 'Front bottoms, strong, sag 24 % for 20, no spacers in the fork',
    story: () =>
      withSag(new DayBuilder().run(4, [{ word: 'bottoms', end: 'front', strength: 3 }]).history(), {
        front: 24,
        rear: 30,
      }),
    card: 'change',
    moves: ['front pressure firmer'],
    says: /Sag is on the deep side: 24 %, its target is 20 %/,
    why: 'Four points deep is a fifth too much: the air that is missing comes first',
  },
  {
    day: 'Rear bottoms, sag 34 % for 30, 1 of 3 spacers',
    story: () => withSag(new DayBuilder().run(5, [{ word: 'bottoms' }]).history(), { rear: 34 }),
    card: 'change',
    moves: ['rear pressure firmer'],
    never: /spacer/i,
    why: 'A spacer would hide a spring that stands too deep',
  },
  {
    day: 'The same, pumped to the target, and it bottoms again',
    story: () =>
      new DayBuilder()
        .readSag('rear', 34)
        .run(5, [{ word: 'bottoms' }])
        .change({ rp: 199 })
        .readSag('rear', 30)
        .run(5.5, [{ word: 'bottoms' }])
        .history(),
    card: 'change',
    moves: ['rear spacers 1→2 more', 'rear pressure softer'],
    why: 'Now sag is right, and it is ramp',
  },
  {
    day: 'Rear bottoms, sag 26 % for 30, no spacer left, no high-speed dial',
    story: () =>
      withSag(new DayBuilder({ ...start, rs: 3 }).run(5, [{ word: 'bottoms' }]).history(), { rear: 26 }),
    card: 'check-first',
    moves: [],
    says: /no spacer and no high-speed dial left/,
    why: 'It has less sag than it should have already; more air is no answer',
  },
  {
    day: 'A run was ridden; then nobody is sure of the rear rebound any more',
    story: () => unsureOf('rr', new DayBuilder().run(6, [{ word: 'kicks' }]).history()),
    card: 'read',
    moves: [],
    says: /Count the rear rebound.*Nobody is sure of the rear rebound any more; nothing was turned/,
    never: /ride it before/i,
    why: 'Nothing on the bike is new: it is only not known',
  },
  {
    day: 'Ridden at 7; then the rear rebound is counted and found a click off',
    story: () =>
      new DayBuilder()
        .run(6, [{ word: 'dead', end: 'rear' }])
        .look({ rr: 8 })
        .history(),
    card: 'ride-it',
    says: /Found, nothing turned: rear rebound at 6 clicks, written as 7 clicks/,
    never: /New:/,
    why: 'A count that was put right is no turn; where it stood on the run, nobody knows',
  },
  {
    day: 'First run rated 9, “nervous” in front, mildly, and skating it is not',
    story: () =>
      withSag(
        new DayBuilder()
          .run(9, [{ word: 'nervous', end: 'front', strength: 1 }], {
            answers: [{ question: 'nervous-where', end: 'front', answer: 'cannot-say' }],
          })
          .history(),
        { front: 20, rear: 30 },
      ),
    card: 'repeat',
    moves: [],
    says: /only mildly, on a run that was liked/,
    why: 'Nobody turns a bike that is liked on one mild word',
  },
  {
    day: 'Four runs liked at 9, “bounces on” once, mildly, and liked again',
    story: () =>
      new DayBuilder()
        .run(9, [{ word: 'good', end: 'both' }])
        .run(9.5, [{ word: 'good', end: 'both' }])
        .run(9, [{ word: 'good', end: 'both' }])
        .run(9, [{ word: 'pogo', end: 'rear', strength: 1 }])
        .run(9, [{ word: 'good', end: 'both' }])
        .history(),
    card: ['leave-it', 'settled'],
    moves: [],
    why: 'One mild word among four liked runs was a slip',
  },
  {
    day: 'Rated 7, then 3 on the same settings, ridden nervous, and not a word',
    story: () => new DayBuilder().run(7).run(3, [], { mind: 'nervous' }).history(),
    card: 'repeat',
    moves: [],
    says: /ridden nervous says more of the rider/,
    why: 'Nobody puts a gauge on a rider',
  },
  {
    day: 'Ridden nervous twice, rated 3 and 3',
    story: () =>
      new DayBuilder().run(7).run(3, [], { mind: 'nervous' }).run(3, [], { mind: 'nervous' }).history(),
    card: ['read', 'ask', 'change', 'check-first'],
    never: /more of the rider/,
    why: 'Who is nervous twice on it may have a reason',
  },
  {
    day: 'Ridden nervous, and the rear kicks, strongly',
    story: () => new DayBuilder().run(3, [{ word: 'kicks', strength: 3 }], { mind: 'nervous' }).history(),
    card: ['ask', 'change', 'read'],
    never: /more of the rider/,
    why: 'The bike was spoken of',
  },
  {
    day: 'Nothing was ever read, and it is the fourth run without a word',
    story: () => new DayBuilder({}).run(5).run(5).run(5).run(5).history(),
    card: 'read',
    never: /workshop|No dial left/,
    why: 'As long as nothing is known, nothing can be used up',
  },
  {
    day: 'Liked at 9 four times with praise; two of the dials were never read',
    story: () =>
      [9, 9, 9, 9]
        .reduce(
          (d, r) => d.run(r, [{ word: 'good', end: 'both' }]),
          new DayBuilder({ fp: 80, rp: 180, rs: 1 }),
        )
        .history(),
    card: 'leave-it',
    never: /settled: leave/i,
    why: 'It is liked; but of dials that nobody has read nobody knows what is left',
  },
  {
    day: 'Three things turned after run 1, not linked, then ridden',
    story: () => new DayBuilder().run(6).change({ fr: 5, rr: 6, fc: 7 }).run(5).history(),
    card: 'untangle',
    why: 'Without a word that they belong together nobody knows which did it',
  },
]

describe('cases of the field', () => {
  it.each(cases)('$day: $why', (c) => expect(faultsOf(c)).toEqual([]))
})

describe('if the day ended now', () => {
  it('the better one behind is named, and not the trial that is on the bike', () => {
    const d = new DayBuilder()
      .run(7, [{ word: 'good', end: 'both' }])
      .run(7.5, [{ word: 'good', end: 'both' }])
      .change({ rr: 10 })
      .run(4, [{ word: 'pogo', strength: 3 }], { against: [2, -2] })
    expect(summarise(d.history(), space).words).toContain('the settings of run 2 would be the ones to keep')
    d.change({ rr: 7 }, { source: 'revert' })
    expect(summarise(d.history(), space).words).not.toContain('would be the ones to keep')
  })
})
