import { describe, expect, it } from 'vitest'
import { dayFault } from './dayFault.ts'

const today = '2026-11-29'
describe('a day that is most likely a slip', () => {
  it.each<[string, number, RegExp | null]>([
    ['2026-11-29', 0, null],
    ['2026-11-28', 0, null],
    ['2019-02-03', 0, null],
    ['2026-11-30', 0, /has not come yet/],
    ['2062-11-29', 0, /has not come yet/],
    ['2026-11-30', 60, null],
    ['2027-01-28', 60, null],
    ['2027-01-29', 60, /29 Jan 2027 is 61 days ahead/],
    ['2062-11-29', 60, /36 years ahead/],
    ['1026-11-29', 60, /The year 1026/],
    ['0026-11-29', 60, /The year 26/],
    ['1979-12-31', 0, /The year 1979/],
    // Of no day the form says itself that it is none.
    ['', 0, null],
    ['2026-02-31x', 0, null],
  ])('%s, %d days ahead at most', (day, ahead, says) => {
    const fault = dayFault(day, { ahead, today })
    if (says === null) expect(fault).toBeNull()
    else expect(fault).toMatch(says)
  })
})
