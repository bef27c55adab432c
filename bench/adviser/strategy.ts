import type { Positions } from '#core/practice/landscape'
import type { RiddenFeel } from './riders.ts'

/** A way to choose settings run by run. Sees what a person would see: settings and feel, never the truth. */
export interface Strategy {
  /** What to ride next, told what the last ride felt like; `settled` once it would stop here. */
  next: (felt: RiddenFeel) => { ride: Positions; settled: boolean }
  /** What it would keep if the day ended now. */
  keep: () => Positions
  /** What it says of itself, to be held against the truth; null where it says nothing. */
  claims?: () => Claims | null
}

/** Statements of an adviser about the settings on the bike and its next change. */
export interface Claims {
  /** Chance that the proposed change is better, and where it leads. */
  change: { better: number; to: Positions } | null
  /** Chance that more than `noticeable` is left, points. */
  doubt: number
  noticeable: number
  /** Where the best place of each dial lies with 80 %, click-equivalents. */
  brackets: { low: number; high: number }[]
}
