import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { FeelWord } from '#contract/run'
import { Proposal } from '#contract/proposal'
import { cannotSay } from '../causes/questions.ts'
import {
  analysisWith,
  DayBuilder,
  fork,
  frontPressure,
  rearRebound,
  shock,
  space,
  startPositions,
} from '../test/dayBuilder.ts'
import { canStandAt } from '../adjusters/range.ts'
import { advise } from './advise.ts'
import { bracketOf } from './bracket.ts'
import { outlookOf } from './decide.ts'
import { diagnose } from './diagnose.ts'
import { sessionOf } from './history.ts'
import { oneStep, remedyMoves } from './remedies.ts'
import { summarise } from './summary.ts'
import { withSag } from './test/fieldCase.ts'

const top = (d: DayBuilder) => {
  const c = diagnose(d.history(), space)[0]
  return `${c.kind} ${c.end ?? 'bike'}`
}
const advice = (d: DayBuilder, s = space) => advise(d.history(), s)
const sinking = analysisWith({}, { valleyDriftPctPerHit: 1.6, trains: 5 })
const bouncing = analysisWith(
  {},
  { valleyDriftPctPerHit: 0, trains: 5, reboundDampingRatio: 0.16, reboundDampingHits: 9 },
)

describe('causes', () => {
  it('a kick is read as rebound too fast when nothing else is known', () => {
    expect(top(new DayBuilder().run(5, [{ word: 'kicks', strength: 3 }]))).toBe('rebound-fast rear')
  })
  it('the same kick with valleys that sink through hit trains is packing: rebound too slow', () => {
    expect(top(new DayBuilder().run(5, [{ word: 'kicks', strength: 3 }], { analysis: sinking }))).toBe(
      'rebound-slow rear',
    )
  })
  it('and with an undamped return it is rebound too fast, however rough the roots', () => {
    expect(
      top(
        new DayBuilder().run(5, [{ word: 'kicks', strength: 3, sectionId: 'roots' }], { analysis: bouncing }),
      ),
    ).toBe('rebound-fast rear')
  })
  it('stay probabilities whatever is said', () => {
    fc.assert(
      fc.property(
        fc.array(
          fc.record({
            word: fc.constantFrom(...FeelWord.options),
            end: fc.constantFrom('front' as const, 'rear' as const, 'both' as const),
            strength: fc.constantFrom(1 as const, 2 as const, 3 as const),
          }),
          { maxLength: 12 },
        ),
        (marks) => {
          const causes = diagnose(new DayBuilder().run(5, marks).history(), space)
          const sum = causes.reduce((s, c) => s + c.probability, 0)
          return (
            causes.every((c) => c.probability > 0.05) &&
            sum <= 1 + 1e-9 &&
            causes.every((c, i) => i === 0 || c.probability <= causes[i - 1].probability)
          )
        },
      ),
      { numRuns: 60 },
    )
  })
  it('every cause that was kept shows what speaks for it', () => {
    for (const c of diagnose(new DayBuilder().run(5, [{ word: 'bottoms', end: 'front' }]).history(), space)) {
      if (c.kind !== 'none' && c.kind !== 'line-or-rider') expect(c.evidence.length).toBeGreaterThan(0)
    }
  })
  it('a complaint made in a nervous run weighs less', () => {
    const p = (mind: 'normal' | 'nervous') =>
      diagnose(new DayBuilder().run(5, [{ word: 'pogo' }], { mind }).history(), space).find(
        (c) => c.kind === 'rebound-fast',
      )!.probability
    expect(p('nervous')).toBeLessThan(p('normal'))
  })
})

