import { describe, expect, it } from 'vitest'
import { normalFrom, seededRandom } from '../../numeric/random.ts'
import { noiseFits, residualKernel } from './kernel.ts'
import { drifted, fallOff, surfacePriors, usualHabit, usualSteepness, type SurfaceData } from './model.ts'
import { Places } from './places.ts'
import { Rated } from './rated.ts'
import { Said } from './said.ts'
import { clueLikelihood, lossOf } from './samples.ts'

const K = 4
/** A day of which everything was drawn: ratings, said differences, words alone and together. */
function drawnDay(seed: number): { data: SurfaceData; random: () => number } {
  const random = seededRandom(seed)
  const whole = (n: number) => Math.floor(random() * n)
  const points = Array.from({ length: 14 }, (_, i) => ({
    at: Float64Array.from({ length: K }, () => 4 + 2 * whole(4)),
    index: i + 1,
  }))
  const rows = points.map((_, b) => ({
    a: b > 0 && random() < 0.4 ? whole(b) : null,
    b,
    value: 6 + normalFrom(random),
    noiseTimes: 1 + random(),
    extraVariance: 0.2 * random(),
    atTop: false,
  }))
  const clues = points.map((_, point) => ({
    point,
    floor: 0.1 + 0.2 * random(),
    only: random() < 0.6,
    feltFrom: [0.6, 1.3, 2.3][whole(3)],
    fadesFrom: [2.3, 9][whole(2)],
    // One dial may be spoken of both ways, and some words speak of no dial at all.
    parts: Array.from({ length: whole(4) }, () => ({
      dial: whole(K),
      direction: (random() < 0.5 ? -1 : 1) as 1 | -1,
      share: 0.5 * random(),
    })),
  }))
  const dials = points[0].at.reduce<SurfaceData['dials']>(
    (all) => [...all, { low: 0, high: 14, expected: 7, expectedSd: 3, logSteepness: usualSteepness() }],
    [],
  )
  return {
    data: { dials, points, rows, clues, hints: [], silences: [], habit: usualHabit() },
    random,
  }
}

interface State {
  best: number[]
  steepness: number[]
  straightFrom: number
}
const fallsOf = (places: Places, { best, straightFrom }: State) => {
  const out = places.room()
  out.forEach((fall, k) => places.fall(k, best[k], straightFrom, fall))
  return out
}
const surfaceOf = ({ best, steepness, straightFrom }: State) => {
  const s = {
    best: Float64Array.from(best),
    steepness: Float64Array.from(steepness),
    noiseSd: new Float64Array(1),
    straightFrom: Float64Array.of(straightFrom),
    samples: 1,
    dials: K,
    residual: new Float64Array(0),
  }
  return { ...s, lossAt: (z: ArrayLike<number>) => lossOf(s, z) }
}
const drawState = (random: () => number): State => ({
  best: Array.from({ length: K }, () => 14 * random()),
  steepness: Array.from({ length: K }, () => Math.exp(-2 + normalFrom(random))),
  straightFrom: surfacePriors.straightFrom[Math.floor(random() * 4)],
})

/** Steps of a chain as they come: some taken, some not, now and then another shape. */
function walk(
  random: () => number,
  first: State,
  step: (dial: number, before: State, after: State) => { gained: number; take: () => void },
  reshape: (after: State) => { gained: number; take: () => void },
  truth: (s: State) => number,
): void {
  let now = first
  for (let i = 0; i < 200; i++) {
    const other = drawState(random)
    const dial = Math.floor(random() * K)
    const next = { ...now, best: [...now.best], steepness: [...now.steepness] }
    const kind = random()
    if (kind < 0.2) next.straightFrom = other.straightFrom
    else if (kind < 0.6) next.best[dial] = other.best[dial]
    else next.steepness[dial] = other.steepness[dial]
    const { gained, take } = kind < 0.2 ? reshape(next) : step(dial, now, next)
    expect(gained).toBeCloseTo(truth(next) - truth(now), 8)
    if (random() < 0.5) continue
    take()
    now = next
  }
}

describe('likelihoods that are kept up step by step', () => {
  it.each([1, 2, 3])('of ratings and differences are what all rows together say, day %i', (seed) => {
    const { data, random } = drawnDay(seed)
    const places = new Places(data)
    const noise = noiseFits(data, residualKernel(data))[4]
    const state = drawState(random)
    const rated = new Rated(data, places, noise)
    rated.set(state.steepness, fallsOf(places, state))
    const meanDrift = data.points.reduce((t, p) => t + drifted(p.index), 0) / data.points.length
    const truth = (s: State) => {
      const loss = (run: number) =>
        data.points[run].at.reduce(
          (t, z, k) => t + s.steepness[k] * fallOff(z - s.best[k], s.straightFrom),
          0,
        )
      const since = (run: number | null) => (run === null ? meanDrift : drifted(data.points[run].index))
      const rest = data.rows.map(
        (r) =>
          r.value +
          loss(r.b) -
          (r.a === null ? surfacePriors.levelMean : loss(r.a)) -
          data.habit.drift.mean * (since(r.b) - since(r.a)),
      )
      let q = 0
      rest.forEach((x, i) => rest.forEach((y, j) => (q += x * y * noise.inverse[i * rest.length + j])))
      return -0.5 * q
    }
    walk(
      random,
      state,
      (k, _, s) => ({
        gained: rated.change(k, s.steepness[k], fallsOf(places, s)[k]),
        take: () => rated.accept(),
      }),
      (s) => ({
        gained: rated.reshaped(s.steepness, fallsOf(places, s)),
        take: () => rated.set(s.steepness, fallsOf(places, s)),
      }),
      truth,
    )
  })

  it.each([1, 2, 3])('of words are what each word alone says, day %i', (seed) => {
    const { data, random } = drawnDay(seed)
    const places = new Places(data)
    const state = drawState(random)
    const said = new Said(data, places, state.best, state.steepness, fallsOf(places, state))
    const truth = (s: State) =>
      data.clues.reduce((t, clue) => t + Math.log(clueLikelihood(surfaceOf(s), data, clue)[0]), 0)
    walk(
      random,
      state,
      (k, before, s) => ({
        gained: said.change(k, before.best[k], s.best[k], s.steepness[k], fallsOf(places, s)[k]),
        take: () => said.accept(),
      }),
      (s) => ({
        gained: said.reshaped(s.steepness, fallsOf(places, s)),
        take: () => said.acceptShape(),
      }),
      truth,
    )
  })
})
