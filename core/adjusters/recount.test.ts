import { describe, expect, it } from 'vitest'
import type { Adjuster } from '#contract/adjuster'
import { frontRebound, rearRebound } from '../test/dayBuilder.ts'
import { toCount } from './count.ts'
import { recounted, recountShift } from './recount.ts'

type Click = Extract<Adjuster, { kind: 'click' }>
const dial = frontRebound as Click
const count = { closingClicks: 5, allClicks: 14, step: 1 as const, countBase: 'closed-0' as const }

describe('a recount', () => {
  it('gives the real range and where the dial stood', () => {
    const r = recounted(dial, count)
    expect(r.dial).toMatchObject({ id: dial.id, clicks: 14, step: 1 })
    expect(r.stoodAt).toBe(5)
    expect(toCount({ ...r.dial, countBase: 'open' }, r.stoodAt)).toBe(9)
  })
  it('knows half-clicks', () => {
    expect(recounted(dial, { ...count, closingClicks: 4.5, step: 0.5 }).stoodAt).toBe(4.5)
    expect(() => recounted(dial, { ...count, closingClicks: 4.5 })).toThrow(/half-clicks, or count again/)
  })
  it('refuses counts that cannot be', () => {
    expect(() => recounted(dial, { ...count, allClicks: 0 })).toThrow(/1 to 60 clicks/)
    expect(() => recounted(dial, { ...count, closingClicks: 15 })).toThrow(/only 14 in all/)
    expect(() => recounted(dial, { ...count, closingClicks: -1 })).toThrow(/count both again/)
  })
  it('counts made from open stay what was counted; those from closed need nothing', () => {
    const open = rearRebound as Click
    const wider = { ...open, clicks: open.clicks + 2 }
    const shift = recountShift(open, wider)
    for (const v of [0, 3, 7, open.clicks]) expect(toCount(wider, v + shift)).toBe(toCount(open, v))
    expect(recountShift(dial, { ...dial, clicks: 20 })).toBe(0)
    expect(recountShift(open, { ...wider, countBase: 'closed-0' })).toBe(0)
  })
})
