import { describe, expect, it } from 'vitest'
import { DayBuilder, analysisWith, shock, space } from '../test/dayBuilder.ts'
import { advise } from './advise.ts'
import type { DayHistory } from './dayHistory.ts'
import { comparable, groundBetween } from './comparable.ts'
import { diagnose } from './diagnose.ts'
import { rear, faultsOf, foundAt, frontSpacers, front, type Case } from './test/fieldCase.ts'
import { fork } from '../test/dayBuilder.ts'
import type { HourLine } from '#contract/hour'
import type { FeelWord, Mark, Run } from '#contract/run'

/** 98 to 100 % of 55 mm. */
const fullRing = 55
const shortRing = 34

const said = (word: FeelWord, end: Mark['end']) => [{ word, end }]
const at = (airTempC: number) => ({ airTempC })
/** Runs without a complaint, each 4 °C warmer than the one before, from 12 °C. */
const warming = (ratings: readonly number[], day: DayBuilder) =>
  ratings.reduce((d, rating, i) => d.run(rating, said('good', 'both'), at(12 + 4 * i)), day)

/** Every pressure of the day, as it was set in air that somebody noted. */
const setAt = (airTempC: number, h: DayHistory): DayHistory => ({
  ...h,
  setups: h.setups.map((s) => ({
    ...s,
    positions: s.positions.map((p) => ({ ...p, known: { ...p.known, how: 'set', airTempC } })),
  })),
})

