import { describe, expect, it } from 'vitest'
import type { HourLine } from '#contract/hour'
import { nothingNoted } from '../setup/nothingNoted.ts'
import { DayBuilder } from '../test/dayBuilder.ts'
import { bundleOf } from '../test/bundle.ts'
import { carriedSurface, conditionsAt, conditionsNow, notedAt, notedLast } from './at.ts'
import { logOf, type RunConditions } from './log.ts'
import { trackBetween } from './track.ts'

const line = (clock: string, says: Partial<HourLine>): HourLine => ({
  id: clock,
  at: `2031-05-02T${clock}:00Z`,
  airTempC: null,
  altitudeM: null,
  surface: null,
  track: [],
  note: '',
  ...says,
})
const run = (clock: string, says: Partial<RunConditions> = {}): RunConditions => ({
  ...nothingNoted,
  startedAt: `2031-05-02T${clock}:00Z`,
  ...says,
})
const began = { airTempC: 14, altitudeM: null, surface: 'damp' as const }

describe('how it was at a run', () => {
  const hours = [line('10:00', { airTempC: 19 }), line('12:00', { airTempC: 27, surface: 'dry-loose' })]
  const at = (clock: string, says = {}) => conditionsAt({ conditions: began, hours }, run(clock, says))
  it('is as the last line before it says, each by itself', () => {
    expect(at('09:30')).toEqual(began)
    expect(at('10:00')).toEqual({ ...began, airTempC: 19 })
    expect(at('13:00')).toEqual({ airTempC: 27, altitudeM: null, surface: 'dry-loose' })
  })
  it('is as the run itself says before anything else', () => {
    expect(at('13:00', { airTempC: 24, surface: 'wet' })).toEqual({
      airTempC: 24,
      altitudeM: null,
      surface: 'wet',
    })
  })
  it('is noted by nobody before the first line, whatever the day began with', () => {
    expect(notedAt(hours, run('09:30'))).toEqual({ airTempC: null, altitudeM: null, surface: null })
    expect(notedAt(hours, run('11:00'))).toEqual({ airTempC: 19, altitudeM: null, surface: null })
  })
})

describe('the ground of a run that is logged now', () => {
  const carried = (hours: HourLine[], before?: RunConditions) => carriedSurface(hours, before)
  it('is that of the run before, until the log says another', () => {
    expect(carried([], run('11:00', { surface: 'wet' }))).toBe('wet')
    expect(carried([line('10:00', { surface: 'damp' })], run('11:00', { surface: 'wet' }))).toBe('wet')
    expect(carried([line('12:00', { surface: 'damp' })], run('11:00', { surface: 'wet' }))).toBeNull()
    expect(carried([line('12:00', { airTempC: 30 })], run('11:00', { surface: 'wet' }))).toBe('wet')
  })
  it('is nobody’s word where no run said one', () => {
    expect(carried([], undefined)).toBeNull()
    expect(carried([line('12:00', { surface: 'damp' })], run('11:00'))).toBeNull()
  })
})

it('what the log says last is said of each by itself, and of what it never said by nobody', () => {
  const hours = [line('10:00', { airTempC: 19, surface: 'wet' }), line('12:00', { airTempC: 27 })]
  expect(notedLast(hours)).toEqual({ airTempC: 27, altitudeM: null, surface: 'wet' })
  expect(notedLast([])).toEqual({ airTempC: null, altitudeM: null, surface: null })
})

describe('how it is now', () => {
  it('is that of the latest run that says so, each by itself', () => {
    const h = new DayBuilder()
      .run(7, [], { airTempC: 19, altitudeM: 900 })
      .run(7, [], { airTempC: 23 })
      .run(7)
      .history()
    expect(conditionsNow(h)).toEqual({ airTempC: 23, altitudeM: 900, surface: 'damp' })
    expect(conditionsNow(new DayBuilder().run(7).history())).toMatchObject({ airTempC: 15, altitudeM: 400 })
  })
  it('is what was noted last, of a run or in the log', () => {
    const runs = [{ run: run('11:00', { airTempC: 22 }) }, { run: run('12:30') }]
    const now = (...hours: HourLine[]) => conditionsNow({ conditions: began, hours, runs }).airTempC
    expect(now()).toBe(22)
    expect(now(line('10:00', { airTempC: 18 }))).toBe(22)
    expect(now(line('12:00', { airTempC: 27 }))).toBe(27)
    expect(now(line('12:00', { airTempC: 27 }), line('13:00', { track: ['rougher'] }))).toBe(27)
  })
  it('holds 0 °C and 0 m for what they are', () => {
    const hours = [line('12:00', { airTempC: 0, altitudeM: 0 })]
    expect(conditionsNow({ conditions: began, hours, runs: [] })).toMatchObject({ airTempC: 0, altitudeM: 0 })
  })
})

it('the log of a day in a tent is its own and that of the tent, by the clock', () => {
  const b = bundleOf([])
  const inTent = { ...line('11:00', { airTempC: 24 }), version: 1, tentId: 'tent' }
  const own = [line('12:00', { airTempC: 27 }), line('09:00', { airTempC: 12 })]
  const log = logOf({ day: { ...b.day, hours: own }, tent: { id: 'tent', hours: [inTent] } })
  expect(log.hours.map((h) => h.airTempC)).toEqual([12, 24, 27])
  expect(logOf({ day: b.day, tent: null }).hours).toEqual([])
})

describe('the track between two runs', () => {
  const hours = [
    line('10:00', { track: ['rougher', 'drier'] }),
    line('12:00', { track: ['smoother'] }),
    line('14:00', { track: ['looser', 'rougher'] }),
  ]
  const between = (a: string, b: string) => trackBetween(hours, run(a), run(b))
  it('is what was noted between them and not taken back', () => {
    expect(between('09:00', '11:00')).toEqual(['rougher', 'drier'])
    expect(between('09:00', '13:00')).toEqual(['drier'])
    expect(between('09:00', '15:00')).toEqual(['drier', 'looser', 'rougher'])
    expect(between('10:30', '11:30')).toEqual([])
  })
  it('is the same for the later of the two first', () => {
    expect(between('11:00', '09:00')).toEqual(between('09:00', '11:00'))
  })
})
