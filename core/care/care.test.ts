import { describe, expect, it } from 'vitest'
import type { ServiceEntry } from '#contract/care'
import type { Known, Setup } from '#contract/setup'
import { setBy, withTurns } from '../setup/known.ts'
import { fork, shock } from '../test/dayBuilder.ts'
import { dayNumber } from './calendar.ts'
import { pressureChecks, remindersFor, type Occasion, type PressureCheck } from './reminders.ts'

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
const checks: PressureCheck[] = [
  { unitId: 'fork', unitName: fork.name, end: 'front', psi: 80, ...last },
  { unitId: 'shock', unitName: shock.name, end: 'rear', psi: 180, ...last },
]
const now: Occasion = { ...last, date: '2031-05-05' }
const kinds = (over: Partial<Occasion>, entries: ServiceEntry[] = []) =>
  remindersFor(checks, { ...now, ...over }, entries, [fork, shock]).map((r) => r.kind)

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
  })
  it('never checked is said once', () => {
    expect(remindersFor([], now, [], [fork]).map((r) => r.kind)).toEqual(['never'])
  })
  it('a unit’s own service is due by its interval, once one is known', () => {
    const units = [{ ...fork, serviceEveryDays: 100 }]
    const due = (entries: ServiceEntry[]) =>
      remindersFor([checks[0]], now, entries, units).map((r) => [r.kind, r.amount, r.unitName])
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

describe('when a pressure was last known', () => {
  const at = (known: Partial<Known>): Pick<Setup, 'positions'> => ({
    positions: [
      {
        end: 'front',
        adjusterId: 'fp',
        value: 80,
        known: { ...setBy({ at: '2031-04-20T10:00:00Z', airTempC: 12 }), ...known },
      },
    ],
  })
  const dates = (setup: Pick<Setup, 'positions'> | undefined, entries: ServiceEntry[] = []) =>
    pressureChecks(setup, [fork], entries).map((c) => c.date)
  it('is when somebody set or read it, or logged a check, whichever is newer', () => {
    expect(dates(at({}))).toEqual(['2031-04-20'])
    expect(dates(at({ how: 'read' }), [entry('pressure-check', '2031-04-28')])).toEqual(['2031-04-28'])
    expect(dates(at({}), [entry('seals', '2031-04-28')])).toEqual(['2031-04-20'])
  })
  it('is never for a pressure that was only assumed, or not read at all', () => {
    expect(dates(at({ how: 'assumed' }))).toEqual([])
    expect(dates({ positions: [] })).toEqual([])
    expect(dates(undefined)).toEqual([])
  })
  it('a turn of another dial resets no weeks', () => {
    const parts = new Map(fork.adjusters.map((part) => [part.id, { part, end: 'front' as const }]))
    const start = [
      ...at({}).positions,
      { end: 'front' as const, adjusterId: 'fr', value: 6, known: setBy({ at: '2031-04-20T10:00:00Z' }) },
    ]
    const positions = withTurns(start, new Map([['fr', 7]]), parts, { at: '2031-05-20T10:00:00Z' })
    expect(dates({ positions })).toEqual(['2031-04-20'])
  })
  it('one fresh end does not make the other fresh', () => {
    const stale = [checks[0], { ...checks[1], date: '2031-04-01' }]
    expect(remindersFor(stale, now, [], [fork, shock]).map((r) => [r.kind, r.amount])).toEqual([
      ['weeks', 34],
    ])
    expect(remindersFor([checks[0]], now, [], [fork, shock]).map((r) => r.kind)).toEqual(['never'])
  })
  it('says what the gauge will show, and what to set for the same sag', () => {
    // Gay-Lussac by hand: (80 + 14.0) psi absolute at 285.15 K, read at 262.15 K; 400 m of height in both.
    const ambient = (101325 * (1 - 2.25577e-5 * 400) ** 5.25588) / 6894.757
    const [cold] = remindersFor(checks, { ...now, airTempC: -11 }, [], [fork, shock])
    expect(cold.pressures[0]).toMatchObject({ end: 'front' })
    expect(cold.pressures[0].readsPsi).toBeCloseTo(((80 + ambient) * 262.15) / 285.15 - ambient, 6)
    expect(cold.pressures[0].setPsi).toBeCloseTo(80, 6)
    const [high] = remindersFor(checks, { ...now, altitudeM: 2000 }, [], [fork, shock])
    expect(high.pressures[0].readsPsi).toBeGreaterThan(82)
    expect(high.pressures[0].setPsi).toBeGreaterThan(80)
    expect(high.pressures[0].setPsi).toBeLessThan(high.pressures[0].readsPsi)
  })
})
