import type { DayPlan } from '#contract/dayPlan'
import type { DayBundle } from '#contract/endpoints'
import type { TentNote } from '#contract/tent'

/** What is planned for a rider: kept in the tent, and on the day itself before it joined or away from the tent. */
export const plansOf = (
  notes: readonly TentNote[],
  { day }: Pick<DayBundle, 'day'>,
): (TentNote | DayPlan)[] => [...notes.filter((n) => n.kind === 'plan' && n.dayId === day.id), ...day.plans]
