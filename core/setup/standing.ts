import type { Adjuster } from '#contract/adjuster'
import type { Setup } from '#contract/setup'
import type { SuspensionUnit } from '#contract/unit'
import { canStandAt } from '../adjusters/range.ts'

/** A gauge read it, whatever the limit says that was typed later: too much air is to be seen, not to be forgotten. */
const isCounted = (a: Adjuster) => a.kind !== 'pressure'

/**
 * What is on a bike now, as far as its parts can stand there. A dial that was given another range since, one without the place
 * that is written, stands nobody knows where: its position is left out, which is unread. What is written stays as it is in
 * the record, and shows again when the range is put right.
 *
 * @param present what is on the bike
 * @param units   the fitted ones, others beside them or not
 * @returns `present` itself where all of it can be
 */
export function standing(present: Setup, units: readonly SuspensionUnit[]): Setup {
  const fitted = units.filter((u) => u.id === present.frontUnitId || u.id === present.rearUnitId)
  const lost = new Set(cannotStand(present, fitted).map((x) => x.adjuster.id))
  if (lost.size === 0) return present
  return { ...present, positions: present.positions.filter((p) => !lost.has(p.adjusterId)) }
}

/** Adjusters of these units that are written where they cannot stand, with what is written, canonical. */
export function cannotStand(
  { positions }: Pick<Setup, 'positions'>,
  units: readonly SuspensionUnit[],
): { unit: SuspensionUnit; adjuster: Adjuster; value: number }[] {
  return units.flatMap((unit) =>
    unit.adjusters.flatMap((adjuster) => {
      const p = positions.find((x) => x.adjusterId === adjuster.id)
      return p && isCounted(adjuster) && !canStandAt(adjuster, p.value)
        ? [{ unit, adjuster, value: p.value }]
        : []
    }),
  )
}
