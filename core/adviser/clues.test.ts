import { describe, expect, it } from 'vitest'
import type { Mark } from '#contract/run'
import { DayBuilder, fork, shock } from '../test/dayBuilder.ts'
import { surfaceDataOf } from './clues.ts'
import { outlookOf } from './decide.ts'
import { dialsOf } from './dials.ts'

const space = { front: fork, rear: shock }
const dials = dialsOf(space)
type Said = Partial<Mark> & Pick<Mark, 'word'>
const cluesOf = (marks: Said[]) => surfaceDataOf(new DayBuilder().run(5, marks).history(), space, dials).clues

describe('a complaint stands alone', () => {
  it('where nothing else was complained of on its run, whatever was praised', () => {
    expect(cluesOf([{ word: 'pogo', end: 'rear' }]).map((c) => c.only)).toEqual([true])
    expect(
      cluesOf([
        { word: 'pogo', end: 'rear' },
        { word: 'good', end: 'front' },
      ]).map((c) => c.only),
    ).toEqual([true])
  })
  it('not beside another one, and not where it was said of both ends', () => {
    expect(
      cluesOf([
        { word: 'pogo', end: 'rear' },
        { word: 'dives', end: 'front' },
      ]).map((c) => c.only),
    ).toEqual([false, false])
    expect(cluesOf([{ word: 'harsh-everywhere', end: 'both' }]).map((c) => c.only)).toEqual([false, false])
  })
  it('and then what is not named is the less believed to be far off', () => {
    const lostBy = (marks: Said[], end: 'front' | 'rear') => {
      const o = outlookOf(new DayBuilder().run(5, marks).history(), space)
      const at = o.data.points[0].at
      const { best, steepness, samples, dials: K } = o.surface
      let lost = 0
      o.dials.forEach((d, k) => {
        if (d.end !== end) return
        for (let i = 0; i < samples; i++)
          lost += (steepness[i * K + k] * Math.min(25, (at[k] - best[i * K + k]) ** 2)) / samples
      })
      return lost
    }
    const one: Said[] = [{ word: 'pogo', end: 'rear', strength: 3 }]
    // The front is blamed less when the rear alone is named than when nobody says a word.
    expect(lostBy(one, 'front')).toBeLessThan(0.9 * lostBy([], 'front'))
  })
})