/** Days on which what was noted of a run, and of its air, decides. */
const cases: Case[] = [
  {
    day: 'Found at 12 °C, began at 14 °C, 27 °C by run 3 as noted there, “dives”',
    story: () =>
      foundAt(
        new DayBuilder()
          .run(7)
          .run(7)
          .run(6, [{ word: 'dives', end: 'front' }], { airTempC: 27 })
          .history(),
        12,
        14,
      ),
    card: 'change',
    moves: ['front rebound slower', 'rear rebound slower', 'front compression firmer'],
    says: /For the heat.*27 °C now, 12 °C where these settings were found/,
    why: 'The day got hot; the air of the run counts, not that of the morning',
  },
  {
    day: 'Both pressures set at 12 °C; 27 °C by run 3, “soft when hot” in front',
    story: () =>
      foundAt(
        setAt(12, new DayBuilder().run(8).run(8).run(6, said('soft-when-hot', 'front'), at(27)).history()),
        12,
        14,
      ),
    card: 'change',
    says: /Front air: 80 psi reads about 85 psi now; 80 psi gives the sag it had.*Rear air: 180 psi reads about 190 psi now/,
    why: 'The spring has gained with the heat; by Gay-Lussac 94.7 psi absolute grow by 15 of 285 K',
  },
  {
    day: 'Found at 12 °C; the log says 27 °C since the last run, nobody has ridden in it yet',
    story: () =>
      foundAt(
        new DayBuilder()
          .run(7)
          .run(7)
          .run(6, [{ word: 'dives', end: 'front' }])
          .hour({ airTempC: 27 })
          .history(),
        12,
        14,
      ),
    card: 'change',
    moves: ['front rebound slower', 'rear rebound slower', 'front compression firmer'],
    says: /For the heat.*27 °C now, 12 °C where these settings were found/,
    why: 'The next run will be ridden in that air',
  },
  {
    day: 'Praised at 12 °C, a little less at 16, 20 and 24 °C; “kicks” behind at 28 °C',
    story: () => warming([9.5, 9, 9, 8.5], new DayBuilder()).run(8, said('kicks', 'rear'), at(28)).history(),
    card: 'change',
    moves: ['front rebound slower', 'rear rebound slower', 'front compression firmer'],
    says: /For the heat.*28 °C now, 12 °C on run 1, where they were liked/,
    why: 'It gets warm by little and little: each run was liked in air like that of the run before',
  },
  {
    day: 'The same, and at 28 °C nobody says of what it is worse; both gauges show what was set',
    story: () =>
      warming([9.5, 9, 9, 8.5], new DayBuilder()).run(7, [], at(28)).look({ fp: 80, rp: 180 }).history(),
    card: 'change',
    moves: ['front rebound slower', 'rear rebound slower', 'front compression firmer'],
    says: /For the heat.*Rated 7 on run 5; on the same settings 9\.0/,
    why: 'Nothing else has changed; a dial picked to find out would be a guess',
  },
  {
    day: 'Liked at 25 °C on dry ground; after the storm it is 12 °C and wet, and a wordless 6',
    story: () =>
      new DayBuilder()
        .at(25)
        .hour({ airTempC: 25, surface: 'dry-hard' })
        .run(9, [], at(25))
        .run(9, [], at(25))
        .hour({ airTempC: 12, surface: 'wet' })
        .run(6, [], at(12))
        .look({ fp: 80, rp: 180 })
        .history(),
    card: ['read', 'repeat', 'change', 'ask', 'check-first', 'tell-the-feel'],
    never: /For the cold/,
    why: 'The ground fell, too: the air is not what is left over',
  },
  {
    day: 'The same at 28 °C all day',
    story: () =>
      new DayBuilder()
        .run(9, [], at(28))
        .run(9, [], at(28))
        .run(7, [], at(28))
        .look({ fp: 80, rp: 180 })
        .history(),
    card: ['read', 'repeat', 'change', 'ask', 'check-first'],
    never: /For the heat/,
    why: 'It was as hot when it was liked',
  },
  {
    day: 'Liked at 12 °C, and as much at 27 °C; “kicks” behind at 28 °C',
    story: () =>
      warming([9, 9], new DayBuilder()).run(9, [], at(27)).run(7, said('kicks', 'rear'), at(28)).history(),
    card: ['ask', 'change', 'separating-test', 'repeat', 'read'],
    never: /For the heat/,
    why: 'Heat that was ridden in and liked is not what changed',
  },
  {
    day: 'Found at 12 °C; 28 °C all day, liked on run 1, “kicks” behind on run 2',
    story: () =>
      foundAt(
        new DayBuilder().run(9, said('good', 'both'), at(28)).run(7, said('kicks', 'rear'), at(28)).history(),
        12,
        28,
      ),
    card: ['ask', 'change', 'separating-test', 'repeat', 'read'],
    never: /For the heat/,
    why: 'The heat was there when it was liked',
  },
  {
    day: 'Liked at 12 °C; 28 °C, a wordless 8 after 9 and 8.5',
    story: () => warming([9, 8.5], new DayBuilder()).run(8, [], at(28)).look({ fp: 80, rp: 180 }).history(),
    card: ['leave-it', 'repeat', 'change', 'read', 'tell-the-feel', 'ask'],
    never: /For the heat/,
    why: 'Half a point less is scatter',
  },
  {
    day: 'The log said 27 °C at noon; the last run was ridden at 14 °C after the storm',
    story: () =>
      foundAt(
        new DayBuilder()
          .run(7)
          .hour({ airTempC: 27 })
          .run(7, [], { airTempC: 14 })
          .run(6, [{ word: 'dives', end: 'front' }])
          .history(),
        12,
        14,
      ),
    card: ['ask', 'change', 'separating-test', 'repeat'],
    never: /For the heat/,
    why: 'What was noted last counts, whoever noted it',
  },
  {
    day: 'Liked twice on damp ground; then it rained, and the front washes',
    story: () =>
      new DayBuilder()
        .run(8, [{ word: 'grips', end: 'both' }])
        .run(8.5, [{ word: 'good', end: 'both' }])
        .hour({ surface: 'wet', note: 'rain' })
        .run(5.5, [{ word: 'washes-out', end: 'front' }])
        .history(),
    card: 'repeat',
    moves: [],
    says: /ground has changed.*the ground damp, then wet/,
    why: 'The ground has moved, no dial has',
  },
  {
    day: 'It washes on the wet ground a second time',
    story: () =>
      new DayBuilder()
        .run(8.5, [{ word: 'good', end: 'both' }])
        .hour({ surface: 'wet', note: 'rain' })
        .run(5.5, [{ word: 'washes-out', end: 'front' }])
        .run(5.5, [{ word: 'washes-out', end: 'front' }])
        .history(),
    card: ['ask', 'change', 'read', 'check-first'],
    never: /ground has changed/,
    why: 'Said twice on this ground it is a complaint like any other',
  },
  {
    day: 'The same once, but strongly: it bounces on',
    story: () =>
      new DayBuilder()
        .run(8.5, [{ word: 'good', end: 'both' }])
        .hour({ surface: 'wet', note: 'rain' })
        .run(4, [{ word: 'pogo', end: 'rear', strength: 3 }])
        .history(),
    card: ['change', 'ask', 'read', 'check-first'],
    never: /ground has changed/,
    why: 'Who says it strongly is not sent out on it again',
  },
  {
    day: 'Liked once before the rain, not once; then it rained, and the front washes',
    story: () =>
      new DayBuilder()
        .run(8.5, [{ word: 'good', end: 'both' }])
        .run(6, [])
        .hour({ surface: 'wet', note: 'rain' })
        .run(5.5, [{ word: 'washes-out', end: 'front' }])
        .history(),
    card: ['ask', 'change', 'read', 'check-first'],
    never: /ground has changed/,
    why: 'Not all was right before the rain',
  },
  {
    day: 'Rated 8 and 9 before the rain, but it washed then too',
    story: () =>
      new DayBuilder()
        .run(8, [{ word: 'washes-out', end: 'front', strength: 1 }])
        .run(9, [{ word: 'good', end: 'both' }])
        .hour({ surface: 'wet', note: 'rain' })
        .run(5.5, [{ word: 'washes-out', end: 'front' }])
        .history(),
    card: ['ask', 'change', 'read', 'check-first'],
    never: /ground has changed/,
    why: 'It is no news of the wet ground',
  },
  {
    day: 'Liked on damp and on wet ground; on the wet the front washes',
    story: () =>
      new DayBuilder()
        .run(8.5, [{ word: 'good', end: 'both' }])
        .hour({ surface: 'wet', note: 'rain' })
        .run(8.5, [{ word: 'good', end: 'both' }])
        .run(5.5, [{ word: 'washes-out', end: 'front' }])
        .history(),
    card: ['ask', 'change', 'read', 'check-first', 'repeat'],
    never: /ground has changed/,
    why: 'On this ground it was liked before',
  },
  {
    day: 'It rained, but the runs before were not liked either',
    story: () =>
      new DayBuilder()
        .run(6, [{ word: 'nervous', end: 'rear' }])
        .hour({ surface: 'wet', note: 'rain' })
        .run(5.5, [{ word: 'washes-out', end: 'front' }])
        .history(),
    card: ['ask', 'change', 'read', 'check-first'],
    never: /ground has changed/,
    why: 'Nothing was right before the rain that it could have spoilt',
  },
  {
    day: 'The same word, and nobody noted that it got warm',
    story: () =>
      foundAt(
        new DayBuilder()
          .run(7)
          .run(7)
          .run(6, [{ word: 'dives', end: 'front' }])
          .history(),
        12,
        14,
      ),
    card: ['ask', 'change', 'separating-test', 'repeat'],
    never: /For the heat/,
    why: 'Nobody says that it is hot',
  },
  {
    day: 'Found at 24 °C, 3 °C now, “slow when cold” at both ends',
    story: () =>
      foundAt(
        new DayBuilder()
          .at(3)
          .run(6, [{ word: 'slow-when-cold', end: 'both' }])
          .history(),
        24,
        3,
      ),
    card: 'change',
    moves: ['front rebound faster', 'rear rebound faster', 'front compression softer'],
    says: /For the cold/,
    why: 'Thick oil, both ends together',
  },
  {
    day: '8 % quicker than at the start by the clock, and it bottoms at the rear now',
    bike: rear(...shock.adjusters, {
      ...shock.adjusters[1],
      id: 'rc',
      role: 'low-speed-compression',
    } as (typeof shock.adjusters)[number]),
    story: () =>
      new DayBuilder({ fp: 80, fc: 8, fr: 6, rp: 180, rr: 7, rs: 3, rc: 8 })
        .run(7, [], { durationS: 150 })
        .run(7.5, [], { durationS: 149 })
        .change({ fr: 5 })
        .run(7.5, [{ word: 'wallows', end: 'rear' }], { durationS: 139 })
        .run(7, [{ word: 'blows-through', end: 'rear' }], { durationS: 138 })
        .history(),
    card: 'change',
    moves: ['front pressure firmer', 'front compression firmer', 'rear compression firmer'],
    says: /Up to speed.*quicker than when the day began/,
    why: 'The rider has got faster; both ends, one change',
  },
  {
    day: '13 % quicker within three runs on the settings of the morning, liked at first, and it falls through now',
    story: () =>
      new DayBuilder()
        .run(8, [], { durationS: 120 })
        .run(7.5, [{ word: 'blows-through', end: 'front' }], { durationS: 108 })
        .run(6.5, [{ word: 'dives', end: 'front' }], { durationS: 104 })
        .history(),
    card: 'change',
    moves: ['front pressure firmer', 'front compression firmer'],
    says: /Up to speed.*quicker than when the day began/,
    why: 'Nothing was turned: what changed is the pace',
  },
  {
    day: 'The same, and the first run was held back',
    story: () =>
      new DayBuilder()
        .run(8, [], { durationS: 120, effort: 'held-back' })
        .run(7.5, [{ word: 'blows-through', end: 'front' }], { durationS: 108 })
        .run(6.5, [{ word: 'dives', end: 'front' }], { durationS: 104 })
        .history(),
    card: ['ask', 'read', 'change', 'separating-test', 'repeat'],
    never: /Up to speed/,
    why: 'Looking at the trail is no pace',
  },
  {
    day: 'The same, a little quicker than one single run before',
    story: () =>
      new DayBuilder()
        .run(8, [], { durationS: 120 })
        .run(7.5, [{ word: 'blows-through', end: 'front' }], { durationS: 114 })
        .run(6.5, [{ word: 'dives', end: 'front' }], { durationS: 113 })
        .history(),
    card: ['ask', 'read', 'change', 'separating-test', 'repeat'],
    never: /Up to speed/,
    why: 'The first run of a morning is slow by itself',
  },
  {
    day: 'Quicker on the settings of the morning, and it dived from the first run on',
    story: () =>
      new DayBuilder()
        .run(6, [{ word: 'dives', end: 'front' }], { durationS: 120 })
        .run(6, [{ word: 'dives', end: 'front' }], { durationS: 119 })
        .run(6, [{ word: 'dives', end: 'front' }], { durationS: 108 })
        .run(6, [{ word: 'dives', end: 'front' }], { durationS: 107 })
        .history(),
    card: ['ask', 'read', 'change', 'separating-test', 'repeat'],
    never: /Up to speed/,
    why: 'It was so before anybody was quick',
  },
  {
    day: 'Just as quick as at the start, the same words',
    story: () =>
      new DayBuilder()
        .run(7, [], { durationS: 150 })
        .run(7.5, [], { durationS: 149 })
        .change({ fr: 5 })
        .run(7.5, [{ word: 'wallows', end: 'rear' }], { durationS: 149 })
        .run(7, [{ word: 'blows-through', end: 'rear' }], { durationS: 148 })
        .history(),
    card: ['ask', 'read', 'change', 'separating-test', 'repeat'],
    never: /Up to speed/,
    why: 'Nobody got faster: it is one end',
  },
  {
    day: 'Quicker, and nothing is complained of',
    story: () =>
      new DayBuilder()
        .run(7, [], { durationS: 150 })
        .run(7.5, [], { durationS: 149 })
        .change({ fr: 5 })
        .run(8.5, [{ word: 'good', end: 'both' }], { durationS: 139 })
        .run(8.5, [{ word: 'good', end: 'both' }], { durationS: 138 })
        .history(),
    card: ['leave-it', 'repeat', 'settled'],
    never: /Up to speed/,
    why: 'Going faster is what it is for',
  },
  {
    day: 'The front tyre has 21 psi, the bike’s own is 26; “harsh everywhere” in front',
    story: () => ({
      ...new DayBuilder()
        .run(6, [{ word: 'harsh-everywhere', end: 'front' }], { tyreFrontPsi: 31 })
        .history(),
      bikeTyresPsi: { front: 26, rear: 28 },
    }),
    card: 'check-first',
    moves: [],
    says: /front tyre has 5 psi above the bike’s own/i,
    why: 'Tyres first: five psi explain a harsh front',
  },
]

