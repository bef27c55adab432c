import { describe, expect, it } from 'vitest'
import { clearDifference, repeatSd } from './metricNoise.ts'
import { beyond, cutNormal, normalCdf, together } from './normal.ts'
import { fitSession, sessionPriors, type RatedRun } from './session.ts'
import { cholesky, choleskyInverse, choleskyQuadratic, choleskySolve } from './solve.ts'
import { judge } from './verdict.ts'

const run = (
  setupKey: string,
  rating: number,
  index: number,
  mind: RatedRun['mind'] = 'normal',
): RatedRun => ({ runId: `${index}`, setupKey, rating, index, mind })

describe('normal distribution', () => {
  it('agrees with published values', () => {
    // Abramowitz & Stegun, table 26.1
    expect(normalCdf(1)).toBeCloseTo(0.8413447, 6)
    expect(normalCdf(-1.96)).toBeCloseTo(0.0249979, 6)
    expect(normalCdf(0)).toBeCloseTo(0.5, 6)
  })
})

describe('linear solve', () => {
  it('undoes the product', () => {
    const a = Float64Array.of(4, 2, 0.6, 2, 5, 1, 0.6, 1, 3)
    const x = choleskySolve(cholesky(a, 3), 3, [1, 2, 3])
    for (let i = 0; i < 3; i++)
      expect(a[3 * i] * x[0] + a[3 * i + 1] * x[1] + a[3 * i + 2] * x[2]).toBeCloseTo(i + 1, 12)
  })
  it('inverts: the product with the matrix is one', () => {
    const n = 7
    const a = Float64Array.from({ length: n * n }, (_, k) => {
      const [i, j] = [Math.floor(k / n), k % n]
      return Math.exp(-Math.abs(i - j) / 2) + (i === j ? 0.3 : 0)
    })
    const inverse = choleskyInverse(cholesky(a, n), n)
    for (let i = 0; i < n; i++)
      for (let j = 0; j < n; j++) {
        let s = 0
        for (let k = 0; k < n; k++) s += a[i * n + k] * inverse[k * n + j]
        expect(s).toBeCloseTo(i === j ? 1 : 0, 12)
      }
  })
  it('half of solving gives the quadratic form of the inverse', () => {
    const n = 5
    const a = Float64Array.from({ length: n * n }, (_, k) => {
      const [i, j] = [Math.floor(k / n), k % n]
      return Math.exp(-Math.abs(i - j)) + (i === j ? 0.4 : 0)
    })
    const factor = cholesky(a, n)
    // The first ones nothing: as where two setups of a long day are compared.
    for (const b of [
      [0, 0, 1, 0, -1],
      [2, -1, 0.5, 0, 3],
      [0, 0, 0, 0, 0],
    ]) {
      const x = choleskySolve(factor, n, b)
      const direct = b.reduce((s, v, i) => s + v * x[i], 0)
      expect(choleskyQuadratic(factor, n, b)).toBeCloseTo(direct, 12)
    }
  })
  it('refuses what is not positive definite', () => {
    expect(() => cholesky(Float64Array.of(1, 2, 2, 1), 2)).toThrow()
  })
})

