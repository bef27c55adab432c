import type { DayBundle } from '#contract/endpoints'
import type { Proposal } from '#contract/proposal'
import type { TentBundle } from '#contract/tent'
import { reportWords } from './padWords.ts'
import { conditionWords } from '../plans/plan.ts'
import { openPlans, type PlanState } from '../plans/state.ts'
import { plansOf } from './plansOf.ts'

const planEnds: Record<PlanState['is'], (run: number | null) => string> = {
  waits: () => 'no run since',
  unsaid: (run) => `not told of run ${run}`,
  holds: (run) => `run ${run} came so, not done`,
  fell: () => '',
}

/**
 * What a rider's day leaves open: put off, planned and not decided, said on the phone and laid to no run, asked and not
 * answered. A settled day leaves nothing of the last.
 *
 * @param proposal what is next on that day; null: it could not be worked out
 */
export function openQuestions(
  tent: Pick<TentBundle, 'notes' | 'reports'>,
  day: DayBundle,
  proposal: Proposal | null,
): string[] {
  const id = day.day.id
  const later = tent.notes
    .filter((n) => n.dayId === id && n.kind === 'later' && n.closedAt === null)
    .map((n) => n.text)
  const plans = openPlans(plansOf(tent.notes, day), day)
    .filter((p) => p.state.is !== 'fell')
    .map((p) => `if ${conditionWords(p.plan)}: ${p.plan.line} (${planEnds[p.state.is](p.state.run)})`)
  const said = tent.reports
    .filter((r) => r.dayId === id && r.takenFor === null && r.droppedAt === null)
    .map((r) => `said on the phone, of no run yet: ${reportWords(r.report, day.trail)}`)
  const next =
    proposal === null || day.day.settledSetupId !== null || day.runs.length === 0
      ? []
      : [`${proposal.question ? 'asked' : 'next'}: ${proposal.headline}`]
  return [...later, ...plans, ...said, ...next]
}
