import { describe, expect, it } from 'vitest'
import type { EndMetrics } from '#contract/recording'
import type { FeelWord } from '#contract/run'
import { leverageOf } from '../linkage/leverage.ts'
import { analysisWith, DayBuilder, shock, space } from '../test/dayBuilder.ts'
import { advise } from './advise.ts'
import { faultsOf, rear, rearSpacers, start, withSag, type Case } from './test/fieldCase.ts'
import { zeroMoved } from './zeroMoved.ts'

type Figures = Partial<EndMetrics>

/** What sensors show of an end, each as plainly as a real file would. */
const packs: Figures = { trains: 4, valleyDriftPctPerHit: 1.5, recoveryMs: 330, returnSlopePerS: 7 }
const springsBack: Figures = {
  reboundDampingHits: 9,
  reboundDampingRatio: 0.15,
  returnSlopePerS: 32,
  topOuts: 7,
}
const returnsWell: Figures = {
  trains: 4,
  valleyDriftPctPerHit: 0.1,
  reboundDampingHits: 9,
  reboundDampingRatio: 0.55,
}
const sways: Figures = { supportPct: 11 }
const stands: Figures = { supportPct: 1.4 }
const buzzes: Figures = { chatterPctPerG: 0.2 }
const stopsShort: Figures = { bigHits: 5, depthMaxPct: 66 }
const clanks: Figures = { hardBottomOuts: 5, bottomOuts: 8, depthMaxPct: 100 }
const ridesAt = (pct: number): Figures => ({ rideHeightPct: pct })

/** Two runs alike: a word, a rating, and what the sensors show. */
function twice(
  word: FeelWord | null,
  end: 'front' | 'rear',
  figures: { front?: Figures; rear?: Figures },
  rating = 5,
  from = start,
): DayBuilder {
  const d = new DayBuilder(from)
  const marks = word ? [{ word, end }] : []
  const shown = { analysis: analysisWith(figures.front ?? {}, figures.rear ?? {}) }
  return d.run(rating, marks, shown).run(rating, marks, shown)
}

