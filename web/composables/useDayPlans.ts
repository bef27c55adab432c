import { computed, ref } from 'vue'
import type { DayPlan } from '#contract/dayPlan'
import { openPlans } from '#core/plans/state'
import { useDay } from '../stores/day.ts'
import { useNotices } from '../stores/notices.ts'
import { planWords } from '../support/planWords.ts'

/** What is planned on the open day, and not done, dropped or decided otherwise by a run. */
export function useDayPlans() {
  const day = useDay()
  const notices = useNotices()
  const plans = computed(() =>
    (day.bundle ? openPlans(day.bundle.day.plans, day.bundle) : [])
      .filter((p) => p.state.is !== 'fell')
      .map((p) => ({ ...planWords(p), kept: p.kept, line: p.plan.line, holds: p.state.is === 'holds' })),
  )
  const closeAt = (id: string, closedAt: string | null) =>
    day.editPlans((held) => held.map((p) => (p.id === id ? { ...p, closedAt } : p)))
  async function drop(p: DayPlan): Promise<void> {
    if (await notices.attempt(() => closeAt(p.id, new Date().toISOString())))
      notices.show(`Dropped: ${p.text}.`, 'done', () => closeAt(p.id, null), day.bundle!.day.id)
  }
  /** The plan whose line stands in the command line: done with it, it is closed. */
  const inLine = ref<string | null>(null)
  const closeDone = async () => {
    const id = inLine.value
    inLine.value = null
    if (id) await notices.attempt(() => closeAt(id, new Date().toISOString()))
  }
  return { plans, drop, inLine, closeDone }
}
