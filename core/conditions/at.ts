import type { Conditions } from '#contract/conditions'
import type { HourLine } from '#contract/hour'
import type { ConditionsLog, RunConditions } from './log.ts'

type Noted = Pick<RunConditions, 'airTempC' | 'altitudeM' | 'surface'>
type Key = keyof Noted

/** Of a list in the order of the clock, what the last line that says so says of it; null: none does. */
const lastOf = <K extends Key>(hours: readonly HourLine[], key: K): Noted[K] =>
  hours.findLast((h) => h[key] !== null)?.[key] ?? null

/** What the log says last of each; a clock of another device that goes ahead makes no line of tomorrow. */
export const notedLast = (hours: readonly HourLine[]): Noted => ({
  airTempC: lastOf(hours, 'airTempC'),
  altitudeM: lastOf(hours, 'altitudeM'),
  surface: lastOf(hours, 'surface'),
})

/** What was noted at a run: by itself, else last before it in the log; null: since the day began, nobody has. */
export function notedAt(hours: readonly HourLine[], run: RunConditions): Noted {
  const before = hours.filter((h) => Date.parse(h.at) <= Date.parse(run.startedAt))
  const of = <K extends Key>(key: K): Noted[K] => run[key] ?? lastOf(before, key)
  return { airTempC: of('airTempC'), altitudeM: of('altitudeM'), surface: of('surface') }
}

/**
 * The ground that a run which is logged now bears of its own: that of the run before it, as long as the log has not said
 * another since; null: as the log or the day says.
 */
export function carriedSurface(
  hours: readonly HourLine[],
  before: RunConditions | undefined,
): RunConditions['surface'] {
  if (!before) return null
  const since = hours.some((h) => h.surface !== null && Date.parse(h.at) > Date.parse(before.startedAt))
  return since ? null : before.surface
}

/** Air, height and ground at a run: as noted at it, else as the day began. */
export function conditionsAt(day: ConditionsLog, run: RunConditions): Conditions {
  const { airTempC, altitudeM, surface } = notedAt(day.hours, run)
  const began = day.conditions
  return {
    airTempC: airTempC ?? began.airTempC,
    altitudeM: altitudeM ?? began.altitudeM,
    surface: surface ?? began.surface,
  }
}

/** Air, height and ground as they were noted last, of a run or in the log; nobody has since: as the day began. */
export function conditionsNow(day: ConditionsLog & { runs: readonly { run: RunConditions }[] }): Conditions {
  const of = <K extends Key>(key: K): Noted[K] => {
    const run = day.runs.findLast((r) => r.run[key] !== null)?.run
    const line = day.hours.findLast((h) => h[key] !== null)
    const isLater = line && (!run || Date.parse(line.at) > Date.parse(run.startedAt))
    return (isLater ? line : run)?.[key] ?? day.conditions[key]
  }
  return {
    airTempC: of('airTempC'),
    altitudeM: of('altitudeM'),
    surface: of('surface'),
  }
}
