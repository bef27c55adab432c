import { describe, expect, it } from 'vitest'
import type { ServiceEntry } from '#contract/care'
import { fork, shock } from '../test/dayBuilder.ts'
import { dayNumber } from './calendar.ts'
import { lastCheckOf, remindersFor, type Occasion } from './reminders.ts'

const entry = (kind: ServiceEntry['kind'], date: string, over: Partial<ServiceEntry> = {}): ServiceEntry => ({
  id: `${kind} ${date}`,
  version: 1,
  bikeId: 'bike',
  unitId: null,
  kind,
  date,
  airTempC: null,
  altitudeM: null,
  place: '',
  note: '',
  ...over,
})
const last = { date: '2031-05-01', airTempC: 12, altitudeM: 400, place: 'Fernhollow' }
const now: Occasion = { ...last, date: '2031-05-05' }
const kinds = (over: Partial<Occasion>, entries: ServiceEntry[] = []) =>
  remindersFor(last, { ...now, ...over }, entries, [fork, shock]).map((r) => r.kind)

describe('reminders to read the pressure', () => {
  it('none while nothing speaks for it', () => {
    expect(kinds({})).toEqual([])
    expect(kinds({ airTempC: 22, altitudeM: 900 })).toEqual([])
    expect(kinds({ airTempC: null, altitudeM: null, place: '' })).toEqual([])
  })
  it.each([
    ['two weeks', { date: '2031-05-15' }, 'weeks'],
    ['more than 10 °C', { airTempC: 23 }, 'temperature'],
    ['colder, too', { airTempC: 1 }, 'temperature'],
    ['more than 500 m', { altitudeM: 901 }, 'height'],
    ['another venue', { place: 'Stonegarth' }, 'venue'],
  ] as const)('%s', (_, over, kind) => {
    expect(kinds(over)).toEqual([kind])
  })
  it('after a service, until it is checked', () => {
    expect(kinds({}, [entry('seals', '2031-05-03')])).toEqual(['serviced'])
    expect(kinds({}, [entry('seals', '2031-04-30')])).toEqual([])
    expect(kinds({}, [entry('pressure-check', '2031-05-03')])).toEqual([])
  })
  it('never checked is said once', () => {
    expect(remindersFor(null, now, [], [fork]).map((r) => r.kind)).toEqual(['never'])
  })
  it('a unit’s own service is due by its interval, once one is known', () => {
    const units = [{ ...fork, serviceEveryDays: 100 }]
    const due = (entries: ServiceEntry[]) =>
      remindersFor(last, now, entries, units).map((r) => [r.kind, r.amount, r.unitName])
    expect(due([])).toEqual([])
    expect(due([entry('oil', '2031-01-05', { unitId: 'fork' })])).toEqual([['service-due', 120, fork.name]])
    expect(due([entry('oil', '2031-01-05', { unitId: 'other' })])).toEqual([])
    expect(due([entry('oil', '2031-01-05'), entry('full-service', '2031-04-05')])).toEqual([])
  })
})

describe('days', () => {
  it('are those of the platform’s calendar', () => {
    for (let i = -40000; i < 40000; i += 37) {
      const day = new Date(i * 86_400_000).toISOString().slice(0, 10)
      expect(dayNumber(day), day).toBe(i)
    }
  })
})

describe('the last check', () => {
  const setup = { madeAt: '2031-04-20T10:00:00Z', foundIn: null }
  it('is the newer of setup and log', () => {
    expect(lastCheckOf(setup, [])!.date).toBe('2031-04-20')
    expect(lastCheckOf(setup, [entry('pressure-check', '2031-04-28', { airTempC: 9 })])).toMatchObject({
      date: '2031-04-28',
      airTempC: 9,
    })
    expect(lastCheckOf(setup, [entry('seals', '2031-04-28')])!.date).toBe('2031-04-20')
    expect(lastCheckOf(undefined, [])).toBeNull()
  })
})
