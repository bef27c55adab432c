import type { Adjuster } from '#contract/adjuster'
import type { ProfileShift, ShiftRole } from '#contract/profile'
import type { AdvisedPosition } from '#contract/setup'
import type { SuspensionUnit } from '#contract/unit'
import { adjusterRange, clampToRange } from '../adjusters/range.ts'
import type { ComparedDial } from '../lineage/compare.ts'

/** What a dial that is missing is nearest to, first choice first. */
const nearest: Partial<Record<ShiftRole, readonly ShiftRole[]>> = {
  'low-speed-compression': ['compression', 'high-speed-compression'],
  'high-speed-compression': ['compression', 'low-speed-compression'],
  compression: ['low-speed-compression', 'high-speed-compression'],
  'low-speed-rebound': ['rebound', 'high-speed-rebound'],
  'high-speed-rebound': ['rebound', 'low-speed-rebound'],
  rebound: ['low-speed-rebound', 'high-speed-rebound'],
  spacers: ['main-pressure'],
  'spring-rate': ['preload'],
}

/** The dial of a unit that comes nearest to one it does not have; null: nothing does. */
export const nearestDial = (role: ShiftRole, dials: readonly Adjuster[]): Adjuster | null =>
  (nearest[role] ?? []).map((r) => dials.find((a) => a.role === r)).find((a) => a !== undefined) ?? null

/** The shifts from one setup to another; a dial of one's own naming means nothing on another unit and stays out. */
export function shiftsBetween(dials: readonly ComparedDial[]): ProfileShift[] {
  return dials.flatMap(({ end, first, from, to, how }): ProfileShift[] =>
    how === 'moved' && first && first.role !== 'custom' && from !== null && to !== null
      ? [{ end, role: first.role, by: to - from }]
      : [],
  )
}

/** A shift laid on a base. */
export interface AppliedShift {
  shift: ProfileShift
  /** The dial of the base; null: not on this unit. */
  adjuster: Adjuster | null
  /** Where the dial is not there: the one that is nearest to it. It is named, never turned instead. */
  instead: Adjuster | null
  /** Canonical; null: not on this unit, or nobody has read it. */
  from: number | null
  to: number | null
  /** The dial ends before the whole shift is made. */
  cut: boolean
}

/** What a profile makes of a base, shift by shift. Nothing is turned from a place that nobody has read. */
export function applyProfile(
  shifts: readonly ProfileShift[],
  base: { positions: readonly AdvisedPosition[] },
  units: readonly SuspensionUnit[],
): AppliedShift[] {
  return shifts.map((shift) => {
    const dials = units.find((u) => u.end === shift.end)?.adjusters ?? []
    const adjuster = dials.find((a) => a.role === shift.role) ?? null
    const instead = adjuster ? null : nearestDial(shift.role, dials)
    const from = adjuster ? (base.positions.find((p) => p.adjusterId === adjuster.id)?.value ?? null) : null
    if (!adjuster || from === null) return { shift, adjuster, instead, from, to: null, cut: false }
    const { min, max } = adjusterRange(adjuster)
    const wish = from + shift.by
    return {
      shift,
      adjuster,
      instead,
      from,
      to: clampToRange(adjuster, wish),
      cut: wish > max + 1e-6 || wish < min - 1e-6,
    }
  })
}
