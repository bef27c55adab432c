import { describe, expect, it } from 'vitest'
import { CauseKind } from '#contract/proposal'
import { FeelWord, type Mark } from '#contract/run'
import type { EndMetrics } from '#contract/recording'
import { diagnose } from '../adviser/diagnose.ts'
import { remedyMoves } from '../adviser/remedies.ts'
import { analysisWith, DayBuilder, space, startPositions } from '../test/dayBuilder.ts'
import { causeLabel, handChecks } from './kinds.ts'
import { metricFindings } from './metricRules.ts'
import { posterior, type Finding } from './posterior.ts'
import { isComplaint, isMeant, wordRules } from './words.ts'

const said = (word: FeelWord, end: Mark['end'], more: Partial<Mark> = {}) =>
  diagnose(new DayBuilder().run(5, [{ word, end, strength: 3, ...more }]).history(), space)
const name = (c: { kind: string; end: string | null }) => `${c.kind} ${c.end ?? 'bike'}`

describe('one strong word, nothing else known', () => {
  const likely: [FeelWord, 'front' | 'rear', string][] = [
    ['kicks', 'rear', 'rebound-fast rear'],
    ['pogo', 'front', 'rebound-fast front'],
    ['harsh-gets-worse', 'front', 'rebound-slow front'],
    ['harsh-square-edge', 'rear', 'hsc-closed rear'],
    ['harsh-everywhere', 'front', 'spring-firm front'],
    ['harsh-and-bottoms', 'front', 'ramp-low front'],
    ['dives', 'front', 'lsc-open front'],
    ['wallows', 'rear', 'lsc-open rear'],
    ['blows-through', 'front', 'lsc-open front'],
    ['stretched', 'rear', 'nose-high bike'],
    ['nose-heavy', 'front', 'nose-low bike'],
    ['dead', 'rear', 'rebound-slow rear'],
    ['stays-down', 'rear', 'rebound-slow rear'],
    ['pedal-bob', 'rear', 'lsc-open rear'],
    ['pedals-strike', 'rear', 'spring-soft rear'],
    ['soft-when-hot', 'front', 'heat bike'],
  ]
  it.each(likely)('%s at the %s points first at %s', (word, end, cause) => {
    expect(name(said(word, end)[0])).toBe(cause)
  })
  it('keeps the look-alikes alive: a kick may still be a soft spring or packing', () => {
    const causes = said('kicks', 'rear').map(name)
    expect(causes).toContain('spring-soft rear')
    expect(causes).toContain('rebound-slow rear')
  })
  it('bottoming leaves spring and ramp level, for only sag tells them apart', () => {
    const causes = said('bottoms', 'rear')
    const p = (kind: string) => causes.find((c) => c.kind === kind)!.probability
    expect(p('spring-soft')).toBeCloseTo(p('ramp-low'), 6)
  })
})

describe('the section a word was said in', () => {
  it('moves a kick toward packing in roots, and toward fast rebound on a jump', () => {
    const ratio = (sectionId: string | null) => {
      const causes = said('kicks', 'rear', { sectionId })
      const p = (kind: string) => causes.find((c) => c.kind === kind)?.probability ?? 0
      return p('rebound-slow') / p('rebound-fast')
    }
    expect(ratio('roots')).toBeGreaterThan(ratio(null))
    expect(ratio('lip')).toBeLessThan(ratio(null))
  })
})

describe('the table of words', () => {
  it('has an entry for every word, a cause for every complaint, and something that tells it apart', () => {
    for (const word of FeelWord.options) {
      expect(wordRules[word].causes.length, word).toBeGreaterThan(0)
      if (isComplaint(word)) expect(wordRules[word].toldApartBy, word).not.toBe('')
    }
  })
  it('finds a word by what people type, whatever its label, and finds each by its own', () => {
    const typed: [string, FeelWord][] = [
      ['buck', 'kicks'],
      ['packing', 'harsh-gets-worse'],
      ['chatter', 'harsh-everywhere'],
      ['squat', 'blows-through'],
      ['mush', 'wallows'],
      ['twitchy', 'nervous'],
      ['clank', 'bottoms'],
      ['tuck', 'dives'],
      ['washy', 'washes-out'],
      ['pop', 'dead'],
      ['skip', 'nervous'],
      ['vague', 'wallows'],
      ['sticky', 'harsh-everywhere'],
    ]
    for (const [text, word] of typed) expect(isMeant(word, text), text).toBe(true)
    for (const word of FeelWord.options) expect(isMeant(word, wordRules[word].label.toUpperCase())).toBe(true)
    expect(FeelWord.options.filter((w) => isMeant(w, 'no such word'))).toEqual([])
  })
  it('uses no alias for two words', () => {
    const all = FeelWord.options.flatMap((w) => wordRules[w].aliases)
    expect(all.filter((x, i) => all.indexOf(x) !== i)).toEqual([])
  })
  it('has a check by hand for every cause', () => {
    for (const kind of CauseKind.options) expect(handChecks[kind].length, kind).toBeGreaterThan(20)
  })
  it('lists the likely cause first', () => {
    for (const word of FeelWord.options) {
      const w = wordRules[word].causes.map((c) => c.weight)
      expect(Math.max(...w), word).toBe(w[0])
    }
  })
  it('uses each label once', () => {
    const labels = FeelWord.options.map((w) => wordRules[w].label)
    expect(new Set(labels).size).toBe(labels.length)
  })
  it('never proposes to firm up and to soften for one cause', () => {
    for (const word of FeelWord.options) {
      for (const c of wordRules[word].causes) {
        const end = c.at === 'bike' ? null : c.at === 'same' ? 'rear' : c.at
        const moves = remedyMoves(c.kind, end, space, new Map(Object.entries(startPositions)))
        const byAdjuster = new Map(moves.map((m) => [m.adjuster.id, m.direction]))
        expect(
          moves.every((m) => byAdjuster.get(m.adjuster.id) === m.direction),
          `${word} ${c.kind}`,
        ).toBe(true)
      }
    }
  })
})