describe('advice', () => {
  it('asks for a warm-up and a baseline before anything else', () => {
    expect(advice(new DayBuilder()).kind).toBe('log-first-run')
    expect(advice(new DayBuilder().run(4, [{ word: 'pogo' }], { kind: 'warm-up' })).headline).toMatch(
      /baseline run/,
    )
  })
  it('asks for the feel before it says anything', () => {
    expect(advice(new DayBuilder().run(null)).kind).toBe('tell-the-feel')
  })
  it('proposes one click in the units of the part, with reasons and a caution', () => {
    const p = advice(
      new DayBuilder().run(5, [{ word: 'harsh-gets-worse', sectionId: 'roots', strength: 3 }], {
        analysis: sinking,
      }),
    )
    expect(p.kind).toBe('change')
    expect(p.headline).toMatch(/^Rear rebound, [12] clicks? faster$/)
    expect(p.moves).toEqual([{ end: 'rear', adjusterId: rearRebound.id, from: 7, to: expect.any(Number) }])
    expect(p.outlook!.gain).toBeGreaterThan(0)
    expect(p.outlook!.better).toBeGreaterThan(0.5)
    expect(p.speaksFor.length).toBeGreaterThanOrEqual(2)
    expect(p.watchFor).toMatch(/Root web/)
    expect(p.caution).toMatch(/throw a rider/)
  })
  it('puts a spring that is measurably wrong before a damper', () => {
    const deep = analysisWith({}, { rideHeightPct: 42, valleyDriftPctPerHit: 1.2, trains: 4 })
    const p = advice(new DayBuilder().run(5, [{ word: 'harsh-gets-worse' }], { analysis: deep }))
    expect(p.headline).toMatch(/^Rear pressure, \d+ psi firmer$/)
  })
  it('offers a test, not a guess, when two likely causes need opposite moves', () => {
    const kick = [{ word: 'kicks', sectionId: 'roots', strength: 2 }] as const
    expect(advice(new DayBuilder().run(5, [...kick])).kind).toBe('ask')
    const unsaid = { question: 'kicks-when', end: 'rear', answer: cannotSay } as const
    const p = advice(new DayBuilder().run(5, [...kick], { answers: [unsaid] }))
    expect(p.kind).toBe('separating-test')
    expect(p.watchFor).toMatch(/single hit/)
  })
  it('leaves a happy rider alone', () => {
    expect(advice(new DayBuilder().run(8.5, [{ word: 'good', end: 'both' }])).kind).toBe('leave-it')
  })
  it.each([3, 6, 7])(
    'takes a wordless %i for a run on which nothing was said, not for happiness',
    (rating) => {
      for (const runs of [1, 3, 5]) {
        const d = new DayBuilder()
        for (let i = 0; i < runs; i++) d.run(rating)
        // A dial, or asked or read before one is turned: neither settled nor another ride of the same.
        expect(advice(d).kind).toMatch(runs === 1 ? /^(ask|change|read)$/ : /^(change|read)$/)
      }
    },
  )
  it('goes back after a change for the worse', () => {
    const p = advice(
      new DayBuilder()
        .run(7)
        .run(7)
        .change({ rr: 9 })
        .run(4, [{ word: 'pogo' }], { against: [2, -2] }),
    )
    expect(p.kind).toBe('go-back')
    expect(p.setupId).toBe('setup1')
    expect(p.speaksFor[0].text).toMatch(
      /^Ridden once, the present one leans toward worse\. Chance .* better: \d %/,
    )
  })
  it('and says by how much it is worse where both were ridden twice', () => {
    const p = advice(
      new DayBuilder()
        .run(8)
        .run(8)
        .change({ rr: 9 })
        .run(3, [], { against: [2, -2] })
        .run(3, [], { against: [2, -2] }),
    )
    expect(p.kind).toBe('go-back')
    expect(p.speaksFor[0].text).toMatch(/^Worse, by about \d\.\d rating points\./)
  })
  describe('once it has gone back', () => {
    const wentBack = () =>
      new DayBuilder()
        .run(6.5, [{ word: 'harsh-everywhere', end: 'front' }])
        .run(6.5, [{ word: 'harsh-everywhere', end: 'front' }])
        .change({ rr: 9 })
        .run(4, [{ word: 'pogo', strength: 3 }], { against: [2, -2] })
        .change({ rr: 7 }, { source: 'revert' })
    it('what is next is turned or read from there at once, asked is nothing, and it is held against those runs', () => {
      const read = withSag(wentBack().history(), { front: 20, rear: 30 })
      for (const h of [wentBack().history(), read]) {
        const p = advise(h, space)
        expect(p.kind).toMatch(/^(change|read)$/)
        expect(p.question).toBeNull()
      }
      const p = advise(read, space)
      expect(p.kind).toBe('change')
      // What was just worse is not tried again.
      expect(p.moves.some((m) => m.adjusterId === 'rr' && m.to > m.from)).toBe(false)
      expect(p.speaksFor.map((e) => e.text)).toContain('Gone back to run 2: it is held against that one')
      const [{ adjusterId, to }] = p.moves
      const turned = withSag(
        wentBack()
          .change({ [adjusterId]: to })
          .history(),
        { front: 20, rear: 30 },
      )
      const next = advise(turned, space)
      expect(next.kind).toBe('ride-it')
      // One thing is new, and what was taken back is not.
      expect(next.speaksFor.map((e) => e.text)).toEqual([expect.stringMatching(/^New against run 2: /)])
    })
    it('where nobody can tell which was better, it is ridden again before anything is turned or asked', () => {
      const d = new DayBuilder()
        .run(6.5, [{ word: 'harsh-everywhere', end: 'front' }])
        .change({ rr: 9 })
        .run(6.5, [{ word: 'harsh-everywhere', end: 'front' }], { against: [1, 0] })
        .change({ rr: 7 }, { source: 'revert' })
      const p = advice(d)
      expect(p).toMatchObject({ kind: 'ride-it', moves: [], question: null })
      expect(p.speaksFor.map((e) => e.text)).toEqual(['Other settings were ridden since run 1'])
      expect(advice(d.run(6.5)).kind).not.toBe('ride-it')
    })
    it('one run here, however good, is not held against a third setting before it is ridden again', () => {
      const others = (n: number) => {
        const d = new DayBuilder().run(9, [{ word: 'harsh-everywhere', end: 'front', strength: 3 }])
        for (let i = 1; i <= n; i++)
          d.change({ rr: 7 + i })
            .run(4, [{ word: 'pogo', strength: 3 }], { against: [1, -2] })
            .change({ rr: 7 }, { source: 'revert' })
        return advise(withSag(d.history(), { front: 20, rear: 30 }), space)
      }
      expect(others(2).kind).not.toBe('ride-it')
      expect(others(3).kind).toBe('ride-it')
    })
    it('nor is it called good without that, where nothing is left to turn at', () => {
      const d = new DayBuilder()
        .run(9, [{ word: 'good', end: 'both' }])
        .change({ rr: 9 })
        .run(4, [{ word: 'pogo', strength: 3 }], { against: [1, -2] })
        .change({ rr: 7 }, { source: 'revert' })
      expect(advice(d).kind).toBe('ride-it')
    })
    it('what is turned without that is one change from settings that were ridden, and no tangle', () => {
      const d = wentBack().change({ fc: 9 })
      expect(advice(d).kind).toBe('ride-it')
      expect(advice(d.run(7)).kind).not.toBe('untangle')
    })
    it('but a turn on top of one that was never ridden stays two at once', () => {
      const d = wentBack().change({ fc: 9 }).change({ fr: 5 }).run(7)
      expect(advice(d).kind).toBe('untangle')
    })
    it('on race day nothing is ridden again to be sure', () => {
      const race = { ...wentBack().history(), purpose: 'race' as const }
      expect(advise(race, space).kind).not.toBe('ride-it')
    })
  })
  it('leaves praise alone, but calls it settled only once the dials were looked at', () => {
    const d = new DayBuilder()
      .run(6.5, [{ word: 'harsh-gets-worse', strength: 1 }])
      .change({ rr: 8 })
      .run(8.5, [{ word: 'good', end: 'both', strength: 3 }], { against: [1, 2] })
    for (let i = 0; i < 6; i++) {
      d.run(8.5, [{ word: 'good', end: 'both', strength: 3 }])
      expect(advice(d).kind).toBe('leave-it')
    }
  })
  it('settles, with reasons, where both ways of each dial were worse', () => {
    const only = { front: null, rear: { ...shock, adjusters: [rearRebound] } }
    const d = new DayBuilder({ rr: 7 }).run(8, [{ word: 'good', strength: 2 }])
    for (const [to, rating, word] of [
      [5, 5.5, 'harsh-gets-worse'],
      [9, 5.5, 'pogo'],
    ] as const)
      d.change({ rr: to }).run(rating, [{ word, strength: 3 }])
    d.change({ rr: 7 }, { source: 'revert' })
    for (let i = 0; i < 3; i++) d.run(8, [{ word: 'good', strength: 2 }])
    const p = advise(d.history(), only)
    expect(p.kind).toBe('settled')
    const silent = new DayBuilder({ rr: 7 })
    for (let i = 0; i < 12; i++) silent.run(8)
    expect(advise(silent.history(), only).kind).not.toBe('settled')
    expect(p.moves).toEqual([])
    expect(p.speaksFor.map((e) => e.text).join(' ')).toMatch(/Ridden \d+ times.*what you would notice/)
  })
  it('calls two changes at once a tangle and shows the way out', () => {
    const p = advice(
      new DayBuilder()
        .run(6)
        .change({ rr: 9 })
        .change({ fc: 11 })
        .run(5, [{ word: 'nervous' }]),
    )
    expect(p.kind).toBe('untangle')
    expect(p.setupId).toBe('setup1')
    expect(p.speaksFor).toHaveLength(2)
  })
  it('a spacer with its pressure, marked as linked, is no tangle', () => {
    const p = advice(
      new DayBuilder()
        .run(6)
        .change({ rs: 2, rp: 172 }, { linked: true })
        .run(8, [], { against: [1, 2] }),
    )
    expect(p.kind).not.toBe('untangle')
  })
  it('stops at the day’s limit', () => {
    const d = new DayBuilder()
      .allow(1)
      .run(5, [{ word: 'pogo' }])
      .change({ rr: 6 })
      .run(8, [{ word: 'pogo' }], { against: [1, 2] })
      .run(8, [{ word: 'pogo' }])
    expect(advice(d).headline).toMatch(/Enough/)
  })
  it('names the substitute and its side effect when the right part is missing', () => {
    const bare = { front: { ...fork, adjusters: [frontPressure] }, rear: shock }
    const d = new DayBuilder({ fp: 80, rp: 180, rr: 7, rs: 1 }).run(5, [
      { word: 'dives', end: 'front', strength: 3 },
    ])
    d.readSag('front', 21)
    const p = advice(d, bare)
    expect(p.moves[0].adjusterId).toBe('fp')
    expect(p.moves[0].to).toBeGreaterThan(80)
  })
  it('never goes back to a position the part no longer has', () => {
    const d = new DayBuilder({ ...startPositions, rr: 14 })
      .run(8)
      .run(8)
      .change({ rr: 9 })
      .run(4, [{ word: 'dead' }])
    const recounted = {
      front: fork,
      rear: {
        ...shock,
        adjusters: shock.adjusters.map((a) =>
          a.id === 'rr' && a.kind === 'click' ? { ...a, clicks: 12 } : a,
        ),
      },
    }
    expect(advice(d).kind).toBe('go-back')
    expect(advice(d, recounted).kind).not.toBe('go-back')
  })
  it('is always a valid proposal with moves the part can make, whatever the day looked like', () => {
    const word = fc.constantFrom(...FeelWord.options)
    const step = fc.record({
      rating: fc.option(fc.integer({ min: 1, max: 10 })),
      words: fc.array(word, { maxLength: 3 }),
      end: fc.constantFrom('front' as const, 'rear' as const, 'both' as const),
      kind: fc.constantFrom('counted' as const, 'warm-up' as const),
      rebound: fc.integer({ min: 0, max: 14 }),
      psi: fc.integer({ min: 100, max: 300 }),
    })
    fc.assert(
      fc.property(fc.array(step, { maxLength: 8 }), fc.nat(3), (steps, tapped) => {
        const d = new DayBuilder()
        for (const s of steps) {
          if (s.rebound % 2) d.change({ rr: s.rebound, ...(s.rebound % 3 ? {} : { rp: s.psi }) })
          d.run(
            s.rating,
            s.words.map((w) => ({ word: w, end: s.end })),
            { kind: s.kind },
          )
        }
        // Whatever is tapped, the next card is as valid.
        const asked = advice(d).question
        const tap = asked?.answers[tapped % asked.answers.length]
        if (asked && tap) d.answer({ question: asked.id, end: asked.end, answer: tap.id })
        const p = advice(d)
        // The story's ids are short names, not UUIDs; everything else must fit the contract.
        const faults = Proposal.safeParse(JSON.parse(JSON.stringify(p))).error?.issues.filter(
          (i) => !(i.code === 'invalid_format' && i.format === 'uuid'),
        )
        if (faults?.length) return false
        const all = [...fork.adjusters, ...shock.adjusters]
        return p.moves.every(
          (m) =>
            canStandAt(
              all.find((a) => a.id === m.adjusterId)!,
              m.to,
            ) && m.from !== m.to,
        )
      }),
      { numRuns: 150 },
    )
  })
})

