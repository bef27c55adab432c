import type { ProposedMove } from '#contract/proposal'
import { settingsKey, setupOf } from '../history.ts'
import type { Climb } from './climb.ts'
import { lastTurn, wasWorse } from './lastTurn.ts'
import { worseBelow } from './worse.ts'

/** A place is the same within this, canonical units. */
const give = 1e-6

/**
 * Chance that the settings after these places are better than those on the bike, by the rides of the day; null: one of
 * the two was not ridden.
 *
 * @param to canonical position per adjuster id, of what is turned
 */
export function riddenBetter(c: Climb, to: ReadonlyMap<string, number>): number | null {
  const session = c.session()
  if (!c.now || session.level(c.nowKey).runs === 0) return null
  const key = settingsKey({
    ...c.now,
    positions: c.now.positions.map((p) => ({ ...p, value: to.get(p.adjusterId) ?? p.value })),
  })
  return session.level(key).runs === 0 ? null : session.chanceOfBetter(c.nowKey, key)
}

/**
 * The book would turn this once more: it leads to settings that were ridden and are worse, or its first part went there from
 * here today and came back. What the rider made of it counts, not the rule; otherwise the day goes round in circles.
 */
export function leadsBack(c: Climb, moves: readonly ProposedMove[]): boolean {
  const [first] = moves
  // A card that only asks, reads or says so leads nowhere.
  if (!first) return false
  const better = riddenBetter(c, new Map(moves.map((m) => [m.adjusterId, m.to])))
  return (better !== null && better < worseBelow) || cameBack(c, first) || goesOnWorse(c, first)
}

/** One more of the very turn that was just said to be worse. */
function goesOnWorse(c: Climb, { adjusterId, from, to }: ProposedMove): boolean {
  const turn = lastTurn(c)
  const last = turn?.moves.find((m) => m.adjuster.id === adjusterId)
  return !!turn && !!last && Math.sign(last.to - last.from) === Math.sign(to - from) && wasWorse(c, turn)
}

/** Ridden where it stands, then where it would go, and now it stands here again. */
function cameBack(c: Climb, { adjusterId, from, to }: ProposedMove): boolean {
  const places = c.counted.map(
    (r) => setupOf(c.h, r.run.setupId)?.positions.find((p) => p.adjusterId === adjusterId)?.value,
  )
  const here = places.findIndex((x) => x !== undefined && Math.abs(x - from) < give)
  return here >= 0 && places.slice(here).some((x) => x !== undefined && Math.abs(x - to) < give)
}