describe('a word for both ends', () => {
  it('speaks for the cause at each end, and once for the whole bike', () => {
    const both = said('harsh-everywhere', 'both')
    expect(both.map(name)).toEqual(expect.arrayContaining(['spring-firm front', 'spring-firm rear']))
    const bike = (marks: Mark['end']) => {
      const tyres = said('harsh-everywhere', marks).find((c) => c.kind === 'tyres')
      return tyres?.evidence.reduce((s, e) => s + e.weight, 0) ?? 0
    }
    expect(bike('both')).toBeCloseTo(bike('front'), 9)
  })
})

describe('what figures say', () => {
  const targets = { front: 20, rear: 30 }
  const rear = (m: Partial<EndMetrics>) => metricFindings(analysisWith({}, m), targets)
  const weight = (m: Partial<EndMetrics>, kind: string) =>
    rear(m)
      .filter((f) => f.kind === kind && f.end === 'rear')
      .reduce((s, f) => s + f.weight, 0)
  it('nothing, when all is in order', () => {
    expect(rear({})).toEqual([])
  })
  it('sinking valleys speak for slow and against fast rebound, more with more trains', () => {
    expect(weight({ valleyDriftPctPerHit: 1.5, trains: 4 }, 'rebound-slow')).toBeGreaterThan(1)
    expect(weight({ valleyDriftPctPerHit: 1.5, trains: 4 }, 'rebound-fast')).toBeLessThan(-0.5)
    expect(weight({ valleyDriftPctPerHit: 1.5, trains: 1 }, 'rebound-slow')).toBeLessThan(
      weight({ valleyDriftPctPerHit: 1.5, trains: 2 }, 'rebound-slow'),
    )
  })
  it('level valleys speak against slow rebound', () => {
    expect(weight({ valleyDriftPctPerHit: 0.1, trains: 4 }, 'rebound-slow')).toBeLessThan(0)
  })
  it('a drift says the mean of what it may truly be: the wider its scatter, the less', () => {
    const drifts = (x: number, se: number) =>
      weight({ valleyDriftPctPerHit: x, valleyDriftSe: se, trains: 4 }, 'rebound-slow')
    expect(drifts(0.02, 0.02)).toBeCloseTo(-0.4, 6)
    // Level or packing, with so much scatter nobody knows: less than half of what it says alone.
    expect(Math.abs(drifts(0.1, 0.5))).toBeLessThan(0.25)
    expect(drifts(0.4, 0.3)).toBeGreaterThan(drifts(0.1, 0.3))
    // Held against a plain mean over a fine grid of what it may be.
    for (const [x, se] of [
      [0.9, 0.3],
      [0.2, 0.2],
      [1.4, 0.6],
    ]) {
      let [sum, mass] = [0, 0]
      for (let z = -4; z <= 4; z += 0.01) {
        const share = Math.exp(-0.5 * z * z)
        sum += share * weight({ valleyDriftPctPerHit: x + z * se, trains: 4 }, 'rebound-slow')
        mass += share
      }
      expect(Math.abs(drifts(x, se) - sum / mass)).toBeLessThan(0.06)
    }
  })
  it('nothing of depths where the zero has moved; speeds and rhythm all the same', () => {
    const deep = analysisWith(
      { rideHeightPct: 33, hardBottomOuts: 3, reboundDampingRatio: 0.15, reboundDampingHits: 9 },
      {},
    )
    const topics = (moved: ('front' | 'rear')[]) =>
      [...new Set(metricFindings(deep, targets, moved).map((f) => f.topic))].sort()
    expect(topics([])).toEqual([
      'balance',
      'bottom-outs front',
      'bottom-outs while deep front',
      'return front',
      'ride height front',
    ])
    expect(topics(['front'])).toEqual(['return front'])
  })
  it('an undamped return speaks for fast rebound only from three hits on', () => {
    expect(weight({ reboundDampingRatio: 0.15, reboundDampingHits: 2 }, 'rebound-fast')).toBe(0)
    expect(weight({ reboundDampingRatio: 0.15, reboundDampingHits: 3 }, 'rebound-fast')).toBeGreaterThan(1)
    expect(weight({ reboundDampingRatio: 0.8, reboundDampingHits: 9 }, 'rebound-fast')).toBeLessThan(0)
  })
  it('riding deep blames the spring, riding high the other way, near the target neither', () => {
    expect(weight({ rideHeightPct: 37 }, 'spring-soft')).toBeGreaterThan(1)
    expect(weight({ rideHeightPct: 22 }, 'spring-firm')).toBeGreaterThan(1)
    expect(weight({ rideHeightPct: 34 }, 'spring-soft')).toBe(0)
  })
  it('depth that sinking explains is not held against the spring', () => {
    expect(weight({ rideHeightPct: 37, valleyDriftPctPerHit: 1.2, trains: 5 }, 'spring-soft')).toBe(0)
    expect(
      weight({ rideHeightPct: 44, valleyDriftPctPerHit: 1.2, trains: 5 }, 'spring-soft'),
    ).toBeGreaterThan(1)
  })
  it('one hard bottom-out on the biggest hit is fine, two are a finding', () => {
    expect(rear({ hardBottomOuts: 1 })).toEqual([])
    expect(weight({ hardBottomOuts: 2 }, 'ramp-low')).toBeGreaterThan(0)
  })
  it('unused travel counts only where there were big hits to use it', () => {
    expect(weight({ depthMaxPct: 70, bigHits: 5 }, 'ramp-high')).toBeGreaterThan(0)
    expect(weight({ depthMaxPct: 58, bigHits: 0 }, 'ramp-high')).toBe(0)
  })
  it('balance is judged against the sag targets, not against zero', () => {
    const at = (front: number, r: number) =>
      metricFindings(analysisWith({ rideHeightPct: front }, { rideHeightPct: r }), targets).filter(
        (f) => f.end === null,
      )
    expect(at(20, 30)).toEqual([])
    expect(at(24, 26)[0].kind).toBe('nose-low')
    expect(at(16, 34)[0].kind).toBe('nose-high')
  })
})

