import { describe, expect, it } from 'vitest'
import { packedDepthPct, recoveryTimeS, shareLeft } from './recovery.ts'
import { overshoot, rowOfHits } from './row.ts'

describe('a row of hits', () => {
  it('packs down to the depth of the closed form, where it never tops out', () => {
    for (const [added, gap, omega, ratio] of [
      [20, 0.1, 14, 1],
      [10, 0.08, 16, 0.7],
      [15, 0.12, 12, 1.2],
    ]) {
      const row = rowOfHits(200, added, gap, omega, ratio)
      // 1 m apart at 1/gap m/s is one hit every `gap`.
      const closed = packedDepthPct(added, 1, 1 / gap, omega, ratio)
      if (closed + added < 100) expect(row.at(-1)![1]).toBeCloseTo(closed, 6)
    }
  })
  it('is out again before the next hit when there is time enough', () => {
    const gap = 3 * recoveryTimeS(14, 0.6)
    const row = rowOfHits(5, 20, gap, 14, 0.6)
    expect(Math.max(...row.map((p) => p[1]))).toBeLessThan(20.5)
  })
  it('stays between extended and the end of its travel', () => {
    for (const ratio of [0.1, 0.6, 3])
      for (const [, depth] of rowOfHits(30, 40, 0.05, 14, ratio)) {
        expect(depth).toBeGreaterThanOrEqual(0)
        expect(depth).toBeLessThanOrEqual(100)
      }
  })
})

describe('a release', () => {
  it('swings past its rest by what the free return itself shows', () => {
    for (const ratio of [0.1, 0.2, 0.6, 0.9]) {
      const lowest = Math.min(...Array.from({ length: 20_000 }, (_, i) => shareLeft(i / 5000, 14, ratio)))
      expect(overshoot(ratio)).toBeCloseTo(-lowest, 4)
    }
    expect(overshoot(1)).toBe(0)
    expect(overshoot(1.4)).toBe(0)
  })
})
