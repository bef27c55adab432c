import { describe, expect, it } from 'vitest'
import type { SagReading } from '#contract/bench'
import { localDate } from '../units/localDate.ts'
import { assumed, setBy } from '../setup/known.ts'
import { benchOn } from '../test/dayBuilder.ts'
import { airOfDay, airOn, airSaidAt, hasOldAir, lastHandAt } from './airOn.ts'

const said = '2031-05-02T09:00:00.000Z'
const later = '2031-05-02T10:30:00.000Z'
const nextDay = '2031-05-03T09:00:00.000Z'
const bench = benchOn({ airTempC: 12, altitudeM: 350, place: 'Fernhollow', airSaidAt: said })
const nothing = { airTempC: null, altitudeM: null, place: '' }

describe('air of a bench', () => {
  it('is that of the day on which it was said, and of no other', () => {
    expect(airOn(bench, later)).toEqual({ airTempC: 12, altitudeM: 350, place: 'Fernhollow' })
    expect(airOn(bench, nextDay)).toEqual(nothing)
    expect(airOn(bench, '2031-05-01T09:00:00.000Z')).toEqual(nothing)
    expect(hasOldAir(bench, later)).toBe(false)
    expect(hasOldAir(bench, nextDay)).toBe(true)
  })
  it('turns with the date on the wall, not with a day’s length', () => {
    const midnight = new Date(`${localDate(said)}T23:59:59.999`)
    expect(airOn(bench, midnight.toISOString()).airTempC).toBe(12)
    expect(airOn(bench, new Date(midnight.getTime() + 1).toISOString())).toEqual(nothing)
  })
  it('was said at the beginning where nobody wrote down when', () => {
    const before = { ...bench, airSaidAt: null, startedAt: said }
    expect(airSaidAt(before)).toBe(said)
    expect(airOn(before, later).airTempC).toBe(12)
    expect(airOn(before, nextDay)).toEqual(nothing)
  })
  it('on a day of the calendar: a bench begun days ago counts on the day its air was said, one begun today with old air does not', () => {
    const begun = { ...bench, startedAt: '2031-04-28T09:00:00.000Z' }
    expect(airOfDay(begun, '2031-05-02').airTempC).toBe(12)
    expect(airOfDay(begun, '2031-04-28')).toEqual(nothing)
    expect(airOfDay({ ...bench, startedAt: nextDay }, '2031-05-03')).toEqual(nothing)
  })
  it('nothing old where nothing was said', () => {
    expect(hasOldAir({ ...bench, ...nothing }, nextDay)).toBe(false)
    expect(hasOldAir({ ...bench, ...nothing, place: 'Fernhollow' }, nextDay)).toBe(true)
  })
})

it('the latest hand on a bench: what was known before it began and what was assumed are none', () => {
  const at = (adjusterId: string, known: (typeof bench.positions)[number]['known']) => ({
    end: 'rear' as const,
    adjusterId,
    value: 5,
    known,
  })
  const before = at('a', setBy({ at: '2031-05-01T09:00:00.000Z' }))
  const guess = at('b', assumed('typical', nextDay))
  const on = (...positions: typeof bench.positions) => ({ ...bench, startedAt: said, positions })
  expect(lastHandAt(on(before, guess))).toBeNull()
  expect(lastHandAt(on(before, at('c', setBy({ at: later })), at('d', setBy({ at: said })), guess))).toBe(
    later,
  )
})

it('sag that was read the next day is the latest hand; one that was left out is none', () => {
  const sag = (at: string, leftOut: boolean): SagReading => ({
    id: at,
    end: 'rear',
    at,
    method: 'ring',
    posture: 'seated',
    together: false,
    sagMm: 16,
    pressurePsi: 180,
    springRateNPerMm: null,
    preloadTurns: null,
    spacers: null,
    gaugeId: null,
    marks: [],
    leftOut,
  })
  const pumped = { end: 'rear' as const, adjusterId: 'a', value: 180, known: setBy({ at: later }) }
  const on = (readings: SagReading[]) => ({ ...bench, startedAt: said, positions: [pumped], readings })
  expect(lastHandAt(on([sag(nextDay, false)]))).toBe(nextDay)
  expect(lastHandAt(on([sag(nextDay, true)]))).toBe(later)
})
