import { describe, expect, it } from 'vitest'
import type { SagReading } from '#contract/bench'
import { localDate } from '../units/localDate.ts'
import { assumed, setBy } from '../setup/known.ts'
import { benchOn } from '../test/dayBuilder.ts'
import { airOfDay, airOn, airSaidAt, lastHandAt, oldAir, sayingAir } from './airOn.ts'

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
    expect(oldAir(bench, later)).toEqual([])
    expect(oldAir(bench, nextDay).map((o) => o.what)).toEqual(['airTempC', 'altitudeM', 'place'])
  })
  it('turns with the date on the wall, not with a day’s length', () => {
    const midnight = new Date(`${localDate(said)}T23:59:59.999`)
    expect(airOn(bench, midnight.toISOString()).airTempC).toBe(12)
    expect(airOn(bench, new Date(midnight.getTime() + 1).toISOString())).toEqual(nothing)
  })
  it('was said at the beginning where nobody wrote down when', () => {
    const before = { ...bench, airSaidAt: null, startedAt: said }
    expect(airSaidAt(before, 'place')).toBe(said)
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
    expect(oldAir({ ...bench, ...nothing }, nextDay)).toEqual([])
    expect(oldAir({ ...bench, ...nothing, place: 'Fernhollow' }, nextDay)).toEqual([
      { what: 'place', saidAt: said },
    ])
  })
  it('today’s warmth says nothing of last week’s height and place; the word that they hold does', () => {
    const warm = { ...bench, ...sayingAir(bench, { airTempC: 24 }, nextDay) }
    expect(airOn(warm, nextDay)).toEqual({ airTempC: 24, altitudeM: null, place: '' })
    expect(oldAir(warm, nextDay)).toEqual([
      { what: 'altitudeM', saidAt: said },
      { what: 'place', saidAt: said },
    ])
    // What was pumped before midnight had yesterday's air, which is gone now: it gets none rather than today's.
    expect(airOn(warm, said)).toEqual({ airTempC: null, altitudeM: 350, place: 'Fernhollow' })
    const there = { ...warm, ...sayingAir(warm, { place: 'Oat Ridge' }, nextDay) }
    expect(airOn(there, nextDay)).toEqual({ airTempC: 24, altitudeM: null, place: 'Oat Ridge' })
    const holds = { ...there, ...sayingAir(there, {}, nextDay) }
    expect(airOn(holds, nextDay)).toEqual({ airTempC: 24, altitudeM: 350, place: 'Oat Ridge' })
  })
  it('said all at once is said at one time', () => {
    const all = sayingAir(bench, { airTempC: 9, altitudeM: 10, place: '' }, nextDay)
    expect(all).toMatchObject({ airSaidAt: nextDay, airSaidEach: null })
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
