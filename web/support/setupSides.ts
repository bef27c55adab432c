import type { Baseline } from '#contract/baseline'
import type { SuspensionUnit } from '#contract/unit'
import type { Side } from '#core/lineage/compare'
import type { KnownPlace } from '#core/lineage/facts'
import { dayWords } from './dates.ts'
import { titleOf } from './setupWords.ts'

/** One side of a comparison, with what it is called. */
export interface ComparedSide {
  /** Null: a recommendation, which nobody has ridden. */
  place: KnownPlace | null
  words: string
  note: string
  side: Side
}

/** A setup as one side of a comparison, on the units it was made for. */
export function sideOfPlace(
  place: KnownPlace,
  units: readonly SuspensionUnit[],
): ComparedSide & { place: KnownPlace } {
  const { setup } = place
  const side = {
    // What is only wanted stands nowhere: there is nothing to be known of it.
    positions:
      place.state === 'wanted'
        ? setup.positions.map(({ end, adjusterId, value }) => ({ end, adjusterId, value }))
        : setup.positions,
    units: units.filter((u) => u.id === setup.frontUnitId || u.id === setup.rearUnitId),
  }
  return { place, words: titleOf(place), note: '', side }
}

/** What somebody recommends, as the other side; nobody has ridden it. */
export const sideOfBaseline = (b: Baseline, units: readonly SuspensionUnit[]): ComparedSide => ({
  place: null,
  words: b.name,
  note: `Recommended, as of ${dayWords(b.asOf)}. Makers’ manuals come first.`,
  side: { positions: b.positions, units },
})