describe('session model', () => {
  it('with many runs and weak priors the effect is the difference of means', () => {
    // Balanced order cancels drift: A B B A …
    const runs = Array.from({ length: 40 }, (_, i) =>
      run([0, 3].includes(i % 4) ? 'A' : 'B', ([0, 3].includes(i % 4) ? 5 : 6.5) + (i % 2 ? 0.3 : -0.3), i),
    )
    const e = fitSession(runs, [], { ...sessionPriors, setupSd: 50 }).compare('A', 'B')
    expect(e.effect).toBeCloseTo(1.5, 1)
    expect(e.probability).toBeGreaterThan(0.999)
  })
  it('finds the noise of the rider from repeats', () => {
    const quiet = fitSession(
      Array.from({ length: 12 }, (_, i) => run('A', 6 + (i % 2) * 0.1, i)),
      [],
    )
    const wild = fitSession(
      Array.from({ length: 12 }, (_, i) => run('A', 6 + (i % 2 ? 1.5 : -1.5), i)),
      [],
    )
    expect(quiet.noiseSd).toBeLessThan(0.5)
    expect(wild.noiseSd).toBeGreaterThan(1.2)
    expect(wild.repeats).toBe(11)
  })
  it('does not take a day that gets better by itself for the work of the last setup', () => {
    const drift = Array.from({ length: 12 }, (_, i) => run(i < 6 ? 'A' : 'B', 5 + 0.15 * i, i))
    const naive = 0.15 * 6
    const e = fitSession(drift, []).compare('A', 'B')
    expect(e.effect).toBeLessThan(naive)
    expect(fitSession(drift, []).driftPerRun).toBeGreaterThan(0)
  })
  it('swapping A and B mirrors the answer', () => {
    const s = fitSession([run('A', 5, 0), run('B', 6, 1), run('A', 5.5, 2), run('B', 7, 3)], [])
    const ab = s.compare('A', 'B')
    const ba = s.compare('B', 'A')
    expect(ab.effect).toBeCloseTo(-ba.effect, 6)
    expect(ab.low80).toBeCloseTo(-ba.high80, 6)
    expect(ab.probability).toBeCloseTo(1 - ba.probability, 5)
  })
  it('a tired run weighs less, and a direct verdict counts', () => {
    const base = [run('A', 5, 0), run('A', 5, 2), run('B', 6, 1)]
    const fresh = fitSession([...base, run('B', 8, 3)], []).compare('A', 'B').effect
    const tired = fitSession([...base, run('B', 8, 3, 'tired')], []).compare('A', 'B').effect
    expect(tired).toBeLessThan(fresh)
    const said = fitSession(base, [{ setupA: 'A', setupB: 'B', indexA: 2, indexB: 3, value: 2 }]).compare(
      'A',
      'B',
    ).probability
    expect(said).toBeGreaterThan(fitSession(base, []).compare('A', 'B').probability)
  })
  it('a verdict loop A > B > C > A ends in no preference', () => {
    const runs = ['A', 'B', 'C'].map((k, i) => run(k, 6, i))
    const loop = [
      ['A', 'B'],
      ['B', 'C'],
      ['C', 'A'],
    ].map(([a, b]) => ({ setupA: a, setupB: b, indexA: 0, indexB: 0, value: 1 }))
    const p = fitSession(runs, loop).compare('A', 'C').probability
    expect(Math.abs(p - 0.5)).toBeLessThan(0.15)
  })
})

describe('the level of a setup', () => {
  const ratings = { A: [5, 6, 5.5, 6.5], B: [7, 8, 7.5] }
  const day = (shift = 0, lift = 0) =>
    fitSession(
      [0, 1, 2, 3].flatMap((n) =>
        (['A', 'B'] as const).flatMap((k, i) =>
          ratings[k][n] === undefined ? [] : [run(k, ratings[k][n] + lift, 2 * n + i + shift)],
        ),
      ),
      [],
    )
  it('differs between two setups by what comparing them says', () => {
    const s = day()
    const { mean: a, sd, runs } = s.level('A')
    const { mean: b, sd: sdB } = s.level('B')
    expect(b - a).toBeCloseTo(s.compare('A', 'B').effect, 1)
    expect(runs).toBe(4)
    // Known to less than its own spread beforehand, not to less than its ratings allow.
    for (const x of [sd, sdB]) {
      expect(x).toBeLessThan(1.2)
      expect(x).toBeGreaterThan(0.2)
    }
    expect(s.level('A')).toEqual({ mean: a, sd, runs })
  })
  it('is known better the more it was ridden', () => {
    const often = fitSession(
      Array.from({ length: 30 }, (_, i) => run(i % 2 ? 'A' : 'B', 6 + (i % 2), i)),
      [],
    )
    const seldom = fitSession(
      Array.from({ length: 4 }, (_, i) => run(i % 2 ? 'A' : 'B', 6 + (i % 2), i)),
      [],
    )
    expect(often.level('A').sd).toBeLessThan(seldom.level('A').sd)
    expect(often.level('A').mean - often.level('B').mean).toBeGreaterThan(0.7)
  })
  it('does not depend on which run of the day was the first, nor on how high the rider rates', () => {
    const [here, later, higher] = [day(), day(40), day(0, 1)]
    expect(later.level('A').mean).toBeCloseTo(here.level('A').mean, 6)
    expect(later.level('A').sd).toBeCloseTo(here.level('A').sd, 6)
    expect(higher.compare('A', 'B').effect).toBeCloseTo(here.compare('A', 'B').effect, 1)
  })
  it('of a setup that nobody rode is the prior', () => {
    expect(day().level('C')).toEqual({ mean: 0, sd: 1.2, runs: 0 })
  })
})

