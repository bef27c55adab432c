import { describe, expect, it } from 'vitest'
import type { Adjuster } from '#contract/adjuster'
import type { Mark } from '#contract/run'
import { cannotSay } from '../causes/questions.ts'
import { seededRandom } from '../numeric/random.ts'
import { netPressurePsi } from '../spring/air.ts'
import { unitAir } from '../spring/unitSpring.ts'
import {
  analysisWith,
  DayBuilder,
  fork,
  frontPressure,
  rearRebound,
  rearSpacers,
  shock,
  space,
} from '../test/dayBuilder.ts'
import { changesMade } from '../setup/undo.ts'
import { advise } from './advise.ts'
import { belongTogether, stepsOf } from './candidates.ts'
import { comparable } from './comparable.ts'
import { contradictions } from './contradictions.ts'
import { outlookOf } from './decide.ts'
import { diagnose } from './diagnose.ts'
import { dialsOf, shareOfClick } from './dials.ts'
import type { DayHistory, SetupSpace } from './dayHistory.ts'
import { sessionOf } from './history.ts'
import { judgeDay } from './judge.ts'
import { answersOf } from './remedies.ts'

const sinking = { analysis: analysisWith({}, { valleyDriftPctPerHit: 1.4, trains: 5 }) }
const bouncing = {
  analysis: analysisWith(
    {},
    { valleyDriftPctPerHit: 0, trains: 5, reboundDampingRatio: 0.14, reboundDampingHits: 9 },
  ),
}
const kick: Partial<Mark> = { word: 'kicks', sectionId: 'roots', strength: 3 }
const isValid = (h: DayHistory, s: SetupSpace = space) => {
  const { proposal, knowledge } = judgeDay(h, s)
  expect(proposal.headline.length).toBeGreaterThan(0)
  expect(knowledge.words.length).toBeGreaterThan(0)
  return { proposal, knowledge }
}

describe('the trap: a kick that is really packing', () => {
  it('is answered by opening rebound where the valleys sink', () => {
    const p = advise(new DayBuilder().run(5, [kick], sinking).run(5, [kick], sinking).history(), space)
    expect(p.moves[0]).toMatchObject({ adjusterId: rearRebound.id })
    expect(p.moves[0].to).toBeGreaterThan(p.moves[0].from)
  })
  it('and by closing it where the rear bounces on, on the very same word', () => {
    const p = advise(new DayBuilder().run(5, [kick], bouncing).run(5, [kick], bouncing).history(), space)
    expect(p.moves[0]).toMatchObject({ adjusterId: rearRebound.id })
    expect(p.moves[0].to).toBeLessThan(p.moves[0].from)
  })
  it('without any figure, and where the rider cannot say, it is a test, and both causes are on the card', () => {
    const unsaid = { question: 'kicks-when', end: 'rear', answer: cannotSay } as const
    const p = advise(
      new DayBuilder().run(5, [{ ...kick, strength: 2 }], { answers: [unsaid] }).history(),
      space,
    )
    expect(p.kind).toBe('separating-test')
    expect(p.causes.map((c) => c.kind)).toEqual(expect.arrayContaining(['rebound-fast', 'rebound-slow']))
    expect(p.speaksFor.length * p.speaksAgainst.length).toBeGreaterThan(0)
  })
  it('once the dial was moved, the runs decide and no test is asked for again', () => {
    const d = new DayBuilder()
      .run(5, [{ ...kick, strength: 2 }])
      .change({ rr: 8 })
      .run(5, [{ ...kick, strength: 2 }])
    expect(advise(d.history(), space).kind).not.toBe('separating-test')
  })
})