describe('steps', () => {
  it('stop at the end of the range', () => {
    expect(oneStep(rearRebound, 14, 1)).toBeNull()
    expect(oneStep(frontPressure, 139, 1)).toBeNull()
    expect(oneStep(frontPressure, 80, 1)).toBe(83)
  })
  it('answer only with what is fitted', () => {
    expect(
      remedyMoves('ramp-low', 'front', { front: { ...fork, adjusters: [] }, rear: null }, new Map()),
    ).toEqual([])
  })
})

describe('what the day has shown', () => {
  it('brackets an adjuster between places that were worse', () => {
    const d = new DayBuilder()
      .run(5)
      .run(5)
      .change({ rr: 9 })
      .run(8)
      .run(8.5)
      .change({ rr: 12 })
      .run(4)
      .run(4.5)
    const h = d.history()
    const b = bracketOf(h, rearRebound, sessionOf(h), outlookOf(h, space))!
    expect(b.tried.map((t) => t.value)).toEqual([7, 9, 12])
    expect(b.tried.slice(0, 2).map((t) => t.outcome)).toEqual(['start', 'better'])
    expect(b.tried[2].outcome).not.toBe('better')
    expect(b).toMatchObject({ lowOpen: false, highOpen: false })
    expect(b.low).toBeGreaterThanOrEqual(7)
    expect(b.low).toBeLessThanOrEqual(9)
    expect(b.high).toBeGreaterThanOrEqual(9)
    expect(b.high).toBeLessThanOrEqual(12)
  })
  it('says that nothing is known before the baseline', () => {
    expect(summarise(new DayBuilder().history(), space).words).toMatch(/baseline/)
  })
  it('says which way an adjuster was not tried yet', () => {
    expect(summarise(new DayBuilder().run(5).change({ rr: 8 }).run(7).history(), space).words).toMatch(
      /Rear rebound was not tried (either way|in one direction) yet/,
    )
  })
  it('all-equal ratings settle nothing and invent nothing', () => {
    const d = new DayBuilder().run(6).change({ rr: 8 }).run(6).change({ rr: 9 }).run(6)
    const known = summarise(d.history(), space)
    expect(known.settled).toBe(false)
    expect(known.notes.join(' ')).toMatch(/Every run was rated 6/)
    const { low, high } = known.brackets[0].bracket
    expect(high - low).toBeGreaterThanOrEqual(4)
  })
})
