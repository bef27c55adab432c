import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import type { Adjuster } from '#contract/adjuster'
import type { Bench, ReboundOutcome } from '#contract/bench'
import { benchOn, fork, frontRebound, rearRebound, rearSpacers, shock } from '../test/dayBuilder.ts'
import { judgeBalance } from './balance.ts'
import { judgeEndOfStroke } from './endOfStroke.ts'
import { inTheWay, preparationChecks } from './preparation.ts'
import { reboundAdvice } from './reboundBench.ts'
import { equaliseStages, schools } from './schools.ts'
import {
  basisOf,
  benchFacts,
  keptReadings,
  stepsFor,
  stepStates,
  withPartAt,
  withPosition,
  withStepDone,
  withStepSkipped,
} from './steps.ts'

const both = [fork, shock]
const at = '2031-05-02T09:00:00Z'
const stateOf = (b: Bench, step: Bench['steps'][number]['step'], mass: number | null = 76) =>
  stepStates(b, both, mass).find((s) => s.step === step)!

describe('steps', () => {
  it('follow the school, and leave out what the bike does not have', () => {
    const order = stepsFor({ orderSchool: 'sag-rebound-volume' }, both)
    expect(order.indexOf('rebound')).toBeLessThan(order.indexOf('end-of-stroke'))
    const other = stepsFor({ orderSchool: 'sag-volume-rebound' }, both)
    expect(other.indexOf('end-of-stroke')).toBeLessThan(other.indexOf('rebound'))
    const hardtail = stepsFor({ orderSchool: 'sag-rebound-volume' }, [fork])
    expect(hardtail).not.toContain('sag-rear')
    expect(hardtail).not.toContain('sag-both')
    const coil = { ...shock, spring: 'coil' as const, adjusters: [] }
    expect(stepsFor({ orderSchool: 'sag-rebound-volume' }, [coil])).not.toContain('equalise')
    expect(stepsFor({ orderSchool: 'sag-rebound-volume' }, [coil])).not.toContain('rebound')
  })
  it('are open, done, or skipped with a reason', () => {
    let b = benchOn()
    expect(stateOf(b, 'sag-rear').state).toBe('open')
    b = withStepDone(b, 'sag-rear', both, 76, at)
    expect(stateOf(b, 'sag-rear').state).toBe('done')
    b = withStepSkipped(b, 'compression', 'no time today', at)
    expect(stateOf(b, 'compression')).toMatchObject({ state: 'skipped', reason: 'no time today' })
  })
  it('go stale when what they rest on moves, and say what moved', () => {
    const done = ['sag-rear', 'sag-front', 'rebound', 'end-of-stroke'] as const
    const b = done.reduce((x, step) => withStepDone(x, step, both, 76, at), benchOn())
    const pumped = withPosition(b, 'rear', 'rp', 192)
    expect(stateOf(pumped, 'sag-rear')).toMatchObject({
      state: 'stale',
      changed: [{ fact: 'rear-main-pressure', was: 180, is: 192 }],
    })
    expect(stateOf(pumped, 'sag-front').state).toBe('done')
    expect(stateOf(pumped, 'rebound').state).toBe('stale')
    expect(stateOf(pumped, 'end-of-stroke').state).toBe('stale')
  })
  it('a psi that a gauge cannot tell, or clicks the step does not rest on, change nothing', () => {
    const b = withStepDone(benchOn(), 'sag-rear', both, 76, at)
    expect(stateOf(withPosition(b, 'rear', 'rp', 180.6), 'sag-rear').state).toBe('done')
    expect(stateOf(withPosition(b, 'rear', 'rr', 2), 'sag-rear').state).toBe('done')
  })
  it('equalising stays good for small corrections, not for another region', () => {
    const b = withStepDone(benchOn(), 'equalise', both, 76, at)
    expect(stateOf(withPosition(b, 'rear', 'rp', 190), 'equalise').state).toBe('done')
    expect(stateOf(withPosition(b, 'rear', 'rp', 230), 'equalise').state).toBe('stale')
  })
  it('another weight or posture makes sag stale, and back again makes it good', () => {
    const b = withStepDone(benchOn(), 'sag-rear', both, 76, at)
    expect(stateOf(b, 'sag-rear', 80).state).toBe('stale')
    expect(stateOf(b, 'sag-rear', 76.5).state).toBe('done')
    const standing: Bench = { ...b, posture: { ...b.posture, rear: 'ready' } }
    expect(stateOf(standing, 'sag-rear').changed[0].fact).toBe('rear-posture')
    expect(stateOf({ ...standing, posture: b.posture }, 'sag-rear').state).toBe('done')
  })
  it('rest on facts the bike has, never on others', () => {
    const facts = benchFacts(benchOn(), both, 76)
    for (const step of stepsFor(benchOn(), both))
      for (const key of Object.keys(basisOf(step, facts))) expect(facts).toHaveProperty([key])
    expect(Object.keys(basisOf('save', facts))).toEqual(Object.keys(facts))
  })
  it('readings left out do not count', () => {
    const b = benchOn()
    const reading = {
      id: 'r1',
      end: 'rear',
      at,
      method: 'ring',
      posture: 'seated',
      together: false,
      sagMm: 16,
      pressurePsi: 180,
      springRateNPerMm: null,
      preloadTurns: null,
      spacers: 1,
      leftOut: false,
    } as const
    expect(
      keptReadings({ ...b, readings: [reading, { ...reading, id: 'r2', leftOut: true }] }, 'rear'),
    ).toEqual([reading])
  })
})

