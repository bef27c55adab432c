import type { ServiceEntry } from '#contract/care'
import type { Setup } from '#contract/setup'
import type { SuspensionUnit } from '#contract/unit'
import type { End } from '#contract/common'
import { gaugeElsewherePsi, sameSagElsewherePsi, weatherOfBoth } from '../spring/weather.ts'
import { unitAir } from '../spring/unitSpring.ts'
import { localDate } from '../units/localDate.ts'
import { dayNumber } from './calendar.ts'

/** When, where and in what weather one pressure was last set or checked. */
export interface PressureCheck {
  unitId: string
  unitName: string
  end: End
  date: string
  airTempC: number | null
  altitudeM: number | null
  place: string
  /** What it was then; null where only a check is logged. */
  psi: number | null
}

/** What is true now, or on the day that is planned. */
export interface Occasion {
  date: string
  airTempC: number | null
  altitudeM: number | null
  place: string
}

export interface Reminder {
  kind: 'never' | 'weeks' | 'venue' | 'temperature' | 'height' | 'serviced' | 'service-due'
  /** Days, °C or m, by kind. */
  amount: number
  unitName: string | null
  /** What the gauge will show on this occasion, and what gives the sag it had. */
  pressures: { end: End; readsPsi: number; setPsi: number }[]
}

/** Air goes over the weeks; two are enough to notice. */
export const checkAfterDays = 14
const temperatureJumpC = 10
const heightChangeM = 500

const daysBetween = (from: string, to: string) => dayNumber(to) - dayNumber(from)

/**
 * When each main pressure of a bike was last set, read, or checked by the log. An assumed or unread pressure has no such
 * moment, and neither has one that only stayed while something else was turned.
 */
export function pressureChecks(
  setup: Pick<Setup, 'positions'> | undefined,
  units: readonly SuspensionUnit[],
  entries: readonly ServiceEntry[],
): PressureCheck[] {
  return units.flatMap((u): PressureCheck[] => {
    const main = u.adjusters.find((a) => a.role === 'main-pressure')
    if (!main) return []
    const unit = { unitId: u.id, unitName: u.name, end: u.end }
    const at = setup?.positions.find((p) => p.adjusterId === main.id)
    const firstHand = at && at.known.how !== 'assumed' && at.known.at !== null ? at : null
    const found: PressureCheck[] = firstHand
      ? [
          {
            ...unit,
            date: localDate(firstHand.known.at!),
            airTempC: firstHand.known.airTempC,
            altitudeM: firstHand.known.altitudeM,
            place: firstHand.known.place,
            psi: firstHand.value,
          },
        ]
      : []
    for (const e of entries)
      if (e.kind === 'pressure-check' && (e.unitId === u.id || e.unitId === null))
        found.push({
          ...unit,
          date: e.date,
          airTempC: e.airTempC,
          altitudeM: e.altitudeM,
          place: e.place,
          psi: at?.value ?? null,
        })
    const last = found.reduce<PressureCheck | null>((l, c) => (l === null || c.date >= l.date ? c : l), null)
    return last ? [last] : []
  })
}

const opensTheUnit: readonly ServiceEntry['kind'][] = [
  'small-service',
  'full-service',
  'seals',
  'oil',
  're-valved',
  'new-part',
]

/**
 * Why the pressures of a bike should be read before riding: weeks since, another venue, a jump of more than 10 °C, a
 * change of more than 500 m, after a service; and units whose own service is due. Empty when nothing speaks for it.
 */
export function remindersFor(
  checks: readonly PressureCheck[],
  now: Occasion,
  entries: readonly ServiceEntry[],
  units: readonly SuspensionUnit[],
): Reminder[] {
  const list: Reminder[] = []
  const add = (kind: Reminder['kind'], amount: number, unitName: string | null = null) =>
    list.push({ kind, amount, unitName, pressures: [] })
  const aired = units.filter((u) => u.adjusters.some((a) => a.role === 'main-pressure'))
  if (aired.length > checks.length) add('never', 0)
  if (checks.length > 0) {
    // The oldest check speaks for the bike: one fresh end does not make the other fresh.
    const last = checks.reduce((l, c) => (c.date < l.date ? c : l))
    const days = daysBetween(last.date, now.date)
    if (days >= checkAfterDays) add('weeks', days)
    if (last.place && now.place && last.place !== now.place) add('venue', 0)
    const jump = furthest(checks, (c) => difference(now.airTempC, c.airTempC))
    if (Math.abs(jump) > temperatureJumpC)
      list.push({ kind: 'temperature', amount: jump, unitName: null, pressures: [] })
    const change = furthest(checks, (c) => difference(now.altitudeM, c.altitudeM))
    if (Math.abs(change) > heightChangeM)
      list.push({ kind: 'height', amount: change, unitName: null, pressures: [] })
    // The numbers stand once, with the last of the two reasons.
    const shifted = list.findLast((r) => r.kind === 'temperature' || r.kind === 'height')
    if (shifted) shifted.pressures = checks.flatMap((c) => elsewhere(c, now, units))
    const opened = entries.find((e) => opensTheUnit.includes(e.kind) && e.date > last.date)
    if (opened)
      add(
        'serviced',
        daysBetween(opened.date, now.date),
        units.find((u) => u.id === opened.unitId)?.name ?? null,
      )
  }
  for (const u of units) {
    if (u.serviceEveryDays === null) continue
    const done = entries
      .filter((e) => (e.unitId === u.id || e.unitId === null) && opensTheUnit.includes(e.kind))
      .map((e) => e.date)
      .sort()
      .at(-1)
    const since = done ? daysBetween(done, now.date) : null
    if (since !== null && since >= u.serviceEveryDays) add('service-due', since, u.name)
  }
  return list
}

const difference = (a: number | null, b: number | null) => (a === null || b === null ? 0 : a - b)
const furthest = (checks: readonly PressureCheck[], of: (c: PressureCheck) => number) =>
  checks.reduce((m, c) => (Math.abs(of(c)) > Math.abs(m) ? of(c) : m), 0)

/** What a pressure reads on an occasion, and what gives the same sag there. Unknown weather counts as unchanged. */
function elsewhere(c: PressureCheck, now: Occasion, units: readonly SuspensionUnit[]): Reminder['pressures'] {
  const unit = units.find((u) => u.id === c.unitId)
  if (!unit || c.psi === null) return []
  const airTempC = now.airTempC ?? c.airTempC ?? usualC
  const { from, to } = weatherOfBoth({ ...c, airTempC: c.airTempC ?? airTempC }, { ...now, airTempC })!
  const setPsi = sameSagElsewherePsi(c.psi, unit.sagTargetPct, unitAir(unit).shape, 0, from, to)
  return [{ end: c.end, readsPsi: gaugeElsewherePsi(c.psi, from, to), setPsi }]
}

/** Where neither then nor now is known, both are taken alike: only differences matter, °C. */
const usualC = 15
