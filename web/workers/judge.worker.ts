import { expose } from 'comlink'
import type { DayBundle } from '#contract/endpoints'
import { historyOf, spaceOfDay } from '#core/adviser/history'
import { judgeDay } from '#core/adviser/judge'
import { learnFrom, type Learnt } from '#core/adviser/memory/learnt'
import { memoryFor } from '#core/adviser/memory/memory'
import type { UnitChoice } from '#core/units/choice'

/** Judgement off the page's thread. */
const judging = {
  /** The whole day in, the next change and what is known out. */
  judge: (bundle: DayBundle, learnt: readonly Learnt[], units: UnitChoice) => {
    const space = spaceOfDay(bundle, units)
    const { date, trailId } = bundle.day
    const memory = memoryFor({ date, trailId, space, conditions: bundle.day.conditions }, learnt)
    return judgeDay(historyOf(bundle, memory), space)
  },
  /** What earlier days taught, each by itself; a day that cannot be read teaches nothing. */
  learn: (earlier: readonly DayBundle[]): Learnt[] =>
    earlier.flatMap((b) => {
      const { date, trailId } = b.day
      return learnFrom({ date, trailId, history: historyOf(b), space: spaceOfDay(b) }) ?? []
    }),
}
export type Judging = typeof judging

expose(judging)
