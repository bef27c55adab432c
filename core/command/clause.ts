import type { Adjuster, AdjusterRole } from '#contract/adjuster'
import type { End } from '#contract/common'
import type { Effect } from './lexicon.ts'

/** One move as it was said, before it is known which part it means. */
export interface Clause {
  end: End | null
  /** The same is said of both ends. */
  both: boolean
  /** What the part was called, and what that can be. */
  part: { word: string; roles: readonly AdjusterRole[]; named: readonly Adjuster[] } | null
  number: { value: number; signed: boolean } | null
  effect: Effect | null
  /** The word that said the effect. */
  said: string | null
  /** "from 7 to 5": where it is said to stand. */
  claimed: number | null
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
  both: false,
  part: null,
  number: null,
  effect: null,
  said: null,
  claimed: null,
  absolute: false,
  countedFrom: null,
  pressureUnit: null,
  place: null,
})

/** A move of both ends as one of each. */
export const perEnd = (c: Clause): Clause[] =>
  c.both ? (['front', 'rear'] as const).map((end) => ({ ...c, end })) : [c]
