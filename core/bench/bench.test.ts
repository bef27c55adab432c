import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import type { Adjuster } from '#contract/adjuster'
import type { Bench, BenchStep, ReboundOutcome, SagReading } from '#contract/bench'
import { assumed, setBy } from '../setup/known.ts'
import { netPressurePsi, shockAir } from '../spring/air.ts'
import {
  benchOn,
  benchRider,
  fork,
  frontRebound,
  rearRebound,
  rearSpacers,
  shock,
} from '../test/dayBuilder.ts'
import { balanceNow, judgeBalance, targetInPosture } from './balance.ts'
import { equalisedKey, evidenceOf, hasAnythingRead } from './evidence.ts'
import { belongTogether, sagNow } from './sagNow.ts'
import { stepStates } from './states.ts'
import { judgeEndOfStroke } from './endOfStroke.ts'
import { inTheWay, preparationChecks } from './preparation.ts'
import { reboundAdvice } from './reboundBench.ts'
import { equaliseStages, schools } from './schools.ts'
import {
  basisOf,
  benchFacts,
  stepsFor,
  withPartAt,
  withPosition,
  withStepClosed,
  withStepSkipped,
} from './steps.ts'

const both = [fork, shock]
const at = '2031-05-02T09:00:00Z'
const hand = setBy({ at })
const reading = (over: Partial<SagReading> = {}): SagReading => ({
  id: 'r1',
  end: 'rear',
  at,
  method: 'ring',
  posture: 'seated',
  together: false,
  sagMm: 16.5,
  pressurePsi: 180,
  springRateNPerMm: null,
  preloadTurns: null,
  spacers: 1,
  gaugeId: null,
  marks: [],
  leftOut: false,
  ...over,
})
/** A bench on which everything was looked at and is right. */
const sound = (): Bench =>
  benchOn({
    checks: [...preparationChecks(both).map((c) => c.key), equalisedKey('front'), equalisedKey('rear')],
    readings: [
      reading(),
      reading({ id: 'f1', end: 'front', posture: 'ready', sagMm: 30, pressurePsi: 80, spacers: null }),
    ],
    reboundTests: [
      { id: 't1', end: 'front', at, adjusterId: 'fr', value: 6, outcome: 'settles' },
      { id: 't2', end: 'rear', at, adjusterId: 'rr', value: 7, outcome: 'settles' },
    ],
    travelReadings: [
      { id: 'd1', end: 'front', at, ringMm: 128, effort: 'small-drop' },
      { id: 'd2', end: 'rear', at, ringMm: 47, effort: 'small-drop' },
    ],
  })
const close = (b: Bench, step: BenchStep) => withStepClosed(b, step, 'done', '', both, 76, at)
const stateOf = (b: Bench, step: Bench['steps'][number]['step'], mass: number | null = 76) =>
  stepStates(b, both, benchRider(mass)).find((s) => s.step === step)!

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
  it('are open, done, out for a reason, or skipped with one', () => {
    let b = sound()
    expect(stateOf(b, 'sag-rear').state).toBe('open')
    b = close(b, 'sag-rear')
    expect(stateOf(b, 'sag-rear').state).toBe('done')
    b = withStepSkipped(b, 'compression', 'no time today', at)
    expect(stateOf(b, 'compression')).toMatchObject({ state: 'skipped', reason: 'no time today' })
    const deep = { ...sound(), readings: [reading({ sagMm: 19.8 })] }
    const left = withStepClosed(deep, 'sag-rear', 'out', 'the chart ends here', both, 76, at)
    expect(stateOf(left, 'sag-rear')).toMatchObject({ state: 'out', reason: 'the chart ends here' })
    // Put right since: to be closed again.
    expect(stateOf({ ...left, readings: [reading()] }, 'sag-rear').state).toBe('open')
  })
  it('go stale when what they rest on moves, and say what moved', () => {
    const b = (['sag-rear', 'sag-front', 'rebound', 'end-of-stroke'] as const).reduce(close, sound())
    const pumped = withPosition(b, 'rear', 'rp', 192, hand)
    expect(stateOf(pumped, 'sag-rear')).toMatchObject({
      state: 'stale',
      changed: [{ fact: 'rear-main-pressure', was: 180, is: 192 }],
    })
    expect(stateOf(pumped, 'sag-front').state).toBe('done')
    expect(stateOf(pumped, 'rebound').state).toBe('stale')
    expect(stateOf(pumped, 'end-of-stroke').state).toBe('stale')
  })
  it('clicks the step does not rest on change nothing', () => {
    const b = close(sound(), 'sag-rear')
    expect(stateOf(withPosition(b, 'rear', 'rp', 180.4, hand), 'sag-rear').state).toBe('done')
    expect(stateOf(withPosition(b, 'rear', 'rr', 2, hand), 'sag-rear').state).toBe('done')
  })
  it('equalising stays good for small corrections, not for another region', () => {
    const b = close(sound(), 'equalise')
    expect(stateOf(withPosition(b, 'rear', 'rp', 190, hand), 'equalise').state).toBe('done')
    expect(stateOf(withPosition(b, 'rear', 'rp', 230, hand), 'equalise').state).toBe('stale')
  })
  it('another weight or posture makes sag stale, and back again makes it good', () => {
    const b = close(sound(), 'sag-rear')
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
})