/** Sensors for, against and beside the words. */
const cases: Case[] = [
  {
    day: '“Kicks” behind, the valleys sink',
    story: () => twice('kicks', 'rear', { rear: packs }).history(),
    card: 'change',
    moves: ['rear rebound faster'],
    why: 'A kick that is packing; the word alone would have slowed it',
  },
  {
    day: '“Kicks” behind, it springs back undamped',
    story: () => twice('kicks', 'rear', { rear: springsBack }).history(),
    card: 'change',
    moves: ['rear rebound slower'],
    why: 'The same word, the other way',
  },
  {
    day: '“Kicks” behind, rides 12 points deep',
    story: () => twice('kicks', 'rear', { rear: ridesAt(42) }).history(),
    card: 'change',
    moves: ['rear pressure firmer'],
    why: 'Under-sprung before anything else',
  },
  {
    day: '“Dead” behind, but it springs back undamped',
    story: () => twice('dead', 'rear', { rear: springsBack }).history(),
    card: ['change', 'separating-test', 'ask', 'read'],
    never: /^Rear rebound, \d clicks? faster/,
    why: 'A word against nine hits: the dial is not opened further',
  },
  {
    day: '“Stays down” behind, the valleys sink',
    story: () => twice('stays-down', 'rear', { rear: packs }).history(),
    card: 'change',
    moves: ['rear rebound faster'],
    why: 'Word and figure agree',
  },
  {
    day: '“Bounces on” behind, undamped, rebound already at its slow stop',
    story: () => twice('pogo', 'rear', { rear: springsBack }, 4, { ...start, rr: 0 }).history(),
    card: ['change', 'check-first'],
    never: /rear rebound, \d.* faster/i,
    says: /stop|clicks are used up/,
    why: 'Clicks used up; never the other way',
  },
  {
    day: 'No word, 6 twice, the rear packs',
    story: () => twice(null, 'rear', { rear: packs }, 6).history(),
    card: 'change',
    moves: ['rear rebound faster'],
    why: 'The figures speak where the rider is silent',
  },
  {
    day: 'No word, 4.5 twice, the rear packs',
    story: () => twice(null, 'rear', { rear: packs }, 4.5).history(),
    card: 'change',
    moves: ['rear rebound faster'],
    why: 'Poor and silent, but the figures point: nobody goes looking for a spring',
  },
  {
    day: 'No word, 8.5 twice and praised, the rear packs a little',
    story: () => {
      const shown = { analysis: analysisWith({}, { trains: 3, valleyDriftPctPerHit: 0.7 }) }
      const good = [{ word: 'good', end: 'both' } as const]
      return new DayBuilder().run(8.5, good, shown).run(8.5, good, shown).history()
    },
    card: ['leave-it', 'repeat', 'settled'],
    moves: [],
    why: 'A figure is no complaint: who likes it is left alone',
  },
  {
    day: '“Harsh, gets worse” in front, the valleys sink',
    story: () => twice('harsh-gets-worse', 'front', { front: packs }).history(),
    card: 'change',
    moves: ['front rebound faster'],
    why: 'Packing in front',
  },
  {
    day: '“Harsh everywhere” in front, rides 9 points high',
    story: () => twice('harsh-everywhere', 'front', { front: ridesAt(11) }).history(),
    card: 'change',
    moves: ['front pressure softer'],
    why: 'The spring holds it out of its travel',
  },
  {
    day: '“Harsh everywhere” in front at the right height, hardly moves over small bumps, stands stiff',
    story: () => twice('harsh-everywhere', 'front', { front: { ...buzzes, ...stands } }).history(),
    card: ['change', 'check-first', 'ask'],
    never: /rebound, .* slower|compression, .* firmer|pressure, .* firmer/,
    why: 'Compression, seals or spring: never firmer',
  },
  {
    day: '“Dives”, sways slowly, rides at its height',
    story: () => twice('dives', 'front', { front: sways }).history(),
    card: 'change',
    moves: ['front low-speed compression firmer'],
    why: 'The spring is right by the sensor: low-speed compression',
  },
  {
    day: '“Dives”, and rides 11 points deep',
    story: () => twice('dives', 'front', { front: ridesAt(31) }).history(),
    card: 'change',
    moves: ['front pressure firmer'],
    never: /compression/,
    why: 'A dial does not mend a spring',
  },
  {
    day: '“Falls through” behind, rides 11 points deep',
    story: () => twice('blows-through', 'rear', { rear: ridesAt(41) }).history(),
    card: 'change',
    moves: ['rear pressure firmer'],
    why: 'Deep by the sensor',
  },
  {
    day: '“Bottoms” behind, five hard ones, rides at its height, 1 of 6 spacers, sag right',
    bike: rear(...shock.adjusters.filter((a) => a.id !== 'rs'), rearSpacers),
    story: () => withSag(twice('bottoms', 'rear', { rear: clanks }).history(), { rear: 30 }),
    card: 'change',
    says: /spacer/,
    why: 'Right height, all travel: ramp',
  },
  {
    day: 'The same, and 2 of 6: one spacer, with the pressure of the same sag, as without a sensor',
    bike: rear(...shock.adjusters.filter((a) => a.id !== 'rs'), rearSpacers),
    story: () =>
      withSag(twice('bottoms', 'rear', { rear: clanks }, 5, { ...start, rs: 2 }).history(), { rear: 30 }),
    card: 'change',
    says: /^Rear spacers, 1 spacer more.*with rear pressure, \d+ psi softer/,
    never: /^Rear pressure/,
    why: 'A sensor makes no other spring of it',
  },
  {
    day: '“Bottoms” behind, five hard ones, rides at its height, sag never read',
    bike: rear(...shock.adjusters.filter((a) => a.id !== 'rs'), rearSpacers),
    story: () => twice('bottoms', 'rear', { rear: clanks }).history(),
    card: 'read',
    moves: [],
    says: /^Read the rear sag first/,
    why: 'Riding at its height it may stand deep or right: a minute tells spring from ramp',
  },
  {
    day: '“Bottoms” behind, five hard ones, rides 10 points deep',
    story: () => twice('bottoms', 'rear', { rear: { ...clanks, ...ridesAt(40) } }).history(),
    card: 'change',
    moves: ['rear pressure firmer'],
    never: /spacer/,
    why: 'Deep: the spring first, then the ramp',
  },
  {
    day: '“Never uses it all” behind, stops at 66 % over five big hits, rides high',
    story: () => twice('unused-travel', 'rear', { rear: { ...stopsShort, ...ridesAt(21) } }).history(),
    card: 'change',
    moves: ['rear pressure softer'],
    why: 'Too firm a spring by height and use',
  },
  {
    day: '“Never uses it all” behind, stops at 66 %, but rides at its height, 2 spacers in',
    story: () => twice('unused-travel', 'rear', { rear: stopsShort }, 6, { ...start, rs: 2 }).history(),
    card: ['change', 'ask', 'read'],
    never: /pressure, .* firmer|1 spacer more/,
    why: 'The ramp, or the spring; never more of either',
  },
  {
    day: '“Nervous” behind, returns as it should, rides 9 points high',
    story: () => twice('nervous', 'rear', { rear: { ...returnsWell, ...ridesAt(21) } }).history(),
    card: 'change',
    moves: ['rear pressure softer'],
    why: 'The rebound is cleared by the figures; the spring is not',
  },
  {
    day: '“Kicks” behind on sensors that say nothing either way',
    story: () => twice('kicks', 'rear', { rear: {} }).history(),
    card: ['ask', 'separating-test'],
    leads: /Rear rebound, .*faster.*Rear rebound, .*slower|Rear rebound, .*slower.*Rear rebound, .*faster/,
    why: 'Quiet figures leave both ways open: ask',
  },
  {
    day: '“Wallows” in front and rides at its height, sways',
    story: () => twice('wallows', 'front', { front: sways }).history(),
    card: 'change',
    moves: ['front low-speed compression firmer'],
    why: 'Support, not spring',
  },
  {
    day: 'Front packs and rear springs back, “harsh, gets worse” in front said',
    story: () => twice('harsh-gets-worse', 'front', { front: packs, rear: springsBack }).history(),
    card: 'change',
    moves: ['front rebound faster'],
    why: 'What is complained of and measured comes before what is only measured',
  },
  {
    day: 'Rebound opened two clicks, the sinking is gone, rated 8 with praise',
    story: () => {
      const good = [{ word: 'grips', end: 'both' } as const]
      const well = { analysis: analysisWith({}, returnsWell) }
      return twice('kicks', 'rear', { rear: packs })
        .change({ rr: 9 })
        .run(8, good, well)
        .run(8, good, well)
        .history()
    },
    card: ['leave-it', 'repeat', 'settled'],
    moves: [],
    why: 'It helped by word, rating and figure: leave it',
  },
]

