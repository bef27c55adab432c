import { describe, expect, it } from 'vitest'
import { normalFrom, seededRandom } from '../numeric/random.ts'
import { resampleUniform } from '../signal/resample.ts'
import { takeOutRepeats } from './repeats.ts'

const rate = 200
const seconds = 40
/** Swings of 2 and 5 times a second, mm; ends with a second of standing still. */
const truth = Float64Array.from({ length: rate * seconds }, (_, i) => {
  const t = Math.min(i, rate * (seconds - 1)) / rate
  return 40 + 20 * Math.sin(2 * Math.PI * 2 * t) + 8 * Math.sin(2 * Math.PI * 5 * t + 1)
})
const rounded = (mm: number) => truth.map((x) => Math.round(x / mm) * mm)
/** Said again until `isRead` says that there is another. */
const heldBy = (x: Float64Array, isRead: (i: number) => boolean) => {
  let last = x[0]
  return x.map((v, i) => (last = isRead(i) ? v : last))
}
const fastest = (x: Float64Array) =>
  x
    .filter(Number.isFinite)
    .reduce((most, v, i, all) => Math.max(most, i > 0 ? Math.abs(v - all[i - 1]) * rate : 0), 0)
const joined = (x: Float64Array) => {
  const timeS = Float64Array.from(x, (_, i) => i / rate)
  return resampleUniform(timeS, x, rate, x.length, 0.1)
}

describe('a channel whose last reading is said again', () => {
  it.each([2, 4, 8])('in %i rows is as fast as it was, not several times', (every) => {
    const x = heldBy(rounded(0.1), (i) => i % every === 0)
    expect(fastest(x)).toBeGreaterThan(0.9 * every * fastest(truth))
    expect(takeOutRepeats(x)).toBe(every)
    const read = joined(x)
    expect(fastest(read)).toBeLessThan(1.1 * fastest(truth))
    // Between two readings of a swing of 5 Hz a straight line is out by its bow: a·ω²·h²/8 each.
    const h = every / rate
    const bow = ((20 * (4 * Math.PI) ** 2 + 8 * (10 * Math.PI) ** 2) * h * h) / 8
    const known = read.subarray(0, read.length - every)
    known.forEach((v, i) => expect(Math.abs(v - truth[i])).toBeLessThan(bow + 0.06))
  })

  it('unevenly, too', () => {
    const random = seededRandom(3)
    let next = 0
    const x = heldBy(rounded(0.1), (i) => {
      if (i < next) return false
      next = i + 3 + Math.floor(3 * random())
      return true
    })
    expect(takeOutRepeats(x)).toBe(4)
    expect(fastest(joined(x))).toBeLessThan(1.2 * fastest(truth))
  })

  it.each([
    ['a fine sensor', rounded(0.01)],
    ['a sensor of whole millimetres', rounded(1)],
    ['a sensor of eight bits', rounded(150 / 255)],
    ['a bike that stands still', new Float64Array(4000).fill(31)],
    [
      'a sensor with noise',
      (() => {
        const random = seededRandom(4)
        return truth.map((x) => x + 0.4 * normalFrom(random))
      })(),
    ],
    ['a sensor that is not read now and then', rounded(0.1).map((x, i) => (i % 9 === 0 ? NaN : x))],
  ])('is left as it is where it is %s', (_, x) => {
    const was = Float64Array.from(x)
    expect(takeOutRepeats(x)).toBeNull()
    expect(x).toEqual(was)
  })
})