describe('evidence', () => {
  const bare = benchOn({ positions: [] })
  const evidence = (b: Bench, step: BenchStep, rider = benchRider(76)) => evidenceOf(step, b, both, rider)
  it('a bench walked with "next" only has none for any step, and nothing to keep', () => {
    for (const step of stepsFor(bare, both).filter((s) => s !== 'who'))
      expect(evidence(bare, step), step).toMatchObject({ state: 'missing' })
    expect(hasAnythingRead(bare)).toBe(false)
    // What stood on the bike before, or was only estimated, is no evidence either.
    const before = { ...benchOn(), startedAt: '2031-06-01T08:00:00Z' }
    expect(hasAnythingRead(before)).toBe(false)
    const estimated = withPosition(bare, 'front', 'fp', 80, assumed('1:1 rule'))
    expect(hasAnythingRead(estimated)).toBe(false)
    expect(evidence(estimated, 'start').words).toContain('front pressure set')
  })
  it('a step closed without its evidence never shows as done', () => {
    const b = stepsFor(bare, both).reduce(close, bare)
    expect(
      stepStates(b, both, benchRider(76))
        .filter((s) => s.state === 'done')
        .map((s) => s.step),
    ).toEqual(['who'])
  })
  it('0 of 8 ticks is not "all looked at"; one that is out is told', () => {
    expect(evidence(bare, 'prepare').words).toHaveLength(preparationChecks(both).length)
    const all = preparationChecks(both).map((c) => c.key)
    expect(evidence({ ...bare, checks: all.slice(1) }, 'prepare').state).toBe('missing')
    expect(evidence({ ...bare, checks: all }, 'prepare').state).toBe('enough')
    expect(evidence({ ...bare, checks: all.slice(1), checksOut: [all[0]] }, 'prepare').state).toBe('out')
  })
  it('an empty kit field is not "with kit"', () => {
    expect(evidence(bare, 'who', { ...benchRider(76), kitKnown: false }).state).toBe('missing')
    expect(evidence(bare, 'who', benchRider(null)).state).toBe('missing')
  })
  it('29.5 % for 25 is out; the window is never finer than the ring', () => {
    const quarter = { ...shock, sagTargetPct: 25 }
    const at = (sagMm: number) =>
      evidenceOf(
        'sag-rear',
        { ...benchOn(), readings: [reading({ sagMm })] },
        [fork, quarter],
        benchRider(76),
      ).state
    expect(at(0.295 * 55)).toBe('out')
    expect(at(0.267 * 55)).toBe('enough')
    expect(at(0.27 * 55)).toBe('out')
  })
  it('rebound is right only by a test where it stands', () => {
    const test = (value: number, outcome: ReboundOutcome, dial = 'rr') =>
      ({
        id: `${dial}${value}`,
        end: dial === 'rr' ? 'rear' : 'front',
        at,
        adjusterId: dial,
        value,
        outcome,
      }) as const
    const with_ = (...reboundTests: Bench['reboundTests']) =>
      evidence(benchOn({ reboundTests }), 'rebound').state
    expect(with_()).toBe('missing')
    expect(with_(test(7, 'settles'), test(6, 'settles', 'fr'))).toBe('enough')
    expect(with_(test(5, 'settles'), test(6, 'settles', 'fr'))).toBe('missing')
    expect(with_(test(7, 'cycles'), test(6, 'settles', 'fr'))).toBe('out')
  })
})

