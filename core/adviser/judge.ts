import type { Proposal } from '#contract/proposal'
import { advise } from './advise.ts'
import { outlookOf, type Outlook } from './decide.ts'
import type { DayHistory, SetupSpace } from './dayHistory.ts'
import { toldInOrder } from './toldInOrder.ts'
import { summarise, type DayKnowledge } from './summary.ts'

/** The next change and what is known, from one look at the day. */
export function judgeDay(
  told: DayHistory,
  space: SetupSpace,
): { proposal: Proposal; knowledge: DayKnowledge } {
  const h = toldInOrder(told)
  let known: Outlook | null = null
  const outlook = () => (known ??= outlookOf(h, space))
  return { proposal: advise(h, space, outlook), knowledge: summarise(h, space, outlook) }
}