describe('what does not fit together', () => {
  const threeWays = () =>
    new DayBuilder()
      .run(6)
      .change({ rr: 8 })
      .run(6, [], { against: [1, 1] })
      .change({ rr: 9 })
      .run(6.5, [], { against: [2, 1] })
  it('a loop of verdicts is named, and settles nothing', () => {
    const d = threeWays()
      .change({ rr: 7 })
      .run(6.5, [], { against: [3, 1] })
    const { knowledge, proposal } = isValid(d.history())
    expect(knowledge.notes.join(' ')).toMatch(/better than the next, all round/)
    expect(knowledge.settled).toBe(false)
    expect(proposal.kind).not.toBe('settled')
    expect(contradictions(threeWays().history(), space).join(' ')).not.toMatch(/all round/)
  })
  it('words that ask for opposite turns of one dial are both kept', () => {
    const d = new DayBuilder().run(5, [{ word: 'pogo' }, { word: 'stays-down' }])
    expect(contradictions(d.history(), space).join(' ')).toMatch(/opposite turns/)
    const kinds = diagnose(d.history(), space).map((c) => c.kind)
    expect(kinds).toEqual(expect.arrayContaining(['rebound-fast', 'rebound-slow']))
  })
  it('one run only, ratings missing: nothing is claimed', () => {
    const one = isValid(new DayBuilder().run(6, [{ word: 'dives', end: 'front' }]).history())
    expect(one.knowledge.settled).toBe(false)
    const unrated = isValid(
      new DayBuilder()
        .run(null, [{ word: 'pogo' }])
        .run(null, [{ word: 'pogo' }])
        .history(),
    )
    expect(unrated.knowledge.expectedLoss).toBeNull()
    expect(unrated.proposal.moves[0]?.to).toBeLessThan(7)
  })
  it('an adjuster that is gone since, or one recounted shorter than where it stood', () => {
    const d = new DayBuilder()
      .run(6, [{ word: 'pogo' }])
      .change({ rr: 12 })
      .run(5, [{ word: 'stays-down' }])
    const without: SetupSpace = {
      front: fork,
      rear: { ...shock, adjusters: shock.adjusters.filter((a) => a.id !== 'rr') },
    }
    expect(isValid(d.history(), without).proposal.moves.some((m) => m.adjusterId === 'rr')).toBe(false)
    const shorter: SetupSpace = {
      front: fork,
      rear: {
        ...shock,
        adjusters: shock.adjusters.map((a) => (a.kind === 'click' ? { ...a, clicks: 10 } : a)),
      },
    }
    for (const m of isValid(d.history(), shorter).proposal.moves) expect(m.to).toBeLessThanOrEqual(10)
  })
  it('other tyres, another ground or another fork are said, and count a quarter', () => {
    const d = new DayBuilder().run(8, [], { tyreRearPsi: 24 }).run(5, [], { tyreRearPsi: 28, surface: 'mud' })
    const h = d.history()
    expect(comparable(h, h.runs[0], h.runs[1])).toEqual({
      equal: false,
      differences: ['rear tyre 4 psi apart', 'the ground damp, then muddy'],
    })
    expect(contradictions(h, space).join(' ')).toMatch(/Run 1 had .* they count a quarter/)
    const level = (surface: 'mud' | null) =>
      sessionOf(new DayBuilder().run(8, [], { surface }).run(5).run(5).history()).level(
        'fc=8.000|fp=80.000|fr=6.000|rp=180.000|rr=7.000|rs=1.000',
      ).sd
    expect(level('mud')).not.toBeCloseTo(level(null), 3)
  })
})

describe('a settled day', () => {
  const settled = (d: DayBuilder) => ({ ...d.history(), settledSetupId: 'setup1' })
  const good = () => new DayBuilder().run(8.5).run(8.5)
  it('is opened again by two bad runs with one complaint, not by one', () => {
    const once = good().run(5, [{ word: 'pogo' }])
    expect(advise(settled(once), space).kind).toBe('leave-it')
    const twice = once.run(5.5, [{ word: 'pogo' }])
    const p = advise(settled(twice), space)
    expect(p.headline).toMatch(/no longer/)
    expect(p.watchFor).toMatch(/not a dial/)
  })
  it('wakes when both runs fell, though each says something else', () => {
    const d = good()
      .run(5, [{ word: 'pogo' }])
      .run(5, [{ word: 'dives', end: 'front' }])
    expect(advise(settled(d), space).kind).toBe('check-first')
  })
})

describe('race day', () => {
  const race = (d: DayBuilder): DayHistory => ({ ...d.history(), purpose: 'race' })
  it('tries nothing new, whatever is complained of', () => {
    const p = advise(race(new DayBuilder().run(6, [{ word: 'pogo', strength: 3 }], bouncing)), space)
    expect(p).toMatchObject({ kind: 'leave-it', moves: [] })
  })
  it('answers heat with one click', () => {
    const p = advise(
      race(new DayBuilder().at(34).run(6, [{ word: 'soft-when-hot', end: 'both', strength: 3 }])),
      space,
    )
    expect(p.kind).toBe('change')
    expect(p.moves).toHaveLength(1)
    expect(p.moves[0].to).toBe(p.moves[0].from - 1)
  })
  it('goes back to what is known', () => {
    const d = new DayBuilder()
      .run(8)
      .run(8)
      .change({ rr: 9 })
      .run(4, [], { against: [2, -2] })
    expect(advise(race(d), space).kind).toBe('go-back')
  })
})

