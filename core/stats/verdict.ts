import type { Effect, Session } from './session.ts'

export type VerdictState = 'not-yet' | 'better' | 'worse' | 'same' | 'open'

export interface SetupVerdict extends Effect {
  state: VerdictState
  runsA: number
  runsB: number
  /** Further runs of both setups together after which the 80 % interval should leave zero; null when not foreseeable. */
  runsToSettle: number | null
  /** Plain words, no numbers without their unit. */
  words: string
}

/** Smallest difference a rider can notice, rating points. */
export const noticeable = 0.5
const leastRuns = 2
const sure = 0.9
const mostForeseen = 12

/**
 * Is B better than A? "Not yet" while either setup has fewer than two counted, rated runs.
 */
export function judge(session: Session, setupA: string, setupB: string): SetupVerdict {
  const e = session.compare(setupA, setupB)
  const runsA = session.level(setupA).runs
  const runsB = session.level(setupB).runs
  const missing = Math.max(0, leastRuns - runsA) + Math.max(0, leastRuns - runsB)
  const state = missing > 0 ? 'not-yet' : stateOf(e)
  const runsToSettle = missing > 0 ? missing : state === 'open' ? foresee(e, runsA, runsB) : 0
  return { ...e, state, runsA, runsB, runsToSettle, words: words(state, e, runsToSettle, missing) }
}

function stateOf(e: Effect): VerdictState {
  if (e.probability >= sure) return 'better'
  if (1 - e.probability >= sure) return 'worse'
  return e.low80 > -noticeable && e.high80 < noticeable ? 'same' : 'open'
}

/** The interval shrinks with the harmonic number of runs; add runs to the thinner side until it leaves zero. */
function foresee(e: Effect, runsA: number, runsB: number): number | null {
  const half = (e.high80 - e.low80) / 2
  const target = Math.max(Math.abs(e.effect), noticeable)
  const now = 1 / runsA + 1 / runsB
  let a = runsA
  let b = runsB
  for (let extra = 1; extra <= mostForeseen; extra++) {
    if (a <= b) a++
    else b++
    if (half * Math.sqrt((1 / a + 1 / b) / now) < target) return extra
  }
  return null
}

function words(state: VerdictState, e: Effect, more: number | null, missing: number): string {
  const lean =
    e.probability >= 0.7 ? ' It leans toward better.' : e.probability <= 0.3 ? ' It leans toward worse.' : ''
  const runs = (n: number) => (n === 1 ? 'one more run' : `${n} more runs`)
  switch (state) {
    case 'not-yet':
      return `Not yet: ${runs(missing)} ${missing === 1 ? 'is' : 'are'} needed before it can be judged.${lean}`
    case 'better':
      return `Better, by about ${Math.abs(e.effect).toFixed(1)} rating points.`
    case 'worse':
      return `Worse, by about ${Math.abs(e.effect).toFixed(1)} rating points.`
    case 'same':
      return 'No difference a rider would notice.'
    case 'open':
      return more === null
        ? `The runs scatter more than the two setups differ.${lean}`
        : `Still open; about ${runs(more)} would settle it.${lean}`
  }
}