describe('verdict', () => {
  it('is "not yet" with fewer than two runs of either setup', () => {
    const v = judge(fitSession([run('A', 5, 0), run('A', 5, 1), run('B', 9, 2)], []), 'A', 'B')
    expect(v.state).toBe('not-yet')
    expect(v.words).toMatch(/^Not yet: one more run is needed/)
  })
  it('says better, worse and same when the runs say so', () => {
    const clear = fitSession(
      [run('A', 4, 0), run('B', 8, 1), run('A', 4, 2), run('B', 8, 3), run('A', 4.5, 4), run('B', 8, 5)],
      [],
    )
    expect(judge(clear, 'A', 'B').state).toBe('better')
    expect(judge(clear, 'B', 'A').state).toBe('worse')
    const even = fitSession(
      Array.from({ length: 40 }, (_, i) => run(i % 2 ? 'A' : 'B', 6, i)),
      [],
    )
    expect(judge(even, 'A', 'B').state).toBe('same')
  })
  it('stays open when the noise is larger than the difference', () => {
    const v = judge(
      fitSession([run('A', 4, 0), run('B', 7, 1), run('A', 7, 2), run('B', 5, 3)], []),
      'A',
      'B',
    )
    expect(v.state).toBe('open')
    expect(v.words).toMatch(/settle it|scatter/)
  })
})

describe('noise of a figure', () => {
  it('pools the repeats', () => {
    expect(
      repeatSd([
        [1, 3],
        [10, 10, 13],
      ])!.sd,
    ).toBeCloseTo(Math.sqrt((2 + 6) / 3), 12)
    expect(repeatSd([[1], [2]])).toBeNull()
  })
  it('asks for more when the noise is known from few repeats', () => {
    expect(clearDifference({ sd: 1, degrees: 1 })).toBeCloseTo(3.078 * Math.SQRT2, 9)
    expect(clearDifference({ sd: 1, degrees: 1 })).toBeGreaterThan(clearDifference({ sd: 1, degrees: 3 }))
    expect(clearDifference({ sd: 1, degrees: 500 })).toBeCloseTo(1.2815515655446004 * Math.SQRT2, 9)
  })
})

describe('opinions on a number', () => {
  it('taking apart what was taken together gives back what was learnt', () => {
    const prior = { mean: 8, sd: 3.5 }
    const learnt = { mean: 5, sd: 1.5 }
    const back = beyond(together(prior, learnt), prior)!
    expect(back.mean).toBeCloseTo(5, 9)
    expect(back.sd).toBeCloseTo(1.5, 9)
  })
  it('what is hardly narrower than before taught nothing', () => {
    expect(beyond({ mean: 8.4, sd: 3.45 }, { mean: 8, sd: 3.5 })).toBeNull()
    expect(beyond({ mean: 8.4, sd: 4 }, { mean: 8, sd: 3.5 })).toBeNull()
  })
  it('a normal cut at both ends has the mean and spread that a plain sum over it has', () => {
    for (const [mean, sd, low, high] of [
      [8, 3.5, 0, 16],
      [0, 3.5, 0, 11],
      [14, 2, 0, 10],
    ]) {
      let [total, first, second] = [0, 0, 0]
      for (let x = low + 0.0005; x < high; x += 0.001) {
        const w = Math.exp(-0.5 * ((x - mean) / sd) ** 2)
        total += w
        first += w * x
        second += w * x * x
      }
      const m = first / total
      const cut = cutNormal({ mean, sd }, low, high)
      expect(cut.mean).toBeCloseTo(m, 4)
      expect(cut.sd).toBeCloseTo(Math.sqrt(second / total - m * m), 4)
    }
  })
})
