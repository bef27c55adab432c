import type { DayBundle } from '#contract/endpoints'
import type { Feel } from '#contract/run'
import { runBefore } from '../setup/runBefore.ts'
import { parsePlan, type Plan, type PlanCondition } from './plan.ts'

/**
 * waits: nothing has been ridden since · unsaid: ridden, and what it hangs on was not told; silence is no answer · holds: it
 * came so · fell: it came otherwise.
 */
export interface PlanState {
  is: 'waits' | 'unsaid' | 'holds' | 'fell'
  /** The run that decided, or was ridden and says nothing of it. */
  run: number | null
}

/** Whether a run came so; null: it was not told. */
function came(c: PlanCondition, feel: Feel | undefined, before: string | null): boolean | null {
  if (!feel) return null
  switch (c.kind) {
    case 'verdict': {
      const said = feel.verdicts.find((v) => v.againstRunId === before)
      return said ? Math.sign(said.value) === c.sign : null
    }
    case 'rated':
      return feel.rating === null ? null : 'below' in c ? feel.rating < c.below : feel.rating >= c.from
    case 'word': {
      const hit = feel.marks.some(
        (m) => m.word === c.word && (m.end === c.end || m.end === 'both' || c.end === 'both'),
      )
      // A word that nobody said is no word against it.
      return hit ? true : null
    }
  }
}

/**
 * How a plan stands: the first run that counts after it and tells what it hangs on decides.
 * @param afterRunId the last run when it was planned; null: none had been ridden
 */
export function planState(
  plan: Plan,
  day: Pick<DayBundle, 'runs' | 'feels'>,
  afterRunId: string | null,
): PlanState {
  const from = day.runs.findIndex((r) => r.id === afterRunId) + 1
  let ridden: number | null = null
  for (const [i, run] of day.runs.entries()) {
    if (i < from || run.kind !== 'counted') continue
    ridden = i + 1
    const feel = day.feels.find((f) => f.runId === run.id)
    const before = runBefore(day.runs, run.id)?.id ?? null
    const answers = plan.conditions.map((c) => came(c, feel, before))
    if (answers.includes(true)) return { is: 'holds', run: ridden }
    if (answers.every((a) => a === false)) return { is: 'fell', run: ridden }
  }
  return { is: ridden === null ? 'waits' : 'unsaid', run: ridden }
}

/** A plan as it is kept, on a day or in a tent. */
export interface KeptPlan {
  /** "if worse, shock reb slower 1". */
  text: string
  /** The last run when it was made; null: none had been ridden. */
  afterRunId: string | null
  /** When it was done or dropped. */
  closedAt: string | null
}

/** A kept plan, read, with how it stands. */
export interface OpenPlan<K extends KeptPlan = KeptPlan> {
  kept: K
  plan: Plan
  state: PlanState
}

/** The plans of a rider that are neither done nor dropped, in the order they were made; what cannot be read is none. */
export const openPlans = <K extends KeptPlan>(
  kept: readonly K[],
  day: Pick<DayBundle, 'runs' | 'feels'>,
): OpenPlan<K>[] =>
  kept.flatMap((k) => {
    const plan = k.closedAt === null ? parsePlan(k.text) : null
    return plan ? [{ kept: k, plan, state: planState(plan, day, k.afterRunId) }] : []
  })
