import { expose } from 'comlink'
import type { DayBundle } from '#contract/endpoints'
import { historyOf, spaceOf } from '#core/adviser/history'
import { judgeDay } from '#core/adviser/judge'
import type { UnitChoice } from '#core/units/choice'

/** Judgement off the page's thread: the whole day in, the next change and what is known out. */
const judge = (bundle: DayBundle, units: UnitChoice) =>
  judgeDay(historyOf(bundle), spaceOf(bundle.units, bundle.bike, units))
export type JudgeDay = typeof judge

expose(judge)
