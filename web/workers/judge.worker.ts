import { expose } from 'comlink'
import type { DayBundle } from '#contract/endpoints'
import { advise } from '#core/adviser/advise'
import { historyOf, spaceOf } from '#core/adviser/history'
import type { UnitChoice } from '#core/units/choice'
import { summarise } from '#core/adviser/summary'

/** Judgement off the page's thread: the whole day in, the next change and what is known out. */
const judge = (bundle: DayBundle, units: UnitChoice) => {
  const history = historyOf(bundle)
  const space = spaceOf(bundle.units, bundle.bike, units)
  return { proposal: advise(history, space), knowledge: summarise(history, space) }
}
export type JudgeDay = typeof judge

expose(judge)
