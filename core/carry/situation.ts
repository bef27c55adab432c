import type { Surface } from '#contract/conditions'

export type Steepness = 'flat' | 'usual' | 'steep'
export type Pace = 'slower' | 'usual' | 'faster'

/** What a setup was found in, or is wanted for. */
export interface Situation {
  /** Rider with everything worn and carried. */
  ridingMassKg: number
  airTempC: number
  altitudeM: number
  /** Null: nobody has said; then no ground is reckoned with. */
  surface: Surface | null
  steepness: Steepness
  pace: Pace
}

/** One reason why an adjuster moves, in its canonical unit. */
export interface Shift {
  by: number
  /** Half width of what is reckoned with (80 %), same unit. */
  spread: number
  why: string
}
