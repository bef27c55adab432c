import type { Conditions } from '#contract/day'
import type { Run } from '#contract/run'

/** The air as it was noted last: at the latest run that says so, else as the day began. */
export function airNow(day: {
  conditions: Conditions
  runs: readonly { run: Pick<Run, 'airTempC' | 'altitudeM'> }[]
}): Pick<Conditions, 'airTempC' | 'altitudeM'> {
  const last = <K extends 'airTempC' | 'altitudeM'>(key: K) =>
    day.runs.findLast((r) => r.run[key] !== null)?.run[key] ?? day.conditions[key]
  return { airTempC: last('airTempC'), altitudeM: last('altitudeM') }
}
