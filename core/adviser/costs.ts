import type { Adjuster } from '#contract/adjuster'

/** What a step costs, in runs of a usual trail day: time, hands, and a day that has only so many of them. */
export const costRuns = {
  look: 0.02,
  question: 0.02,
  reading: 0.1,
  turn: 1,
  geometry: 1,
  spacer: 1.5,
  spring: 2.5,
  workshop: 6,
} as const

/** What it costs to move a part and ride again, runs. */
export function costOfTurn(a: Pick<Adjuster, 'kind'>): number {
  if (a.kind === 'spacer') return costRuns.spacer
  if (a.kind === 'spring-rate') return costRuns.spring
  return costRuns.turn
}
