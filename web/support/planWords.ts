import { conditionWords } from '#core/plans/plan'
import type { OpenPlan } from '#core/plans/state'

/** "If worse: shock reb faster 1", and how it came, once it has. */
export function planWords({ plan, state }: OpenPlan): { text: string; state: string } {
  const states = {
    waits: '',
    unsaid: `not told of run ${state.run}`,
    holds: `run ${state.run} came so`,
    fell: `run ${state.run} came otherwise`,
  }
  return { text: `If ${conditionWords(plan)}: ${plan.line}`, state: states[state.is] }
}
