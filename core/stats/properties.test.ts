import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { normalFrom, seededRandom } from '../numeric/random.ts'
import { fitSession, mindVariance, sessionPriors, type RatedRun } from './session.ts'
import { judge } from './verdict.ts'

const run = (
  setupKey: string,
  rating: number,
  index: number,
  mind: RatedRun['mind'] = 'normal',
): RatedRun => ({ runId: `${index}`, setupKey, rating, index, mind })
const ratings = fc.array(
  fc.record({ key: fc.constantFrom('A', 'B', 'C'), r: fc.integer({ min: 2, max: 20 }) }),
  { minLength: 4, maxLength: 14 },
)
const sessionFrom = (list: { key: string; r: number }[], shift = 0) =>
  fitSession(
    list.map((x, i) => run(x.key, x.r / 2 + shift, i)),
    [],
  )

describe('the session model, whatever was rated', () => {
  it('does not care where the scale starts', () => {
    fc.assert(
      fc.property(ratings, (list) => {
        fc.pre(list.some((x) => x.key === 'A') && list.some((x) => x.key === 'B'))
        const a = sessionFrom(list).compare('A', 'B')
        const b = sessionFrom(list, 3).compare('A', 'B')
        return Math.abs(a.effect - b.effect) < 1e-6 && Math.abs(a.probability - b.probability) < 1e-6
      }),
      { numRuns: 40 },
    )
  })
  it('keeps its interval around its median, and its probability beside zero', () => {
    fc.assert(
      fc.property(ratings, (list) => {
        fc.pre(list.some((x) => x.key === 'A') && list.some((x) => x.key === 'B'))
        const e = sessionFrom(list).compare('A', 'B')
        return (
          e.low80 < e.effect &&
          e.effect < e.high80 &&
          (Math.abs(e.effect) < 1e-3 || e.probability > 0.5 === e.effect > 0)
        )
      }),
      { numRuns: 40 },
    )
  })
  it('turned round, the answer is the mirror image', () => {
    fc.assert(
      fc.property(ratings, (list) => {
        fc.pre(['A', 'C'].every((k) => list.some((x) => x.key === k)))
        const s = sessionFrom(list)
        const there = s.compare('A', 'C')
        const back = s.compare('C', 'A')
        expect(s.chanceOfBetter('A', 'C')).toBe(there.probability)
        return (
          Math.abs(there.effect + back.effect) < 1e-5 &&
          Math.abs(there.probability + back.probability - 1) < 1e-5
        )
      }),
      { numRuns: 40 },
    )
  })
  it('more of the same evidence never makes it less sure', () => {
    const pair = (n: number) =>
      fitSession(
        Array.from({ length: 2 * n }, (_, i) => run(i % 2 ? 'B' : 'A', i % 2 ? 7 : 5.5, i)),
        [],
      ).compare('A', 'B')
    const widths = [1, 2, 4, 8].map((n) => pair(n).high80 - pair(n).low80)
    expect(widths.every((w, i) => i === 0 || w < widths[i - 1])).toBe(true)
  })
})

describe('honesty of the interval', () => {
  it('days drawn from the model: the 80 % interval holds the truth about four times in five', () => {
    const random = seededRandom(20)
    const days = 400
    let held = 0
    let probability = 0
    for (let d = 0; d < days; d++) {
      const truth = {
        A: sessionPriors.setupSd * normalFrom(random),
        B: sessionPriors.setupSd * normalFrom(random),
      }
      const drift = sessionPriors.driftSd * normalFrom(random)
      const runs = (['A', 'B', 'A', 'B', 'A', 'B'] as const).map((k, i) =>
        run(k, 6 + truth[k] + drift * i + sessionPriors.noiseSd * normalFrom(random), i),
      )
      const e = fitSession(runs, []).compare('A', 'B')
      const effect = truth.B - truth.A
      if (effect >= e.low80 && effect <= e.high80) held++
      probability += effect > 0 ? e.probability : 1 - e.probability
    }
    // Binomial sd of 400 days is 2 %; four of them each side.
    expect(held / days).toBeGreaterThan(0.72)
    expect(held / days).toBeLessThan(0.88)
    expect(probability / days).toBeGreaterThan(0.75)
  })
  it('two equal setups are seldom called different', () => {
    const random = seededRandom(33)
    const days = 300
    let wrong = 0
    for (let d = 0; d < days; d++) {
      const runs = (['A', 'B', 'B', 'A'] as const).map((k, i) =>
        run(k, 6 + sessionPriors.noiseSd * normalFrom(random), i),
      )
      const { state } = judge(fitSession(runs, []), 'A', 'B')
      if (state === 'better' || state === 'worse') wrong++
    }
    // 90 % is asked on either side, so a fifth would be the nominal rate without the prior's pull to zero.
    expect(wrong / days).toBeLessThan(0.2)
  })
})

describe('states of mind', () => {
  it('weigh less the further they are from normal', () => {
    expect(mindVariance.normal).toBe(1)
    for (const tag of ['track-new', 'nervous', 'tired', 'saving-tyres'] as const)
      expect(mindVariance[tag]).toBeGreaterThan(1)
  })
  it('a nervous outlier moves the answer less than a calm one', () => {
    const day = (mind: RatedRun['mind']) =>
      fitSession([run('A', 6, 0), run('A', 6, 1), run('B', 6, 2), run('B', 2, 3, mind)], []).compare('A', 'B')
        .effect
    expect(day('nervous')).toBeGreaterThan(day('normal'))
    expect(day('saving-tyres')).toBeGreaterThan(day('nervous'))
  })
})

describe('unknown setups', () => {
  it('have no runs, the prior’s spread, and even odds against anything', () => {
    const s = fitSession([run('A', 6, 0)], [])
    expect(s.level('Z')).toEqual({ mean: 0, sd: sessionPriors.setupSd, runs: 0 })
    expect(s.compare('A', 'Z').probability).toBe(0.5)
    expect(s.chanceOfBetter('A', 'Z')).toBe(0.5)
    // Nobody knows how far they are apart; a setup is where it is.
    expect(s.compare('Y', 'Z').high80).toBeGreaterThan(0.5)
    expect(s.compare('A', 'A').high80).toBe(0)
  })
  it('an empty day is no error', () => {
    const s = fitSession([], [])
    expect(s.setups).toEqual([])
    expect(s.noiseSd).toBeGreaterThan(0)
  })
})