/** “Dives” twice, with the front 13 points deep by its sensor, to 96 % at the deepest; the ring says otherwise, or the same. */
const divesWith = (ringFrontMm: number | null) => {
  const shown = { analysis: analysisWith({ ...ridesAt(33), depthMaxPct: 96 }, {}), ringFrontMm }
  const marks = [{ word: 'dives' as const, end: 'front' as const }]
  return new DayBuilder().run(6, marks, shown).run(6, marks, shown)
}
cases.push(
  {
    day: '“Dives”, the front sensor 13 points deep and at 96 %, the ring at 123 of 150 mm',
    story: () => divesWith(123).history(),
    card: ['change', 'separating-test', 'ask', 'read', 'check-first'],
    never: /^Front pressure, .*firmer/,
    why: 'A fork cannot go deeper than it pushed its ring: the zero of the sensor has moved, and no air goes in for that',
  },
  {
    day: 'The same, and the ring agrees with the sensor',
    story: () => divesWith(143).history(),
    card: 'change',
    moves: ['front pressure firmer'],
    why: 'Two that agree: the spring before anything else',
  },
  {
    day: 'The same, and nobody read the ring',
    story: () => divesWith(null).history(),
    card: 'change',
    moves: ['front pressure firmer'],
    why: 'A sensor that nothing speaks against is believed',
  },
)