describe('what bench and weather say', () => {
  const found = (over: Partial<NonNullable<DayHistory['setups'][0]['foundIn']>>): DayHistory => {
    const h = new DayBuilder()
      .at(30)
      .run(6, [{ word: 'nervous' }])
      .history()
    const foundIn = {
      airTempC: 8,
      altitudeM: 300,
      place: '',
      sagFrontPct: 20,
      sagRearPct: 30,
      postureFront: null,
      postureRear: null,
      ...over,
    }
    return { ...h, setups: h.setups.map((s) => ({ ...s, foundIn })) }
  }
  const says = (h: DayHistory, text: RegExp) =>
    diagnose(h, space).some((c) => c.evidence.some((e) => text.test(e.text)))
  it('sag off its target on the bench speaks for the spring, sag at its target against what is said of it', () => {
    expect(says(found({ sagRearPct: 38 }), /Rear sag was 38 % on the bench/)).toBe(true)
    expect(says(found({}), /sag was .* its target is/)).toBe(false)
    const right = diagnose(found({}), space).flatMap((c) =>
      c.evidence.filter((e) => /sag was .*: right/.test(e.text)),
    )
    expect(right.length).toBeGreaterThan(0)
    expect(right.every((e) => e.weight < 0)).toBe(true)
  })
  it('a day much warmer than where the setup was found speaks for the oil', () => {
    expect(says(found({}), /22 °C warmer than where the setup was found/)).toBe(true)
    expect(says(found({ airTempC: 25 }), /where the setup was found/)).toBe(false)
  })
  it('a lever left firm is found out', () => {
    const lever: Adjuster = {
      id: 'rl',
      alias: null,
      tool: 'hand',
      kind: 'lever',
      role: 'lever',
      positions: ['Open', 'Firm'],
    }
    const d = new DayBuilder({ fp: 80, fc: 8, fr: 6, rp: 180, rr: 7, rs: 1, rl: 1 }).run(5, [
      { word: 'harsh-everywhere' },
    ])
    const causes = diagnose(d.history(), {
      front: fork,
      rear: { ...shock, adjusters: [...shock.adjusters, lever] },
    })
    expect(causes[0]).toMatchObject({ kind: 'lsc-closed', end: 'rear' })
  })
})

