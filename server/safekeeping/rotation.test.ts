import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { mayGo, reasons, type Dated } from './rotation.ts'

const dayMs = 86_400_000
const daily = (ms: number): Dated => ({ name: `c${ms}`, at: new Date(ms).toISOString(), why: 'daily' })

describe('which safe copies may go', () => {
  it('a year and a half of one a day leaves some of the last week, month and year', () => {
    let kept: Dated[] = []
    const start = Date.UTC(2031, 0, 1, 3)
    for (let d = 0; d < 550; d++) {
      kept.push(daily(start + d * dayMs))
      const gone = mayGo(kept, kept.at(-1)!.at)
      kept = kept.filter((c) => !gone.includes(c))
    }
    const ages = kept.map((c) => (start + 549 * dayMs - Date.parse(c.at)) / dayMs).sort((a, b) => a - b)
    expect(ages.slice(0, 7)).toEqual([0, 1, 2, 3, 4, 5, 6])
    expect(ages.length).toBeLessThanOrEqual(7 + 4 + 12)
    // Whatever is asked for within the year, something not much younger is there.
    for (const [asked, within] of [
      [13, 7],
      [20, 7],
      [60, 31],
      [180, 31],
      [300, 31],
    ])
      expect(
        ages.some((a) => a >= asked && a <= asked + within),
        `${asked} days: ${ages.join()}`,
      ).toBe(true)
  })
  it('a season without riding takes nothing away', () => {
    const kept = Array.from({ length: 7 }, (_, d) => daily(Date.UTC(2031, 5, 1 + d)))
    expect(
      mayGo([...kept, daily(Date.UTC(2032, 5, 1))], '2032-06-01T00:00:00.000Z').length,
    ).toBeLessThanOrEqual(1)
  })
  it('days that a wrong clock dated into the future take none of today’s away, and stay', () => {
    const now = Date.UTC(2031, 4, 2, 3)
    const ahead = Array.from({ length: 30 }, (_, d) => daily(Date.UTC(2040, 0, 1 + d)))
    const real = Array.from({ length: 7 }, (_, d) => daily(now - d * dayMs))
    expect(mayGo([...ahead, ...real], new Date(now).toISOString())).toEqual([])
  })
  it('never the newest, never one by hand, and what goes was there', () => {
    const one = fc.record({
      ms: fc.integer({ min: Date.UTC(2030, 0, 1), max: Date.UTC(2033, 0, 1) }),
      why: fc.constantFrom(...reasons),
    })
    fc.assert(
      fc.property(fc.uniqueArray(one, { selector: (c) => c.ms, maxLength: 80 }), (list) => {
        const copies = list.map(({ ms, why }) => ({ ...daily(ms), why }))
        const gone = mayGo(copies, '2033-01-02')
        expect(gone.every((c) => copies.includes(c))).toBe(true)
        expect(gone.some((c) => c.why === 'by-hand')).toBe(false)
        for (const why of reasons) {
          const newest = copies.filter((c) => c.why === why).sort((a, b) => b.at.localeCompare(a.at))[0]
          expect(gone).not.toContain(newest)
        }
        // What stays stays: looked at again nothing more goes.
        expect(
          mayGo(
            copies.filter((c) => !gone.includes(c)),
            '2033-01-02',
          ),
        ).toEqual([])
      }),
    )
  })
})