describe('ring, tyres and weather', () => {
  const evidence = (d: DayBuilder, kind: string) =>
    diagnose(d.history(), space).find((c) => c.kind === kind)?.evidence ?? []
  it('a ring at the end of the stroke speaks for more ramp or spring', () => {
    const e = evidence(
      new DayBuilder().run(5, [{ word: 'bottoms', end: 'rear' }], { ringRearMm: 55 }),
      'ramp-low',
    )
    expect(e.some((x) => x.text === 'The rear ring shows 100 % of travel used')).toBe(true)
  })
  it('the ring is silent where a sensor already tells', () => {
    const e = evidence(
      new DayBuilder().run(5, [{ word: 'bottoms', end: 'rear' }], {
        ringRearMm: 55,
        analysis: analysisWith({}, {}),
      }),
      'ramp-low',
    )
    expect(e.some((x) => x.text.includes('ring'))).toBe(false)
  })
  it('tyres that changed between runs are a cause of their own', () => {
    const d = new DayBuilder()
      .run(5, [], { tyreRearPsi: 24 })
      .run(5, [{ word: 'nervous' }], { tyreRearPsi: 28 })
    expect(evidence(d, 'tyres').some((e) => e.text.includes('4 psi'))).toBe(true)
  })
  it('heat and cold are named as oil, at their ends of the thermometer', () => {
    expect(
      evidence(new DayBuilder().at(33).run(5, [{ word: 'soft-when-hot' }]), 'heat').some((e) =>
        e.text.includes('oil is thin'),
      ),
    ).toBe(true)
    expect(evidence(new DayBuilder().at(1).run(5), 'cold')).toHaveLength(1)
    expect(evidence(new DayBuilder().at(15).run(5), 'cold')).toHaveLength(0)
  })
})

describe('putting it together', () => {
  const finding = (kind: Finding['kind'], weight: number, topic = 't', run = 1): Finding => ({
    kind,
    end: 'rear',
    evidence: {
      weight,
      text: 'x',
      topic,
      runNumbers: [run],
      link: { kind: 'runs', runId: null, sectionId: null, word: null },
    },
  })
  it('without evidence, nothing is wrong', () => {
    expect(posterior([])[0].kind).toBe('none')
  })
  it('odds are the exponential of the weights', () => {
    const causes = posterior([finding('rebound-fast', 2), finding('rebound-slow', 1)])
    const p = (kind: string) => causes.find((c) => c.kind === kind)!.probability
    expect(p('rebound-fast') / p('rebound-slow')).toBeCloseTo(Math.E, 9)
  })
  it('the same topic in two runs is one line with both runs and their joint weight', () => {
    const [top] = posterior([finding('rebound-fast', 1, 'same', 2), finding('rebound-fast', 0.5, 'same', 4)])
    expect(top.evidence).toHaveLength(1)
    expect(top.evidence[0]).toMatchObject({ weight: 1.5, runNumbers: [2, 4] })
  })
  it('every cause can be named at an end', () => {
    expect(causeLabel('rebound-slow', 'rear')).toBe('rear rebound too slow')
    expect(causeLabel('none', null)).toBe('nothing wrong')
  })
})
