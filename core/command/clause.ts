import type { Adjuster, AdjusterRole } from '#contract/adjuster'
import type { End } from '#contract/common'
import type { Effect } from './lexicon.ts'

/** One move as it was said, before it is known which part it means. */
export interface Clause {
  end: End | null
  /** What the part was called, and what that can be. */
  part: { word: string; roles: readonly AdjusterRole[]; named: readonly Adjuster[] } | null
  number: { value: number; signed: boolean } | null
  effect: Effect | null
  /** "to 8", "at 8": a place, not a step. */
  absolute: boolean
  /** "8 from open": the end of the dial that the count starts from. */
  countedFrom: 'closed' | 'open' | null
  /** psi or bar, when said. */
  pressureUnit: 'psi' | 'bar' | null
  /** A lever's place, by its name. */
  place: { adjuster: Adjuster; end: End; at: number } | null
}

export const noClause = (): Clause => ({
  end: null,
  part: null,
  number: null,
  effect: null,
  absolute: false,
  countedFrom: null,
  pressureUnit: null,
  place: null,
})