describe('cases of run facts', () => {
  it.each(cases)('$day: $why', (c) => expect(faultsOf(c)).toEqual([]))
})

const weightOf = (over: Partial<Run>, kind: string, end = 'rear', analysis = false) => {
  const day = new DayBuilder().run(6, [], {
    ...over,
    ...(analysis ? { analysis: analysisWith({}, {}) } : {}),
  })
  const cause = diagnose(day.history(), space).find((c) => c.kind === kind && c.end === end)
  return (cause?.evidence ?? []).reduce((t, e) => t + e.weight, 0)
}

describe('a ring', () => {
  it('at full travel weighs most on a careful run, least all out', () => {
    const [careful, usual, hard] = (['held-back', 'usual', 'all-out'] as const).map((effort) =>
      weightOf({ ringRearMm: fullRing, effort }, 'spring-soft'),
    )
    expect(careful).toBeGreaterThan(usual)
    expect(usual).toBeGreaterThan(hard)
    expect(hard).toBeGreaterThan(0)
  })
  it('with travel left says nothing on a careful run', () => {
    expect(weightOf({ ringRearMm: shortRing, effort: 'held-back' }, 'spring-firm')).toBe(0)
    expect(weightOf({ ringRearMm: shortRing, effort: 'all-out' }, 'spring-firm')).toBeGreaterThan(
      weightOf({ ringRearMm: shortRing }, 'spring-firm'),
    )
  })
})