describe('schools', () => {
  it('each name their answers and ours with a reason', () => {
    for (const s of schools) {
      expect(s.answers.length).toBeGreaterThan(1)
      expect(s.ours.length).toBeGreaterThan(20)
    }
    expect(new Set(schools.map((s) => s.key)).size).toBe(schools.length)
  })
  it('equalising every 50 psi ends at the target without a last tiny stop', () => {
    expect(equaliseStages('every-50', 178).map((s) => s.psi)).toEqual([50, 100, 150, 178])
    expect(equaliseStages('every-50', 110).map((s) => s.psi)).toEqual([50, 110])
    expect(equaliseStages('every-50', 40).map((s) => s.psi)).toEqual([40])
    expect(equaliseStages('pump-on-quarter', 178)).toEqual([
      { psi: 178, cycles: 10, depthPct: 25, pumpOn: true },
    ])
    expect(equaliseStages('pump-off-half', 178).map((s) => s.psi)).toEqual([100, 178])
    expect(equaliseStages('pump-off-half', 70)).toHaveLength(1)
  })
})

describe('preparation', () => {
  it('asks of a unit only what it has', () => {
    const keys = (units: typeof both) => preparationChecks(units).map((c) => c.key)
    expect(keys(both)).toContain('ring')
    expect(keys([{ ...shock, spring: 'coil' }])).not.toContain('ring')
    expect(keys([{ ...shock, spring: 'coil' }])).not.toContain('full-travel')
  })
  it('names dials that falsify sag where they stand', () => {
    expect(inTheWay(benchOn(), fork)).toEqual(['Low-speed compression stands at 8 clicks'])
    expect(inTheWay(withPosition(benchOn(), 'front', 'fc', 16), fork)).toEqual([])
  })
})

describe('another spring', () => {
  const test = (end: 'front' | 'rear', adjusterId: string) =>
    ({ id: end, end, at, adjusterId, value: 6, outcome: 'creeps' }) as const
  const b = benchOn({ reboundTests: [test('front', 'fr'), test('rear', 'rr')] })
  const left = (x: Bench) => x.reboundTests.map((t) => t.end)
  it('makes the rebound tests of that end void, and of no other', () => {
    expect(left(withPartAt(b, 'rear', shock.adjusters[0], 192))).toEqual(['front'])
    expect(left(withPartAt(b, 'rear', rearSpacers, 2))).toEqual(['front'])
  })
  it('a psi nobody can read, the same place, or a dial, leaves them', () => {
    expect(left(withPartAt(b, 'rear', shock.adjusters[0], 180.8))).toHaveLength(2)
    expect(left(withPartAt(b, 'rear', rearSpacers, 1))).toHaveLength(2)
    expect(left(withPartAt(b, 'rear', rearRebound, 3))).toHaveLength(2)
  })
})

