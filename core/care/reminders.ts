import type { ServiceEntry } from '#contract/care'
import type { Setup } from '#contract/setup'
import type { SuspensionUnit } from '#contract/unit'
import { dayNumber } from './calendar.ts'

/** Where and when pressures were last known to be right. */
export interface LastCheck {
  date: string
  airTempC: number | null
  altitudeM: number | null
  place: string
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
}

/** Air goes over the weeks; two are enough to notice. */
export const checkAfterDays = 14
const temperatureJumpC = 10
const heightChangeM = 500

const daysBetween = (from: string, to: string) => dayNumber(to) - dayNumber(from)

/** The last moment the pressures of a bike were set or checked: its setup, or a pressure check in the log. */
export function lastCheckOf(
  setup: Pick<Setup, 'madeAt' | 'foundIn'> | undefined,
  entries: readonly ServiceEntry[],
): LastCheck | null {
  const bySetup: LastCheck[] = setup
    ? [
        {
          date: setup.madeAt.slice(0, 10),
          airTempC: setup.foundIn?.airTempC ?? null,
          altitudeM: setup.foundIn?.altitudeM ?? null,
          place: setup.foundIn?.place ?? '',
        },
      ]
    : []
  const byLog = entries.filter((e) => e.kind === 'pressure-check')
  return [...bySetup, ...byLog].reduce<LastCheck | null>(
    (last, c) => (last === null || c.date >= last.date ? c : last),
    null,
  )
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
  last: LastCheck | null,
  now: Occasion,
  entries: readonly ServiceEntry[],
  units: readonly SuspensionUnit[],
): Reminder[] {
  const list: Reminder[] = []
  const add = (kind: Reminder['kind'], amount: number, unitName: string | null = null) =>
    list.push({ kind, amount, unitName })
  if (!last) add('never', 0)
  else {
    const days = daysBetween(last.date, now.date)
    if (days >= checkAfterDays) add('weeks', days)
    if (last.place && now.place && last.place !== now.place) add('venue', 0)
    if (last.airTempC !== null && now.airTempC !== null) {
      const jump = now.airTempC - last.airTempC
      if (Math.abs(jump) > temperatureJumpC) add('temperature', jump)
    }
    if (last.altitudeM !== null && now.altitudeM !== null) {
      const change = now.altitudeM - last.altitudeM
      if (Math.abs(change) > heightChangeM) add('height', change)
    }
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
