import { describe, expect, it } from 'vitest'
import { normalFrom, seededRandom } from '../../numeric/random.ts'
import { normalCdf } from '../../stats/normal.ts'
import { fitSurface } from './fit.ts'
import {
  drifted,
  fallOff,
  presence,
  surfacePriors,
  usualHabit,
  usualSteepness,
  type SurfaceData,
} from './model.ts'

const dial = (over: Partial<SurfaceData['dials'][number]> = {}) => ({
  low: 0,
  high: 16,
  expected: 8,
  expectedSd: 3,
  logSteepness: usualSteepness(),
  ...over,
})
const data = (at: number[][], over: Partial<SurfaceData> = {}): SurfaceData => ({
  dials: (at[0] ?? [0]).map(() => dial()),
  points: at.map((x, i) => ({ at: Float64Array.from(x), index: i + 1 })),
  habit: usualHabit(),
  rows: [],
  clues: [],
  hints: [],
  silences: [],
  ...over,
})
const rated = (values: number[]): SurfaceData['rows'] =>
  values.map((value, b) => ({ a: null, b, value, noiseTimes: 1, extraVariance: 0, atTop: false }))
const mean = (x: ArrayLike<number>) => Array.from(x).reduce((s, v) => s + v, 0) / x.length
const sd = (x: ArrayLike<number>) => {
  const m = mean(x)
  return Math.sqrt(mean(Array.from(x, (v) => (v - m) ** 2)))
}

