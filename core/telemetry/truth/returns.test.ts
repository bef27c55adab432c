import { describe, expect, it } from 'vitest'
import { normalFrom, seededRandom } from '../../numeric/random.ts'
import { bump, recordingOf } from '../../test/synthetic.ts'
import { analyse } from '../analyse.ts'

interface Ground {
  zeta: number
  naturalHz?: number
  sampleRateHz?: number
  /** Chatter on the whole ride, % of travel, 8–25 Hz. */
  chatterPct?: number
  /** White noise of the sensor, mm of 150. */
  noiseMm?: number
  seed?: number
  hits?: number
  apartS?: number
}

/**
 * A rider on one damped spring over edges of the ground, integrated step by step (semi-implicit Euler at 4 kHz): m a = −k d −
 * c v + push. The ratio is that of the spring and damper that were put in, not of any formula for a swing.
 */
function ridden({
  zeta,
  naturalHz = 2.4,
  sampleRateHz = 500,
  chatterPct = 0,
  noiseMm = 0,
  seed = 1,
  hits = 10,
  apartS = 2.6,
}: Ground) {
  const random = seededRandom(seed)
  const omega = 2 * Math.PI * naturalHz
  const stepS = 1 / 4000
  const durationS = hits * apartS + 2
  const pushes = Array.from({ length: hits }, (_, i) => ({
    at: 1 + i * apartS + 0.2 * random(),
    width: 0.05 + 0.05 * random(),
    size: 0.8 + 0.6 * random(),
  }))
  const waves = Array.from({ length: 8 }, () => ({
    w: 2 * Math.PI * (8 + 17 * random()),
    at: 2 * Math.PI * random(),
  }))
  const depth: number[] = []
  let [x, v] = [0, 0]
  const every = 4000 / sampleRateHz
  for (let i = 0; i < durationS * 4000; i++) {
    const t = i * stepS
    let push = 0
    for (const p of pushes) if (t > p.at && t < p.at + p.width) push += (p.size * omega * 40) / p.width
    v += (push - omega * omega * x - 2 * zeta * omega * v) * stepS
    x += v * stepS
    if (i % every === 0) depth.push(x)
  }
  return recordingOf(
    (t) => {
      const ripple = waves.reduce((s, w) => s + Math.sin(w.w * t + w.at), 0) / 2
      return (
        24 +
        depth[Math.min(depth.length - 1, Math.round(t * sampleRateHz))] +
        chatterPct * ripple +
        (noiseMm / 1.5) * normalFrom(random)
      )
    },
    null,
    { durationS, sampleRateHz },
  )
}
const figures = (g: Ground) => analyse(ridden(g), []).whole.front!

describe('the damping ratio of a free return, against the damper that was put in', () => {
  const grounds: [string, Partial<Ground>][] = [
    ['quiet', {}],
    ['0.4 % chatter', { chatterPct: 0.4 }],
    ['0.4 mm of noise', { noiseMm: 0.4 }],
    ['chatter at 100 Hz', { chatterPct: 0.4, sampleRateHz: 100 }],
    ['chatter, a slow swing', { chatterPct: 0.3, naturalHz: 1.7 }],
    ['chatter, a quick swing', { chatterPct: 0.4, naturalHz: 3.4 }],
  ]
  for (const [name, ground] of grounds)
    it.each([0.15, 0.2, 0.25, 0.3, 0.4, 0.5, 0.6])(`${name}: %s within 0.03`, (zeta) => {
      for (const seed of [1, 2, 3]) {
        const m = figures({ zeta, seed, ...ground })
        expect(m.reboundDampingHits, `seed ${seed}`).toBeGreaterThanOrEqual(3)
        expect(Math.abs(m.reboundDampingRatio! - zeta), `seed ${seed}`).toBeLessThan(0.03)
      }
    })
  it('what never swings back is 0.8 or above', () => {
    for (const zeta of [1, 1.3]) expect(figures({ zeta, chatterPct: 0.2 }).reboundDampingRatio).toBe(0.8)
  })
  it('says nothing of fewer than three quiet returns, and never 0.8 of a ride that has none', () => {
    expect(figures({ zeta: 0.2, hits: 2 }).reboundDampingRatio).toBeNull()
    // Hit upon hit, nothing settles.
    for (const seed of [1, 2, 3, 4]) {
      const m = figures({ zeta: 0.3, hits: 60, apartS: 0.35, seed, chatterPct: 0.4 })
      expect(
        m.reboundDampingRatio === null || Math.abs(m.reboundDampingRatio - 0.3) < 0.1,
        `seed ${seed}`,
      ).toBe(true)
    }
    // A wavering ground that is no swing at all.
    const random = seededRandom(5)
    let walk = 0
    const wander = Array.from({ length: 2000 }, () => (walk = 0.97 * walk + 5 * normalFrom(random)))
    const rough = recordingOf((t) => 30 + wander[Math.min(1999, Math.floor(t * 50))], null, { durationS: 40 })
    const m = analyse(rough, []).whole.front!
    expect(m.reboundDampingRatio).toBeNull()
  })
  it('tells how far its returns lie apart', () => {
    const quiet = figures({ zeta: 0.3 })
    const rough = figures({ zeta: 0.3, chatterPct: 0.6, noiseMm: 0.5, seed: 4 })
    expect(quiet.reboundDampingSe!).toBeLessThan(0.01)
    expect(rough.reboundDampingSe!).toBeGreaterThan(quiet.reboundDampingSe!)
  })
})

describe('what is no return of a hit', () => {
  it.each([
    ['berms: load that comes and goes over a second', (t: number) => 25 + 18 * bump((t % 4) - 2, 1.6)],
    ['rollers, pushed through', (t: number) => 30 + 14 * Math.sin(2 * Math.PI * 0.8 * t)],
    [
      'a rider who gets up and sits down',
      (t: number) => 25 + 8 * Math.tanh(6 * Math.sin(2 * Math.PI * 0.3 * t)),
    ],
  ] as [string, (t: number) => number][])('%s', (_, ground) => {
    for (const sampleRateHz of [100, 500]) {
      const random = seededRandom(9)
      const noise = Array.from({ length: 40_000 }, () => 0.2 * normalFrom(random))
      const r = recordingOf((t) => ground(t) + noise[Math.round(t * sampleRateHz) % 40_000], null, {
        durationS: 60,
        sampleRateHz,
      })
      expect(analyse(r, []).whole.front!.reboundDampingRatio, `${sampleRateHz} Hz`).toBeNull()
    }
  })
})