describe('sag as it stands now', () => {
  const now = (over: Partial<Bench>) => sagNow(benchOn(over), shock)
  it('holds at the pressure it was read at, and at no other', () => {
    const b = benchOn({ readings: [reading()] })
    expect(sagNow(b, shock).pct).toBeCloseTo(30, 9)
    expect(sagNow(withPosition(b, 'rear', 'rp', 186, hand), shock).pct).toBeNull()
    expect(sagNow(withPosition(b, 'rear', 'rs', 2, hand), shock).pct).toBeNull()
  })
  it.each([
    ['brakes held', { marks: ['brakes-held'] }],
    ['compression closed', { marks: ['compression-closed'] }],
    ['another posture', { posture: 'ready' }],
    ['another gauge', { gaugeId: 'old pump' }],
    ['left out', { leftOut: true }],
    ['both ends together', { together: true }],
  ] as const)('does not count: %s', (_, over) => {
    expect(
      now({ readings: [reading({ ...over, marks: [...('marks' in over ? over.marks : [])] })] }).pct,
    ).toBeNull()
  })
  it('two that disagree give no number, only "one more"', () => {
    const two = benchOn({ readings: [reading({ sagMm: 14 }), reading({ id: 'b', sagMm: 17 })] })
    expect(sagNow(two, shock)).toMatchObject({ pct: null, judged: { again: true } })
    expect(evidenceOf('sag-rear', two, both, benchRider(76)).words[0]).toMatch(/one more reading/)
  })
  it('repeats belong together by one rule, symmetric', () => {
    const a = reading()
    expect(belongTogether(a, { ...a, pressurePsi: 180.4 })).toBe(true)
    for (const other of [
      { spacers: 2 },
      { pressurePsi: 181 },
      { gaugeId: 'g' },
      { posture: 'ready' as const },
    ]) {
      expect(belongTogether(a, { ...a, ...other })).toBe(false)
      expect(belongTogether({ ...a, ...other }, a)).toBe(false)
    }
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
    expect(inTheWay(withPosition(benchOn(), 'front', 'fc', 16, hand), fork)).toEqual([])
  })
})

describe('another spring', () => {
  const test = (end: 'front' | 'rear', adjusterId: string) =>
    ({ id: end, end, at, adjusterId, value: 6, outcome: 'creeps' }) as const
  const b = benchOn({ reboundTests: [test('front', 'fr'), test('rear', 'rr')] })
  const left = (x: Bench) => x.reboundTests.map((t) => t.end)
  it('makes the rebound tests of that end void, and of no other', () => {
    expect(left(withPartAt(b, 'rear', shock.adjusters[0], 192, hand))).toEqual(['front'])
    expect(left(withPartAt(b, 'rear', rearSpacers, 2, hand))).toEqual(['front'])
  })
  it('a psi nobody can read, the same place, or a dial, leaves them', () => {
    expect(left(withPartAt(b, 'rear', shock.adjusters[0], 180.8, hand))).toHaveLength(2)
    expect(left(withPartAt(b, 'rear', rearSpacers, 1, hand))).toHaveLength(2)
    expect(left(withPartAt(b, 'rear', rearRebound, 3, hand))).toHaveLength(2)
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

describe('balance in the posture of the reading', () => {
  const shares = { seatedPct: null, readyPct: null }
  it('a rear that is right at 30 % seated is balanced in the ready position, where it stands higher', () => {
    const target = targetInPosture(shock, 30, 'seated', 'ready', shares, 180, 1)
    // 0.60 of the load seated, 0.53 standing: nearer to 26 % than to 30.
    expect(target).toBeLessThan(28)
    expect(target).toBeGreaterThan(24)
    // The same by the spring itself: the net pressure at both depths has the ratio of the loads.
    const net = (pct: number) => netPressurePsi(pct / 100, 180, shockAir, { spacers: 1 })
    expect(net(target) / net(30)).toBeCloseTo(0.53 / 0.6, 9)
    const both_ = (rearMm: number) =>
      benchOn({
        readings: [
          reading({ id: 'a', posture: 'ready', together: true, sagMm: rearMm }),
          reading({
            id: 'b',
            end: 'front',
            posture: 'ready',
            together: true,
            sagMm: 30,
            pressurePsi: 80,
            spacers: null,
          }),
        ],
      })
    expect(balanceNow(both_((target / 100) * 55), both, shares)!.verdict).toBe('balanced')
    expect(balanceNow(both_(0.36 * 55), both, shares)!.verdict).toBe('tail-low')
  })
  it('scales use what was measured, and one posture needs nothing', () => {
    expect(targetInPosture(shock, 30, 'seated', 'seated', shares, 180, 1)).toBe(30)
    expect(
      targetInPosture(
        { ...shock, spring: 'coil' },
        30,
        'seated',
        'ready',
        { seatedPct: 35, readyPct: 48 },
        null,
        0,
      ),
    ).toBeCloseTo((30 * 0.52) / 0.65, 9)
  })
})