/** One run with a word, a ring and what the rear sensor shows; sag read right at both ends. */
const onceBehind = (
  word: FeelWord | null,
  rating: number,
  figures: Figures | null,
  facts: { ringRearMm?: number; effort?: 'all-out' | 'held-back' } = {},
  strength: 2 | 3 = 2,
) =>
  withSag(
    new DayBuilder()
      .run(rating, word ? [{ word, end: 'rear', strength }] : [], {
        ...(figures ? { analysis: analysisWith({}, figures) } : {}),
        ...facts,
      })
      .history(),
    { front: 20, rear: 30 },
  )
cases.push(
  {
    day: '“Bottoms” behind, strong, and the sensor went to 78 % at the deepest',
    story: () => onceBehind('bottoms', 5, { depthMaxPct: 78 }, {}, 3),
    card: 'check-first',
    moves: [],
    says: /78 %/,
    why: 'What knocks there is not the end of the stroke: no spacer goes in for it',
  },
  {
    day: 'The same without a sensor, and the ring at 41 of 55 mm',
    story: () => onceBehind('bottoms', 5, null, { ringRearMm: 41 }, 3),
    card: 'check-first',
    moves: [],
    says: /75 %/,
    why: 'A unit that bottoms pushes its ring to the end',
  },
  {
    day: 'The same with sensor at 78 %, and the ring at 54.5 of 55 mm',
    story: () => onceBehind('bottoms', 5, { depthMaxPct: 78 }, { ringRearMm: 54.5 }, 3),
    card: 'change',
    says: /1 spacer more/,
    why: 'Word and ring agree: it is the scale of the sensor that is off',
  },
  {
    day: '“Bottoms” and the ring at 50 of 55 mm, ridden all out',
    story: () => onceBehind('bottoms', 5, null, { ringRearMm: 50, effort: 'all-out' }, 3),
    card: 'change',
    says: /1 spacer more/,
    why: 'Near the end the last of it may be felt: a bumper takes some of it',
  },
  {
    day: 'No word, 7, five hard ones behind by the sensor, sag right',
    story: () => onceBehind(null, 7, clanks),
    card: 'change',
    says: /^Rear spacers, 1 spacer more.*5 hard bottom-outs/,
    why: 'Read out of range, from whatever knows it: not a rebound to find something out',
  },
  {
    day: 'Liked at 9, six hard ones behind by the sensor',
    story: () => onceBehind('good', 9, { ...clanks, hardBottomOuts: 6 }),
    card: 'leave-it',
    moves: [],
    says: /6 hard bottom-outs/,
    why: 'Who likes it is left alone, and told',
  },
  {
    day: '“Never uses it all” behind, and the sensor went to 99 %',
    story: () => onceBehind('unused-travel', 6, { depthMaxPct: 99, bigHits: 5, bottomOuts: 1 }),
    card: ['leave-it', 'check-first', 'repeat'],
    moves: [],
    says: /99 %/,
    why: 'It did use it: asking for a hit, or letting air out, makes it bottom',
  },
  {
    day: '“Never uses it all” behind, and the ring at the end',
    story: () => onceBehind('unused-travel', 6, null, { ringRearMm: 54.5 }),
    card: ['leave-it', 'check-first', 'repeat'],
    moves: [],
    says: /99 %/,
    why: 'The same by the ring',
  },
  {
    day: '“Never uses it all” behind, and by the sensor it rides at 85 % and went to 100; sag right',
    story: () => onceBehind('unused-travel', 6, { ...ridesAt(85), depthMaxPct: 100, bottomOuts: 3 }),
    card: ['ask', 'change', 'read'],
    never: /does use its travel/,
    why: 'A sensor that shows what cannot be refutes no word',
  },
  {
    day: '“Dives”, and by the sensor the front rides at 85 % of its travel',
    story: () => twice('dives', 'front', { front: ridesAt(85) }).history(),
    card: ['change', 'ask', 'read', 'check-first'],
    never: /^Front pressure/,
    why: 'Nobody rides at 85 %: a sensor that shows what cannot be pumps nothing',
  },
  {
    day: '“Stays down” behind, strong, but it springs back undamped; sag unread',
    story: () =>
      new DayBuilder()
        .run(4, [{ word: 'stays-down', end: 'rear', strength: 3 }], {
          analysis: analysisWith({}, springsBack),
        })
        .history(),
    card: ['read', 'ask'],
    moves: [],
    why: 'Word and figure want the dial opposite ways: sag tells whether it simply stands deep',
  },
  {
    day: '“Bounces on” behind, strong, but the valleys sink and it creeps back; sag unread',
    story: () =>
      new DayBuilder()
        .run(4, [{ word: 'pogo', end: 'rear', strength: 3 }], { analysis: analysisWith({}, packs) })
        .history(),
    card: ['read', 'ask', 'separating-test'],
    moves: [],
    why: 'Faster against “bounces on” is how riders get hurt; a minute first',
  },
)