describe('one change', () => {
  const dials = dialsOf(space)
  const dial = (id: string) => dials.find((d) => d.adjuster.id === id)!
  it('is at most four clicks, and two near a stop', () => {
    expect(stepsOf(dial('rr'), 7)).toEqual([3, 4, 5, 6, 8, 9, 10, 11])
    expect(Math.max(...stepsOf(dial('rr'), 12))).toBe(14)
    expect(stepsOf(dial('rr'), 11)).not.toContain(14)
    expect(stepsOf(dial('rr'), 1)[0]).toBe(0)
  })
  it('is 2 to about 8 % of a pressure, never under 2 psi, and one spacer', () => {
    expect(stepsOf(dial('fp'), 80)).toEqual([74, 76, 78, 82, 84, 86])
    expect(stepsOf(dial('rs'), 1)).toEqual([0, 2])
    expect(stepsOf(dial('rs'), 3)).toEqual([2])
  })
  it('of a spacer brings the pressure of the same sag along, as one linked change', () => {
    const d = new DayBuilder().run(5, [{ word: 'harsh-and-bottoms', strength: 3 }])
    const s = outlookOf(d.history(), space)
    const spacer = s.candidates.filter((c) => c.steps.some((x) => s.dials[x.dial].adjuster.id === 'rs'))
    expect(spacer.length).toBeGreaterThan(0)
    for (const c of spacer) {
      const [first, second] = c.steps
      expect(s.dials[second.dial].adjuster.id).toBe('rp')
      // More spacers at the same sag need a little less air, fewer a little more.
      expect(Math.sign(second.to - second.from)).toBe(-Math.sign(first.to - first.from))
      const { shape } = unitAir(shock)
      const load = (psi: number, spacers: number) => netPressurePsi(0.3, psi, shape, { spacers })
      expect(Math.abs(load(second.to, first.to) / load(180, 1) - 1)).toBeLessThan(0.01)
    }
  })
  it('may be a pair of one end that belongs together, and no other', () => {
    expect(belongTogether(dial('rp'), dial('rr'))).toBe(true)
    expect(belongTogether(dial('rp'), dial('rs'))).toBe(true)
    expect(belongTogether(dial('fp'), dial('rr'))).toBe(false)
    expect(belongTogether(dial('fc'), dial('fr'))).toBe(false)
  })
  it('of a dial that was not moved today is three clicks at most, of rebound two', () => {
    const d = new DayBuilder()
    for (let i = 0; i < 4; i++) d.run(3, [{ word: 'harsh-gets-worse', strength: 3 }], sinking)
    const s = outlookOf(d.history(), space)
    for (const c of s.candidates)
      for (const x of c.steps)
        if (s.dials[x.dial].adjuster.kind === 'click') {
          const isRebound = s.dials[x.dial].adjuster.role === 'rebound'
          expect(Math.abs(x.to - x.from)).toBeLessThanOrEqual(isRebound ? 2 : 3)
        }
  })
  it('measures dials alike: a click, 2 % of a pressure, a third of a spacer; there and back', () => {
    const fp = dial('fp')
    expect(fp.toClicks(80 * Math.exp(shareOfClick)) - fp.toClicks(80)).toBeCloseTo(1, 9)
    expect(dial('rs').toClicks(2) - dial('rs').toClicks(1)).toBe(3)
    for (const d of dials) expect(d.fromClicks(d.toClicks(3))).toBeCloseTo(3, 9)
  })
  it('a missing part is answered by its substitute, a whole-bike cause at either end', () => {
    const bare: SetupSpace = { front: { ...fork, adjusters: [frontPressure] }, rear: null }
    expect(answersOf('lsc-open', 'front', bare)).toMatchObject([{ direction: 1, standIn: true }])
    expect(answersOf('nose-low', null, space).map((a) => a.end)).toEqual(['front', 'rear'])
    expect(answersOf('tyres', null, space)).toEqual([])
    expect(answersOf('ramp-low', 'rear', space)[0].adjuster).toBe(rearSpacers)
  })
})

describe('virtual riders who tell the truth', () => {
  it('are brought near their best place, and told when to stop', () => {
    const random = seededRandom(12)
    const best = { fr: 9, fc: 5, rr: 10 }
    const three: SetupSpace = {
      front: { ...fork, adjusters: fork.adjusters.filter((a) => a.kind === 'click') },
      rear: { ...shock, adjusters: [rearRebound] },
    }
    let now: Record<string, number> = { fr: 6, fc: 8, rr: 7 }
    const d = new DayBuilder(now).allow(30)
    const loss = (p: Record<string, number>) =>
      Object.entries(best).reduce((s, [id, b]) => s + ((p[id] - b) / 3) ** 2, 0)
    let runs = 0
    let kind = ''
    for (; runs < 25 && kind !== 'settled'; runs++) {
      const marks: Partial<Mark>[] = []
      const off = (id: keyof typeof best) => now[id] - best[id]
      if (off('rr') < -1) marks.push({ word: 'stays-down', end: 'rear' })
      if (off('fr') < -1) marks.push({ word: 'stays-down', end: 'front' })
      if (off('fc') > 1) marks.push({ word: 'dives', end: 'front' })
      if (marks.length === 0) marks.push({ word: 'good', end: 'both' })
      d.run(Math.round(2 * (8.5 - loss(now) + 0.4 * (random() - random()))) / 2, marks)
      const p = advise(d.history(), three)
      kind = p.kind
      const back = d.history().setups.find((s) => s.id === p.setupId)
      const to = back
        ? Object.fromEntries(back.positions.map((x) => [x.adjusterId, x.value]))
        : Object.fromEntries(p.moves.map((m) => [m.adjusterId, m.to]))
      if (Object.keys(to).length === 0) continue
      now = { ...now, ...to }
      d.change(to, { linked: p.moves.length > 1, source: back ? 'revert' : 'proposal' })
    }
    expect(kind).toBe('settled')
    expect(loss(now)).toBeLessThan(0.7)
    expect(changesMade(d.history().setups, 'day')).toBeLessThan(runs)
  })
})
