import { expose } from 'comlink'
import type { DayBundle } from '#contract/endpoints'
import { advise } from '#core/adviser/advise'
import { historyOf, spaceOf } from '#core/adviser/history'
import { summarise } from '#core/adviser/summary'

/** Judgement off the page's thread: the whole day in, the next change and what is known out. */
const judge = (bundle: DayBundle) => {
  const history = historyOf(bundle)
  const space = spaceOf(bundle.units, bundle.bike)
  return { proposal: advise(history, space), knowledge: summarise(history, space) }
}
export type JudgeDay = typeof judge

expose(judge)
