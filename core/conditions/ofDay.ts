import type { Conditions } from '#contract/conditions'
import type { DayBundle } from '#contract/endpoints'
import { conditionsNow } from './at.ts'
import { logOf } from './log.ts'

/** Air, height and ground of a day as they were noted last, at a run or in its log by the hour. */
export const conditionsOf = (b: Pick<DayBundle, 'day' | 'tent' | 'runs'>): Conditions =>
  conditionsNow({ ...logOf(b), runs: b.runs.map((run) => ({ run })) })
