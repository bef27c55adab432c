import { describe, expect, it } from 'vitest'
import { seededRandom } from '../numeric/random.ts'
import { alignPieces, sure } from './align.ts'

const rateHz = 200
/** Bumpy ground as a function of place, s of the first ride: a smooth random line. */
function ground(seed: number): (t: number) => number {
  const random = seededRandom(seed)
  const waves = Array.from({ length: 60 }, () => ({
    f: 0.2 + 4 * random(),
    p: 2 * Math.PI * random(),
    a: random(),
  }))
  return (t) => waves.reduce((s, w) => s + w.a * Math.sin(2 * Math.PI * w.f * t + w.p), 0)
}
const ride = (
  line: (t: number) => number,
  seconds: number,
  at: (t: number) => number,
  noise = 0,
  seed = 5,
) => {
  const random = seededRandom(seed)
  const depth = Float64Array.from(
    { length: seconds * rateHz },
    (_, i) => line(at(i / rateHz)) + noise * (random() - 0.5),
  )
  return { depth, rateHz }
}
const spans = [0, 10, 20, 30].map((startS) => ({ startS, endS: startS + 10 }))

describe('laying one ride under another', () => {
  it('finds a constant lag to a block, through noise', () => {
    const line = ground(1)
    const pieces = alignPieces(
      ride(line, 40, (t) => t),
      ride(line, 48, (t) => t - 3.4, 6),
      spans,
    )!
    for (const p of pieces) {
      expect(p.lagS).toBeCloseTo(3.4, 1)
      expect(p.correlation).toBeGreaterThan(0.7)
    }
  })
  it('follows a rider who loses time from section to section', () => {
    const line = ground(2)
    // The second ride begins 1 s later and loses 0.8 s at each border.
    const lost = (t: number) => 1 + 0.8 * Math.min(3, Math.max(0, Math.floor((t - 1) / 10.8)))
    const pieces = alignPieces(
      ride(line, 40, (t) => t),
      ride(line, 50, (t) => t - lost(t)),
      spans,
    )!
    pieces.forEach((p, i) => expect(p.lagS).toBeCloseTo(1 + 0.8 * i, 1))
  })
  it('rates need not be alike, and gaps are left out', () => {
    const line = ground(3)
    const slow = { depth: Float64Array.from({ length: 4600 }, (_, i) => line(i / 100 - 2)), rateHz: 100 }
    const holed = ride(line, 40, (t) => t)
    holed.depth.fill(NaN, 12 * rateHz, 14 * rateHz)
    for (const p of alignPieces(holed, slow, spans)!) expect(p.lagS).toBeCloseTo(2, 1)
  })
  it('a section ridden on another line takes its neighbour’s lag, and says it is not sure', () => {
    const line = ground(4)
    const other = ground(99)
    const second = ride(line, 46, (t) => t - 2)
    for (let i = 12 * rateHz; i < 22 * rateHz; i++) second.depth[i] = other(i / rateHz)
    const pieces = alignPieces(
      ride(line, 40, (t) => t),
      second,
      spans,
    )!
    expect(pieces[1].correlation).toBeLessThan(sure)
    expect(pieces[1].lagS).toBe(pieces[0].lagS)
    expect(pieces[2].lagS).toBeCloseTo(2, 1)
  })
  it('two rides that have nothing in common are not laid over each other', () => {
    expect(
      alignPieces(
        ride(ground(5), 40, (t) => t),
        ride(ground(6), 40, (t) => t),
        spans,
      ),
    ).toBeNull()
    expect(
      alignPieces({ depth: new Float64Array(2000), rateHz }, { depth: new Float64Array(2000), rateHz }, []),
    ).toBeNull()
  })
  it('a whole without sections is one piece', () => {
    const line = ground(7)
    expect(
      alignPieces(
        ride(line, 30, (t) => t),
        ride(line, 40, (t) => t - 5),
        [],
      ),
    ).toMatchObject([{ startS: 0, endS: 30, lagS: expect.closeTo(5, 1) }])
  })
})