describe('the rebound bench test', () => {
  const dial = frontRebound as Extract<Adjuster, { kind: 'click' }>
  /** A fork that creeps below `slow` clicks from closed and cycles above `fast`. */
  const truth = (v: number, slow: number, fast: number): ReboundOutcome =>
    v < slow ? 'creeps' : v > fast ? 'cycles' : 'settles'
  it('finds a place that settles, wherever it lies and wherever it began', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 0, max: 12 }),
        fc.integer({ min: 0, max: 3 }),
        fc.integer({ min: 0, max: 12 }),
        (slow, width, start) => {
          let now = start
          const tests: { value: number; outcome: ReboundOutcome }[] = []
          for (let i = 0; i < 9; i++) {
            tests.push({ value: now, outcome: truth(now, slow, Math.min(12, slow + width)) })
            const advice = reboundAdvice(tests, dial, now, 'race')
            if (advice.kind === 'good') {
              expect(truth(now, slow, slow + width)).toBe('settles')
              return
            }
            expect(advice.kind).toBe('move')
            expect(advice.to).toBeGreaterThanOrEqual(0)
            expect(advice.to).toBeLessThanOrEqual(12)
            now = advice.to
          }
          throw new Error('never settled')
        },
      ),
    )
  })
  it('asks for a test first, and says when the range ends', () => {
    expect(reboundAdvice([], dial, 6, 'race').kind).toBe('test-first')
    expect(reboundAdvice([{ value: 12, outcome: 'creeps' }], dial, 12, 'race').kind).toBe('out-of-range')
    expect(reboundAdvice([{ value: 0, outcome: 'cycles' }], dial, 0, 'race').kind).toBe('out-of-range')
  })
  it('keeps the slower of two neighbours of which one creeps and one cycles', () => {
    const a = reboundAdvice(
      [
        { value: 6, outcome: 'creeps' },
        { value: 7, outcome: 'cycles' },
      ],
      dial,
      7,
      'race',
    )
    expect(a).toMatchObject({ kind: 'move', to: 6 })
  })
  it('a new rider begins one click on the slow side', () => {
    const tests = [{ value: 6, outcome: 'settles' as const }]
    expect(reboundAdvice(tests, dial, 6, 'novice').to).toBe(5)
    expect(reboundAdvice(tests, dial, 6, 'race').to).toBe(6)
  })
  it('tests that contradict each other are done again', () => {
    const a = reboundAdvice(
      [
        { value: 6, outcome: 'cycles' },
        { value: 8, outcome: 'creeps' },
      ],
      dial,
      8,
      'race',
    )
    expect(a.words).toMatch(/contradict/)
  })
})

describe('the end of the stroke', () => {
  it.each([
    ['80 to 90 % after a small drop is good', 47, 'small-drop', 0, 1, 3, 'good', 0],
    ['all of it in the car park asks for a spacer', 54, 'car-park', 0, 1, 3, 'too-easy', 1],
    ['no spacer beyond what is allowed', 54, 'car-park', 0, 3, 3, 'too-easy', 0],
    ['far less takes one out', 30, 'small-drop', 0, 1, 3, 'too-far-off', -1],
    ['far less without spacers is not a spacer', 30, 'small-drop', 0, 0, 3, 'too-far-off', 0],
    ['all of it on the hardest trail is fine', 55, 'hardest-trail', 0, 1, 3, 'good', 0],
    ['a wrong sag goes first', 54, 'car-park', 6, 1, 3, 'spring-first', 0],
    ['a unit without spacers is told so', 54, 'car-park', null, null, null, 'too-easy', 0],
  ] as const)('%s', (_, ring, effort, off, spacers, allowed, verdict, move) => {
    const j = judgeEndOfStroke(ring, 55, effort, off, spacers, allowed)
    expect(j).toMatchObject({ verdict, spacers: move })
    expect(j.usedPct).toBeCloseTo((100 * ring) / 55, 12)
  })
})

describe('balance', () => {
  it('is each end against its own target', () => {
    const f = (sagPct: number) => ({ sagPct, targetPct: 20 })
    const r = (sagPct: number) => ({ sagPct, targetPct: 30 })
    expect(judgeBalance(f(21), r(30)).verdict).toBe('balanced')
    expect(judgeBalance(f(25), r(30)).verdict).toBe('nose-low')
    expect(judgeBalance(f(20), r(35))).toMatchObject({ verdict: 'tail-low', leanPoints: -5 })
    expect(judgeBalance(f(24), r(34)).verdict).toBe('balanced')
  })
})