describe('a spring that a sensor shows to be wrong', () => {
  const toOf = (offPct: number) => {
    const p = advise(twice('wallows', 'rear', { rear: ridesAt(30 + offPct) }).history(), space)
    const move = p.moves.find((m) => m.adjusterId === 'rp')
    return move ? move.to - move.from : null
  }
  // Sag goes about as one over the pressure: 180 psi at 42 % want 216 for 35 %, five points above the target.
  it('goes to the edge of what a right one may show, not by a usual step', () => {
    expect(toOf(12)).toBeGreaterThan(20)
    expect(toOf(12)).toBeLessThan(45)
  })
  it('goes further the further it is off', () => expect(toOf(16)!).toBeGreaterThan(toOf(8)! + 5))
  it('says that sag, read there, has the last word', () =>
    expect(advise(twice('wallows', 'rear', { rear: ridesAt(42) }).history(), space).watchFor).toMatch(
      /Read sag/,
    ))
})

describe('a sensor against the ring', () => {
  const seen = (sensorPct: number, ringMm: number) =>
    zeroMoved(
      new DayBuilder()
        .run(6, [], { analysis: analysisWith({ depthMaxPct: sensorPct }, {}), ringFrontMm: ringMm })
        .history().runs[0],
      space,
    )
  it('is wrong beyond what ring and calibration may be off, not below; a ring pushed deeper elsewhere says nothing', () => {
    // 120 of 150 mm is 80 %, 1 mm more 80.7 %.
    expect(seen(83, 120)).toEqual([])
    expect(seen(83.4, 120)).toEqual([{ end: 'front', sensorPct: 83.4, ringPct: 80 }])
    expect(seen(60, 140)).toEqual([])
    expect(seen(101.5, 150)).toEqual([])
  })
  it('is compared at the axle where the sensor tells of the axle: the ring sits on the shaft', () => {
    // Progressive: the first half of the stroke moves the wheel further than the second.
    const progressive = {
      ...space,
      leverage: leverageOf({ leverageCurve: null, leverageStart: 3, leverageEnd: 2.4 }, 55),
    }
    const rear = (sensorPct: number) =>
      zeroMoved(
        new DayBuilder()
          .run(6, [], { analysis: analysisWith({}, { depthMaxPct: sensorPct }), ringRearMm: 40 })
          .history().runs[0],
        progressive,
      )
    // 40 mm of 55: shaft 72.7 %; wheel (3·40 − 0.6/55·40²/2) ÷ (3·55 − 0.6·55/2) = 111.3/148.5 = 74.9 %.
    expect(rear(78)).toEqual([])
    expect(rear(80)).toEqual([{ end: 'rear', sensorPct: 80, ringPct: expect.closeTo(74.9, 0) }])
  })
  it('is said on the card, whatever the card is', () => {
    expect(advise(divesWith(123).history(), space).caution).toMatch(
      /front sensor went to 96 %.* ring only to 82 %/,
    )
    expect(advise(divesWith(143).history(), space).caution ?? '').not.toMatch(/sensor/)
  })
})

describe('cases with sensors', () => {
  it.each(cases)('$day: $why', (c) => expect(faultsOf(c)).toEqual([]))
})