describe('bottom-outs counted by ear', () => {
  it('one now and then on a run all out is fine, two on a usual one are not', () => {
    expect(weightOf({ heardBottomsRear: 2, effort: 'all-out' }, 'ramp-low')).toBe(0)
    expect(weightOf({ heardBottomsRear: 2 }, 'ramp-low')).toBeGreaterThan(0)
    expect(weightOf({ heardBottomsRear: 1 }, 'ramp-low')).toBe(0)
  })
  it('nobody counted is not none', () => {
    const both = (heardBottomsRear: number | null) =>
      diagnose(
        new DayBuilder().run(5, [{ word: 'bottoms', end: 'rear' }], { heardBottomsRear }).history(),
        space,
      ).find((c) => c.kind === 'ramp-low')!.evidence
    expect(both(null).every((e) => e.weight > 0)).toBe(true)
    expect(both(0).some((e) => e.weight < 0 && /Nobody heard/.test(e.text))).toBe(true)
  })
  it('are left to the sensor where there is one', () => {
    expect(weightOf({ heardBottomsRear: 5 }, 'ramp-low', 'rear', true)).toBe(0)
  })
})

describe('two runs', () => {
  const differ = (a: Partial<Run>, b: Partial<Run>) => {
    const h = new DayBuilder().run(7, [], a).run(7, [], b).history()
    return comparable(h, h.runs[0], h.runs[1]).differences
  }
  it('ridden with another effort, or in other air, are not compared as if equal', () => {
    expect(differ({ effort: 'held-back' }, { effort: 'all-out' })).toEqual(['ridden held back, then all out'])
    expect(differ({ airTempC: 12 }, { airTempC: 25 })).toEqual(['13 °C warmer'])
  })
  it('of which one says nothing are', () => {
    expect(differ({}, { effort: 'all-out' })).toEqual([])
    expect(differ({ airTempC: 12 }, { airTempC: 18 })).toEqual([])
  })
  it('of which only one has a ground that somebody noted are not told apart by it', () => {
    const told = (surface: 'wet' | null) => {
      const h = new DayBuilder().run(7).run(7, [], { surface: 'wet' }).history()
      const day = { ...h, conditions: { ...h.conditions, surface } }
      return groundBetween(day, day.runs[0], day.runs[1])
    }
    expect(told(null)).toEqual([])
    expect(told('wet')).toEqual([])
  })
  it('between which the log says that the air or the ground went another way are not', () => {
    const differ = (line: Partial<HourLine>, ...later: Partial<HourLine>[]) => {
      const day = new DayBuilder().run(7).hour(line)
      for (const l of later) day.hour(l)
      const h = day.run(7).history()
      return comparable(h, h.runs[0], h.runs[1]).differences
    }
    expect(differ({ airTempC: 28 })).toEqual(['13 °C warmer'])
    expect(differ({ surface: 'dry-loose' })).toEqual(['the ground damp, then dry and loose'])
    expect(differ({ track: ['rougher', 'drier'] })).toEqual(['the track rougher and drier since'])
    expect(differ({ track: ['rougher'] }, { track: ['smoother'] })).toEqual([])
    expect(differ({ note: 'a van blocks the lower road' })).toEqual([])
  })
  it('both after a line of the log are alike by it', () => {
    const h = new DayBuilder()
      .hour({ airTempC: 28, track: ['rougher'] })
      .run(7)
      .run(7)
      .history()
    expect(comparable(h, h.runs[0], h.runs[1]).differences).toEqual([])
  })
  it('are not told apart by the clock: the better setup may be why one is quicker', () => {
    expect(differ({ durationS: 150 }, { durationS: 120 })).toEqual([])
  })
})

