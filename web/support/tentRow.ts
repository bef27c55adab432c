import type { DayBundle } from '#contract/endpoints'
import type { Move } from '#core/setup/diff'
import { changedSinceStart, laneOf, type Lane } from '#core/tent/lane'
import { workedOn, type Worked } from '#core/tent/offer'

/** What a tent reckons from a day alone. */
export interface TentDay {
  lane: Lane
  changed: Move[]
  worked: Worked[]
}

const kept = new WeakMap<DayBundle, TentDay>()

/** A day that did not change is not reckoned again each time that anything else in the tent did. */
export function tentDayOf(day: DayBundle): TentDay {
  const before = kept.get(day)
  if (before) return before
  const now = { lane: laneOf(day), changed: changedSinceStart(day), worked: workedOn(day) }
  kept.set(day, now)
  return now
}

/** The list as it was, where it holds the same things: what shows it is not drawn again. */
export const asBefore = <T>(before: readonly T[] | undefined, now: T[]): T[] =>
  before?.length === now.length && before.every((x, i) => x === now[i]) ? (before as T[]) : now
