import type { Run } from '#contract/run'

/** A run that others are judged against: the last that counts before it; null: none. @param runs in the order ridden */
export function runBefore(runs: readonly Run[], runId: string): Run | null {
  const at = runs.findIndex((r) => r.id === runId)
  return runs.slice(0, Math.max(0, at)).findLast((r) => r.kind === 'counted') ?? null
}