describe('the question whether it is so only since it got hot', () => {
  const asks = (airTempC: number | null) =>
    JSON.stringify(
      advise(
        new DayBuilder()
          .at(12)
          .run(5, [{ word: 'soft-when-hot', end: 'rear' }], { airTempC })
          .history(),
        space,
      ).question,
    ).includes('since-hot')
  it('is put by the air of the run, not by that of the morning', () => {
    expect(asks(30)).toBe(true)
    expect(asks(null)).toBe(false)
  })
})

describe('a plan', () => {
  const bottoms = () =>
    advise(
      new DayBuilder()
        .run(5, [{ word: 'pogo', end: 'rear', strength: 3 }])
        .run(5, [{ word: 'pogo', end: 'rear', strength: 3 }])
        .history(),
      space,
    )
  it('says what follows a change, one step at a time, by how it turns out', () => {
    const p = bottoms()
    expect(p.kind).toBe('change')
    expect(p.plan.map((s) => s.when)).toEqual(['better', 'worse'])
    // Worse: taken back to where it stood, in the count of the part (7 of 14 counted from open).
    expect(p.plan[1].does).toMatch(/^Back to 7 clicks/)
  })
  it('never plans a turn against the leading cause', () => {
    for (const s of bottoms().plan) expect(s.does).not.toMatch(/rear rebound.*faster/i)
  })
  it('does not plan the same turn again where it was worse', () => {
    const p = bottoms()
    expect(p.plan[1].does).not.toContain(p.headline.slice(1))
  })
  it('belongs to turns weighed on what was ridden, not to looks, readings or questions', () => {
    const asked = advise(
      new DayBuilder().run(5, [{ word: 'kicks', end: 'rear' }]).history(),
      front(...fork.adjusters, frontSpacers),
    )
    expect(asked.moves).toEqual([])
    expect(asked.plan).toEqual([])
  })
})
