import type { Adjuster } from '#contract/adjuster'
import type { End } from '#contract/common'
import { adjusterRange } from '../adjusters/range.ts'
import { fittedUnits, type SetupSpace } from './history.ts'

/**
 * An adjuster that can be tuned between runs, on a common scale: one "click" of a dial, 2 % of a pressure, a third of
 * a spacer move the bike about equally far. Constants: docs/models.md, "Next change".
 */
export interface Dial {
  end: End
  adjuster: Adjuster
  /** Ends of the part's own range, click-equivalents. */
  low: number
  high: number
  toClicks: (value: number) => number
}

/** Share of pressure or spring rate that counts as one click. */
export const shareOfClick = 0.02
const clicksPerSpacer = 3
/** A usual dial has about this many clicks; a dial with fewer moves further with each. */
const usualClicks = 16

/** null for parts that are not tuned click by click between runs: levers. */
function scaleOf(a: Adjuster): ((value: number) => number) | null {
  switch (a.kind) {
    case 'click': {
      const per = Math.min(3, Math.max(0.7, usualClicks / a.clicks))
      return (v) => v * per
    }
    case 'turn':
      return (v) => (v * usualClicks) / a.turns
    case 'pressure':
    case 'spring-rate':
      return (v) => Math.log(Math.max(1, v)) / shareOfClick
    case 'spacer':
      return (v) => v * clicksPerSpacer
    case 'custom':
      return (v) => ((v - a.min) * usualClicks) / (a.max - a.min)
    case 'lever':
      return null
  }
}

/** Every adjuster of both ends that can be tuned between runs, front first. */
export function dialsOf(space: SetupSpace): Dial[] {
  return fittedUnits(space).flatMap((u) =>
    u.adjusters.flatMap((adjuster): Dial[] => {
      const toClicks = scaleOf(adjuster)
      if (!toClicks) return []
      const r = adjusterRange(adjuster)
      return [{ end: u.end, adjuster, low: toClicks(r.min), high: toClicks(r.max), toClicks }]
    }),
  )
}
