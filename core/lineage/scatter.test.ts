import { describe, expect, it } from 'vitest'
import { normalFrom, seededRandom } from '../numeric/random.ts'
import { leastRepeats, ratingScatter } from './scatter.ts'

const of = (...groups: number[][]) => groups.map((ratings) => ({ ratings }))

describe('how ratings on the same settings scatter', () => {
  it('is the pooled standard deviation, whatever the settings are worth', () => {
    // (0.5² + 0.5²) + (1² + 0 + 1²) over 1 + 2 + 1 repeats; the last group is level.
    expect(ratingScatter(of([5, 6], [7, 8, 9], [4, 4]))).toEqual({ sd: Math.sqrt(2.5 / 4), repeats: 4 })
  })
  it('finds the scatter that was drawn, over many days of a few repeats', () => {
    const random = seededRandom(11)
    const days = Array.from({ length: 400 }, () => {
      const level = 3 + 5 * random()
      return [1, 2, 3].map(() => level + 0.6 * normalFrom(random))
    })
    expect(ratingScatter(of(...days))!.sd).toBeCloseTo(0.6, 1)
  })
  it('says nothing with too few repeats, or from runs that were ridden once', () => {
    expect(ratingScatter(of([5, 6], [7, 8], [3, 3]))).toBeNull()
    expect(ratingScatter(of([5], [7], [8], [6], [5], [9]))).toBeNull()
    expect(ratingScatter([])).toBeNull()
    expect(ratingScatter(of(Array.from({ length: leastRepeats + 1 }, () => 7)))).toEqual({
      sd: 0,
      repeats: leastRepeats,
    })
  })
})
