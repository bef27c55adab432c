import type { End } from '#contract/common'
import type { EndFigures, RunFigures } from '#contract/settingFigures'
import { clearDifference, repeatSd } from '../stats/metricNoise.ts'

export type FigureKey = keyof EndFigures

/** One figure of two places. */
export interface FigureDifference {
  end: End
  key: FigureKey
  first: { mean: number; runs: number }
  second: { mean: number; runs: number }
  /** Of single runs on one setting on one day; null: no setting was ridden twice on a day. */
  scatter: number | null
  /**
   * clear: more than repeats explain (80 %) · within: repeats explain it · unknown: nothing was repeated ·
   * other-days: the two were never ridden on one day, so track, weather and tyres are in it
   */
  size: 'clear' | 'within' | 'unknown' | 'other-days'
}

const mean = (xs: readonly number[]) => xs.reduce((s, x) => s + x, 0) / xs.length

/**
 * Figures of two places beside each other, with the scatter that repeats on this bike have. Where both were ridden on one
 * day only such days count: everything else differs there less.
 *
 * @param all    of the bike, every place: its repeats tell the scatter
 * @param first  setup ids of the one place, and of the other
 * @param leasts smaller differences are of no use to anyone, by figure
 */
export function figureDifferences(
  all: readonly RunFigures[],
  first: readonly string[],
  second: readonly string[],
  leasts: Record<FigureKey, number>,
): FigureDifference[] {
  const of = (ids: readonly string[]) => all.filter((r) => ids.includes(r.setupId))
  const daysOf = (runs: readonly RunFigures[]) => new Set(runs.map((r) => r.dayId))
  const both = [...daysOf(of(first))].filter((d) => daysOf(of(second)).has(d))
  const counted = (ids: readonly string[]) => of(ids).filter((r) => !both.length || both.includes(r.dayId))
  return (['front', 'rear'] as const).flatMap((end) =>
    (Object.keys(leasts) as FigureKey[]).flatMap((key): FigureDifference[] => {
      const values = (runs: readonly RunFigures[]) => runs.flatMap((r) => r[end]?.[key] ?? [])
      const a = values(counted(first))
      const b = values(counted(second))
      if (!a.length || !b.length) return []
      const alike = new Map<string, RunFigures[]>()
      for (const r of all) {
        const group = `${r.dayId} ${r.setupId}`
        alike.set(group, [...(alike.get(group) ?? []), r])
      }
      const noise = repeatSd([...alike.values()].map(values))
      const apart = Math.abs(mean(b) - mean(a))
      const size = !both.length
        ? 'other-days'
        : noise === null
          ? 'unknown'
          : apart > Math.max(leasts[key], clearDifference(noise, a.length, b.length))
            ? 'clear'
            : 'within'
      return [
        {
          end,
          key,
          first: { mean: mean(a), runs: a.length },
          second: { mean: mean(b), runs: b.length },
          scatter: noise?.sd ?? null,
          size,
        },
      ]
    }),
  )
}
