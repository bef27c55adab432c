import type { Conditions } from '#contract/conditions'
import type { DayBundle } from '#contract/endpoints'
import type { HourLine } from '#contract/hour'
import type { Run } from '#contract/run'

/** What is known of air, height and ground over a day: as it began, and what was noted since, in the order of the clock. */
export interface ConditionsLog {
  conditions: Conditions
  hours: readonly HourLine[]
}
/** What a run itself may say of them. */
export type RunConditions = Pick<Run, 'startedAt' | 'airTempC' | 'altitudeM' | 'surface'>

/** The log that holds for a day: its own lines, and those of the tent it is in. */
export const logOf = (
  b: Pick<DayBundle, 'day'> & { tent: { id?: string; hours: readonly HourLine[] } | null },
): ConditionsLog => ({
  conditions: b.day.conditions,
  hours: [...b.day.hours, ...(b.tent?.hours ?? [])].sort((x, y) => Date.parse(x.at) - Date.parse(y.at)),
})
