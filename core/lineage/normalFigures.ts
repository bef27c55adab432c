import type { End } from '#contract/common'
import type { RunFigures } from '#contract/settingFigures'
import type { FigureKey } from './figures.ts'

/** What a figure of a bike usually is: its lowest and highest among other runs. */
export interface NormalRange {
  low: number
  high: number
  runs: number
  /** Where those were ridden. */
  on: 'trail' | 'bike'
}

/** Fewer runs say nothing of what is normal. */
const leastRuns = 3

/**
 * From the lowest to the highest of a bike's other counted runs: on this trail where there are three of them, for ground
 * makes most of a figure; else on all its trails.
 *
 * @returns null with fewer than three
 */
export function normalRange(
  all: readonly RunFigures[],
  { runId, trailId }: { runId: string; trailId: string },
  end: End,
  key: FigureKey,
): NormalRange | null {
  const others = all.filter((r) => r.runId !== runId)
  // By runs and not by values: all figures of a run are held against the same ground.
  const here = others.filter((r) => r.trailId === trailId)
  const on = here.length >= leastRuns ? 'trail' : 'bike'
  const counted = (on === 'trail' ? here : others).flatMap((r) => r[end]?.[key] ?? [])
  if (counted.length < leastRuns) return null
  return { low: Math.min(...counted), high: Math.max(...counted), runs: counted.length, on }
}
