import type { Whereabouts } from '#contract/tent'

/** What the order of a tent rests on. */
export interface Need {
  number: number
  whereabouts: Whereabouts
  sinceMs: number
  /** Something was asked of the rider and not answered yet. */
  openQuestion: boolean
  /** Something was put off until after the run that the rider is on or has come in from. */
  later: boolean
}

/** here before all who cannot be spoken to; of these, who can be soon. */
const ranks: Record<Whereabouts, number> = { here: 0, out: 1, resting: 2, settled: 3 }

/**
 * Who is needed next: who stands here, longest first; then those on the trail, with an open question or something put off
 * before the rest, who went out first before who went out last; then who rests; then who is left alone. Never by name.
 */
export function byNeed<T extends Need>(riders: readonly T[]): T[] {
  const asks = (n: Need) => (n.whereabouts === 'out' && (n.openQuestion || n.later) ? 0 : 1)
  return [...riders].sort(
    (a, b) =>
      ranks[a.whereabouts] - ranks[b.whereabouts] ||
      asks(a) - asks(b) ||
      a.sinceMs - b.sinceMs ||
      a.number - b.number,
  )
}
