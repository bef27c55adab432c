import type { Adjuster } from '#contract/adjuster'
import type { End } from '#contract/common'
import type { AdvisedPosition, Known, KnownHow } from '#contract/setup'
import type { SuspensionUnit } from '#contract/unit'
import { familyOf } from '../adjusters/words.ts'
import { isSameModel } from '../setup/sameModel.ts'

/** Settings to be laid beside others: of a place, another bike, or somebody's recommendation. */
export interface Side {
  /** A recommendation does not say how anything is known. */
  positions: readonly (AdvisedPosition & { known?: Known })[]
  /** The units they speak of. */
  units: readonly SuspensionUnit[]
}

/** One dial of either side. */
export interface ComparedDial {
  end: End
  /** What it is called and counted by on the first side, and on the second; null: that unit has none. */
  first: Adjuster | null
  second: Adjuster | null
  /** Canonical positions; null: nobody has read it, or nothing is said of it. */
  from: number | null
  to: number | null
  /** How each is known; null: it is not, or it is a recommendation. */
  fromHow: KnownHow | null
  toHow: KnownHow | null
  /**
   * alike · moved: both known on one dial · unread: one is not known · other-dial: dials of other units, each in its own
   * count, where a difference means nothing · only-one: the other unit has no such dial
   */
  how: 'alike' | 'moved' | 'unread' | 'other-dial' | 'only-one'
}

const samePlace = 1e-6

/**
 * Two setups, dial by dial, front before rear, springs first. Dials of one unit, or of two units of one model, compare
 * click by click; dials of other units stand beside each other by their role.
 */
export function compareDials(first: Side, second: Side): ComparedDial[] {
  return (['front', 'rear'] as const).flatMap((end) => {
    const a = first.units.find((u) => u.end === end)
    const b = second.units.find((u) => u.end === end)
    const left = [...(b?.adjusters ?? [])]
    const take = (x: Adjuster | undefined) => {
      if (x) left.splice(left.indexOf(x), 1)
      return x ?? null
    }
    const oneDial = a && b && (a.id === b.id || isSameModel(a, b))
    const at = (side: Side, id: string | undefined) => {
      const there = side.positions.find((p) => p.adjusterId === id)
      return { value: there?.value ?? null, how: there?.known?.how ?? null }
    }
    const nowhere = { value: null, how: null }
    const rows = (a?.adjusters ?? []).map((x, i): ComparedDial => {
      const twin = take(
        left.find((y) => y.id === x.id) ??
          (oneDial
            ? left.find((y) => y === b.adjusters[i])
            : left.find((y) => y.role === x.role && y.kind === x.kind)),
      )
      const { value: from, how: fromHow } = at(first, x.id)
      const { value: to, how: toHow } = twin ? at(second, twin.id) : nowhere
      const how =
        twin === null
          ? 'only-one'
          : from === null || to === null
            ? 'unread'
            : twin.id !== x.id && !oneDial && !isPlainNumber(x)
              ? 'other-dial'
              : Math.abs(from - to) < samePlace
                ? 'alike'
                : 'moved'
      return { end, first: x, second: twin, from, to, fromHow, toHow, how }
    })
    const rest = left.map((y): ComparedDial => {
      const { value: to, how: toHow } = at(second, y.id)
      return { end, first: null, second: y, from: null, to, fromHow: null, toHow, how: 'only-one' }
    })
    return [...rows, ...rest].sort((x, y) => order(x) - order(y))
  })
}

/** A pressure, a spring or a count of spacers means itself on any unit; a click does not. */
const isPlainNumber = (a: Adjuster) => a.kind === 'pressure' || a.kind === 'spring-rate'
const families = { spring: 0, lever: 1, compression: 2, rebound: 3, other: 4 }
const order = (d: ComparedDial) => families[familyOf((d.first ?? d.second)!)]
