import { describe, expect, it } from 'vitest'
import { normalFrom, seededRandom } from '../numeric/random.ts'
import type { EndMotion } from './motion.ts'
import { paceFromWheelbase, wheelbaseMatch } from './wheelbase.ts'

const rate = 100
const random = seededRandom(11)
/** Ground that is like itself nowhere else. */
const ground = Float64Array.from({ length: 1400 }, () => normalFrom(random))
const front = ground.slice(100, 1300)
/** The same ground `lag` samples later, with a share of its own. */
const rearAfter = (lag: number, own: number) =>
  Float64Array.from({ length: 1200 }, (_, i) => ground[100 + i - lag] + own * normalFrom(random))
const motion = (depthPct: Float64Array) => ({ depthPct, sampleRateHz: rate }) as EndMotion

/** Pearson's coefficient by its definition, gaps left out. */
function pearson(f: Float64Array, r: Float64Array, lag: number): number {
  const pairs = Array.from(f.subarray(0, f.length - lag), (x, i) => [x, r[i + lag]]).filter(
    ([x, y]) => !Number.isNaN(x + y),
  )
  const mean = (k: number) => pairs.reduce((s, p) => s + p[k], 0) / pairs.length
  const [mx, my] = [mean(0), mean(1)]
  const over = (g: (x: number, y: number) => number) => pairs.reduce((s, [x, y]) => s + g(x - mx, y - my), 0)
  return over((x, y) => x * y) / Math.sqrt(over((x) => x * x) * over((_, y) => y * y))
}

describe('the rear after the front', () => {
  it.each([7, 18, 41])('is found %i samples later, as alike as Pearson says', (lag) => {
    const rear = rearAfter(lag, 0.8)
    const found = wheelbaseMatch(motion(front), motion(rear), 0, 12)!
    expect(found.lagS).toBeCloseTo(lag / rate, 9)
    expect(found.correlation).toBeCloseTo(pearson(front, rear, lag), 9)
  })
  it('is the same by the way that steps over gaps', () => {
    const rear = rearAfter(23, 0.5)
    rear[40] = NaN
    const holed = front.slice()
    holed.fill(NaN, 500, 560)
    const found = wheelbaseMatch(motion(holed), motion(rear), 0, 12)!
    expect(found.lagS).toBeCloseTo(0.23, 9)
    expect(found.correlation).toBeCloseTo(pearson(holed, rear, 23), 9)
  })
  it('is not told where most is missing, nothing moves, or it is too short', () => {
    const gone = front.slice()
    gone.fill(NaN, 0, 700)
    expect(wheelbaseMatch(motion(gone), motion(rearAfter(20, 0)), 0, 12)).toBeNull()
    expect(wheelbaseMatch(motion(front), motion(new Float64Array(1200).fill(20)), 0, 12)).toBeNull()
    expect(wheelbaseMatch(motion(front), motion(rearAfter(20, 0)), 0, 1)).toBeNull()
  })
  it('gives the pace as the wheelbase over the lag, and none where the ends are unlike', () => {
    const rear = rearAfter(20, 0.2)
    for (let i = 600; i < 1200; i++) rear[i] = normalFrom(random)
    const pace = paceFromWheelbase(front, rear, rate)
    expect(pace).toHaveLength(24)
    for (const k of [2, 5, 8]) expect(pace[k]).toBeCloseTo(1.22 / 0.2, 6)
    for (const k of [16, 19, 22]) expect(pace[k]).toBeNaN()
  })
})
