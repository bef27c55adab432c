import type { BikeSetups, RiddenOn } from '#contract/bikeSetups'
import type { KeptSetup } from '#contract/kept'
import { placesOf, type Place } from './places.ts'

/** wanted: nobody has turned it · noted: out of a table of before, nothing else is known · stood: on the bike, never ridden · ridden: has counted runs · settled: a day ended happy on it. */
export type PlaceState = 'wanted' | 'noted' | 'stood' | 'ridden' | 'settled'

/** A place with all that is known of it. */
export interface KnownPlace extends Place {
  state: PlaceState
  /** What it is called, by whoever kept or saved it; null: nobody has named it. */
  name: string | null
  kept: KeptSetup | null
  /** Newest day first. */
  rides: RiddenOn[]
  countedRuns: number
  ratings: number[]
  /** Over all days, most often said first. */
  words: RiddenOn['words']
}

/** Places of a bike with what they were ridden on and what is kept of them, in the order they were first reached. */
export function knownPlaces(all: BikeSetups, nowId: string | null): KnownPlace[] {
  return placesOf(all.setups, nowId).map((p) => {
    const mine = new Set(p.setupIds)
    const rides = oneADay(all.ridden.filter((r) => mine.has(r.setupId)))
    const kept =
      all.kept.filter((k) => mine.has(k.id)).sort((a, b) => b.keptAt.localeCompare(a.keptAt))[0] ?? null
    const named = all.setups.filter((s) => mine.has(s.id) && s.name !== null).at(-1)
    const isNoted = all.setups.every((s) => !mine.has(s.id) || s.reason.source === 'noted')
    const countedRuns = rides.reduce((n, r) => n + r.countedRuns, 0)
    return {
      ...p,
      state: p.wanted
        ? 'wanted'
        : rides.some((r) => r.settled)
          ? 'settled'
          : countedRuns > 0
            ? 'ridden'
            : isNoted
              ? 'noted'
              : 'stood',
      name: kept?.name ?? named?.name ?? null,
      kept,
      rides,
      countedRuns,
      ratings: rides.flatMap((r) => r.ratings),
      words: together(rides.flatMap((r) => r.words)),
    }
  })
}

const wordKey = (w: RiddenOn['words'][number]) => `${w.word} ${w.end}`

function together(words: RiddenOn['words']): RiddenOn['words'] {
  const sums = new Map<string, RiddenOn['words'][number]>()
  for (const w of words) sums.set(wordKey(w), { ...w, runs: w.runs + (sums.get(wordKey(w))?.runs ?? 0) })
  return [...sums.values()].sort((a, b) => b.runs - a.runs)
}

/** Two setups of one place on one day (it was come back to) are one ride on that day. */
function oneADay(rides: readonly RiddenOn[]): RiddenOn[] {
  const days = new Map<string, RiddenOn>()
  for (const r of rides) {
    const held = days.get(r.dayId)
    days.set(
      r.dayId,
      held
        ? {
            ...held,
            runs: held.runs + r.runs,
            countedRuns: held.countedRuns + r.countedRuns,
            ratings: [...held.ratings, ...r.ratings],
            words: together([...held.words, ...r.words]),
            tyreFrontPsi: r.tyreFrontPsi ?? held.tyreFrontPsi,
            tyreRearPsi: r.tyreRearPsi ?? held.tyreRearPsi,
            settled: held.settled || r.settled,
          }
        : r,
    )
  }
  return [...days.values()]
}
