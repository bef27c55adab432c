import type { DayBundle } from '#contract/endpoints'
import type { UnitChoice } from '../units/choice.ts'
import { historyOf, spaceOfDay } from './history.ts'
import { judgeDay } from './judge.ts'
import { learnFrom, type Learnt } from './memory/learnt.ts'
import { memoryFor } from './memory/memory.ts'
import { toldInOrder } from './toldInOrder.ts'

/** What earlier days taught, each by itself; a day that cannot be read teaches nothing. */
export const learntOf = (earlier: readonly DayBundle[]): Learnt[] =>
  earlier.flatMap((b) => {
    const { date, trailId } = b.day
    return learnFrom({ date, trailId, history: toldInOrder(historyOf(b)), space: spaceOfDay(b) }) ?? []
  })

/** The next change and what is known of a day, from its records and what earlier days taught. @param units to say it in */
export function judgeBundle(bundle: DayBundle, learnt: readonly Learnt[], units: UnitChoice) {
  const space = spaceOfDay(bundle, units)
  const { date, trailId } = bundle.day
  const memory = memoryFor({ date, trailId, space, conditions: bundle.day.conditions }, learnt)
  return judgeDay(historyOf(bundle, memory), space)
}
