import { afterEach, describe, expect, it } from 'vitest'
import { localDate } from './localDate.ts'

const before = process.env.TZ
afterEach(() => {
  if (before === undefined) delete process.env.TZ
  else process.env.TZ = before
})

describe('the date of an instant', () => {
  it('is the one on the wall where it runs: an evening in the west, a morning in the east', () => {
    for (const [zone, instant, date] of [
      ['America/Los_Angeles', '2031-05-03T02:30:00.000Z', '2031-05-02'],
      ['Pacific/Auckland', '2031-05-02T20:00:00.000Z', '2031-05-03'],
      ['Europe/Berlin', '2031-12-31T23:30:00.000Z', '2032-01-01'],
      ['Etc/GMT', '2031-05-02T23:59:59.999Z', '2031-05-02'],
    ]) {
      process.env.TZ = zone
      expect(localDate(instant), zone).toBe(date)
    }
  })
  it('or on the wall of a place that is named, wherever it runs', () => {
    for (const here of ['America/Los_Angeles', 'Pacific/Auckland', 'Etc/GMT']) {
      process.env.TZ = here
      expect(localDate('2031-05-03T02:30:00.000Z', 'America/Los_Angeles')).toBe('2031-05-02')
      expect(localDate('2031-12-31T23:30:00.000Z', 'Europe/Berlin')).toBe('2032-01-01')
    }
  })
})