describe('the surface', () => {
  it('knows nothing but what was expected before anything was ridden', () => {
    const s = fitSurface(data([[8]]), 20_000)
    expect(mean(s.best)).toBeCloseTo(8, 0)
    // A normal of sd 3, cut at the ends of the range 0 … 16.
    expect(sd(s.best)).toBeGreaterThan(2.6)
    expect(sd(s.best)).toBeLessThan(3.1)
  })

  // Known level, no drift, no residual: the likelihood of each rating stands alone, so a plain grid can sum it.
  it.each([
    { what: 'ratings within the scale', at: [4, 8, 12, 12], y: [4, 7, 8, 8.5], tops: [] as number[] },
    { what: 'two tens, which say “at least”', at: [4, 8, 12, 13], y: [4, 7, 10, 10], tops: [2, 3] },
  ])('agrees with a grid integration of the same model, done another way: $what', ({ at, y, tops }) => {
    const p = surfacePriors
    const rows = rated(y).map((r) => ({ ...r, atTop: tops.includes(r.b) }))
    const held = {
      levelSd: p.levelSd,
      driftSd: p.driftSd,
      residualSd: p.residualSd,
      learningSd: p.learningSd,
    }
    Object.assign(p, { levelSd: 1e-4, driftSd: 1e-4, residualSd: 1e-4, learningSd: 1e-4 })
    const s = fitSurface(
      data(
        at.map((x) => [x]),
        { rows },
      ),
      60_000,
    )
    Object.assign(p, held)
    let total = 0
    let first = 0
    let second = 0
    for (const c of p.straightFrom)
      for (let g = -2; g <= 2; g += 0.5) {
        const noise = p.noiseSd * Math.exp(g * p.noiseLogSd)
        for (let la = -3; la <= 3; la += 0.1) {
          const a = (p.lossThreeClicksOff / 9) * Math.exp(la)
          for (let b = 0; b <= 16; b += 0.1) {
            let log = -0.5 * ((b - 8) / 3) ** 2 - 0.5 * (la / p.steepnessLogSd) ** 2 - 0.5 * g * g
            y.forEach((v, i) => {
              const expected = p.levelMean - a * fallOff(at[i] - b, c)
              if (rows[i].atTop) log += Math.log(1e-300 + normalCdf((expected - 9.75) / noise))
              else log -= 0.5 * ((v - expected) / noise) ** 2 + Math.log(noise)
            })
            const w = Math.exp(log)
            total += w
            first += w * b
            second += w * b * b
          }
        }
      }
    const gridMean = first / total
    const gridSd = Math.sqrt(second / total - gridMean ** 2)
    expect(Math.abs(mean(s.best) - gridMean)).toBeLessThan(0.12)
    expect(Math.abs(sd(s.best) - gridSd)).toBeLessThan(0.12)
  })

  it('gives the same answer for the same day, and does not depend on the order of the dials', () => {
    const at = [
      [4, 9],
      [8, 9],
      [8, 12],
    ]
    const one = data(at, { rows: rated([5, 7, 6]) })
    expect(fitSurface(one).best).toEqual(fitSurface(one).best)
    const swapped = data(
      at.map(([a, b]) => [b, a]),
      { rows: rated([5, 7, 6]) },
    )
    const [x, y] = [fitSurface(one, 20_000), fitSurface(swapped, 20_000)]
    const dialMean = (s: typeof x, k: number) => mean(s.best.filter((_, i) => i % 2 === k))
    expect(dialMean(x, 0)).toBeCloseTo(dialMean(y, 1), 0)
    expect(dialMean(x, 1)).toBeCloseTo(dialMean(y, 0), 0)
  })

  it('finds the best place and the noise of a rider whom it only hears as ratings', () => {
    const random = seededRandom(5)
    const at = Array.from({ length: 40 }, (_, i) => [2 + (i % 13)])
    const y = at.map(([z]) => 8.5 - (9 / 25) * ((z - 10) / 3) ** 2 * 2.5 + 0.5 * (random() - random()) * 2.4)
    const s = fitSurface(data(at, { rows: rated(y) }), 2000)
    expect(Math.abs(mean(s.best) - 10)).toBeLessThan(1)
    expect(sd(s.best)).toBeLessThan(1.2)
  })

  it('a word moves the best place toward its remedy, a stronger one further, silence holds it near', () => {
    const word = (feltFrom: number, fadesFrom: number) => ({
      clues: [
        {
          point: 0,
          floor: 0.2,
          only: false,
          feltFrom,
          fadesFrom,
          parts: [{ dial: 0, direction: 1 as const, share: 0.8 }],
        },
      ],
    })
    const none = fitSurface(data([[8]]), 6000)
    const mild = fitSurface(data([[8]], word(0.6, 2.5)), 6000)
    const strong = fitSurface(data([[8]], word(2.3, Infinity)), 6000)
    expect(mean(mild.best)).toBeGreaterThan(mean(none.best) + 0.5)
    expect(mean(strong.best)).toBeGreaterThan(mean(mild.best) + 0.3)
    const quiet = fitSurface(data([[8]], { silences: [{ point: 0, dial: 0, weight: 0.6 }] }), 6000)
    expect(sd(quiet.best)).toBeLessThan(sd(none.best) - 0.2)
  })

  it('a word that stood alone names the worst: it says of the others that they are less bad', () => {
    const word = (only: boolean) => ({
      clues: [
        {
          point: 0,
          floor: 0.2,
          only,
          feltFrom: 0.6,
          fadesFrom: Infinity,
          parts: [{ dial: 0, direction: 1 as const, share: 0.8 }],
        },
      ],
    })
    const lossOf = (s: ReturnType<typeof fitSurface>, k: number) =>
      mean(
        Array.from(
          { length: s.samples },
          (_, i) => s.steepness[2 * i + k] * fallOff(8 - s.best[2 * i + k], s.straightFrom[i]),
        ),
      )
    const among = fitSurface(data([[8, 8]], word(false)), 40_000)
    const alone = fitSurface(data([[8, 8]], word(true)), 40_000)
    expect(lossOf(alone, 0)).toBeGreaterThan(1.15 * lossOf(among, 0))
    expect(lossOf(alone, 1)).toBeLessThan(0.85 * lossOf(among, 1))
    // What is left of what was named is on its side.
    expect(mean(alone.best.filter((_, i) => i % 2 === 0))).toBeGreaterThan(8.5)
  })

  it('agrees with plain weighing of draws from what was believed before, with a word that stood alone', () => {
    const random = seededRandom(99)
    const p = surfacePriors
    const [floor, share] = [0.3, 0.7]
    const sums = { weight: 0, named: 0, other: 0 }
    for (let n = 0; n < 300_000; n++) {
      const c = p.straightFrom[Math.floor(random() * p.straightFrom.length)]
      const [b, a] = [0, 1].map(() => {
        let place = NaN
        while (!(place >= 0 && place <= 16)) place = 8 + 3 * normalFrom(random)
        return [place, (p.lossThreeClicksOff / 9) * Math.exp(p.steepnessLogSd * normalFrom(random))]
      })
      const loud = [b, a].map(([place, steepness]) => (steepness * fallOff(8 - place, c)) ** 2)
      const is = 1 / (1 + Math.exp(-p.feltSharpness * (b[0] - 8 - 1.3)))
      const weight = p.onlyFloor * floor + (share * is * loud[0]) / (loud[0] + loud[1] + p.hardlyFelt ** 2)
      sums.weight += weight
      sums.named += weight * b[0]
      sums.other += weight * Math.abs(a[0] - 8)
    }
    const s = fitSurface(
      data([[8, 8]], {
        clues: [
          {
            point: 0,
            floor,
            only: true,
            feltFrom: 1.3,
            fadesFrom: Infinity,
            parts: [{ dial: 0, direction: 1, share }],
          },
        ],
      }),
      80_000,
    )
    const of = (k: number) => s.best.filter((_, i) => i % 2 === k)
    expect(Math.abs(mean(of(0)) - sums.named / sums.weight)).toBeLessThan(0.1)
    expect(Math.abs(mean(of(1).map((x) => Math.abs(x - 8))) - sums.other / sums.weight)).toBeLessThan(0.1)
  })

  it('one misled word among four right ones does not turn it round', () => {
    const clue = (direction: 1 | -1) => ({
      point: 0,
      floor: 0.2,
      only: false,
      feltFrom: 1.3,
      fadesFrom: 4.5,
      parts: [{ dial: 0, direction, share: 0.8 }],
    })
    const s = fitSurface(data([[8]], { clues: [clue(1), clue(1), clue(-1), clue(1), clue(1)] }), 4000)
    expect(mean(s.best)).toBeGreaterThan(9)
  })

  it('a figure weighs what its weight says: odds of a far side against the near one', () => {
    const s = fitSurface(data([[8]], { hints: [{ point: 0, dial: 0, direction: 1, weight: 1.5 }] }), 60_000)
    const near = (x: number) => s.best.filter((b) => Math.abs(b - x) < 0.5).length
    // Equal beforehand by symmetry around 8; e^1.5 apart where the cause is surely present or surely not.
    const odds = near(11) / near(5)
    const expected = Math.exp(1.5 * (presence(3) - presence(-3)))
    expect(Math.abs(Math.log(odds / expected))).toBeLessThan(0.15)
  })

  it('takes drift out: a rider who is given half a point more every run is not fooled', () => {
    const at = [[6], [8], [6], [8], [6], [8]]
    const drifting = at.map(([z], i) => 6 + 0.12 * i + (z === 8 ? 1 : 0))
    const s = fitSurface(data(at, { rows: rated(drifting) }), 6000)
    expect(mean(s.best)).toBeGreaterThan(7.4)
  })

  it('a day does not drift for ever: each run brings less, all of them a bounded number of first runs', () => {
    const steps = Array.from({ length: 200 }, (_, i) => drifted(i + 2) - drifted(i + 1))
    expect(drifted(1)).toBe(0)
    expect(steps[0]).toBeCloseTo(1, 1)
    expect(steps.every((x, i) => x > 0 && (i === 0 || x < steps[i - 1]))).toBe(true)
    expect(drifted(200)).toBeCloseTo(surfacePriors.driftRuns, 3)
  })
  it('an empty day with no dial is no error', () => {
    const s = fitSurface({
      dials: [],
      habit: usualHabit(),
      points: [],
      rows: [],
      clues: [],
      hints: [],
      silences: [],
    })
    expect(mean(s.lossAt([]))).toBe(0)
  })
})

describe('the fall-off', () => {
  it('is nine at three clicks whatever the shape, even, and rises with distance', () => {
    for (const c of surfacePriors.straightFrom) {
      expect(fallOff(3, c)).toBeCloseTo(9, 9)
      expect(fallOff(-2, c)).toBeCloseTo(fallOff(2, c), 12)
      expect(fallOff(0, c)).toBe(0)
      for (let u = 1; u < 10; u++) expect(fallOff(u + 1, c)).toBeGreaterThan(fallOff(u, c))
    }
  })
  it('a flat bottom costs nothing near the best place', () => {
    const { flatWithin } = surfacePriors
    expect(fallOff(flatWithin, Infinity)).toBe(0)
    expect(fallOff(-0.9 * flatWithin, Infinity)).toBe(0)
    expect(fallOff(flatWithin + 0.1, Infinity)).toBeGreaterThan(0)
  })
  it('is a parabola near the best place and a line far from it', () => {
    expect(fallOff(0.02, 5) / fallOff(0.01, 5)).toBeCloseTo(4, 2)
    const far = fallOff(300, 1.2) - fallOff(299, 1.2)
    expect(fallOff(500, 1.2) - fallOff(499, 1.2)).toBeCloseTo(far, 3)
  })
})
