import type { Adjuster } from '#contract/adjuster'
import type { End } from '#contract/common'
import type { Setup } from '#contract/setup'
import type { SuspensionUnit } from '#contract/unit'
import { canonicalUnits, type UnitChoice } from '../units/choice.ts'
import { familyOf, adjusterName, distanceWords, effectWord, positionWords } from '../adjusters/words.ts'

/** One adjuster that stands elsewhere than in the parent setup. */
export interface Move {
  end: End
  adjuster: Adjuster
  from: number
  to: number
}

/** Places nearer than this are one, canonical. */
export const samePosition = 1e-6

/**
 * What changed from `before` to `after`, springs first, then dampers, front before rear.
 * An adjuster that only one of the two setups knows (a recount or another unit) is no move.
 */
export function diffSetups(before: Setup, after: Setup, units: readonly SuspensionUnit[]): Move[] {
  const old = new Map(before.positions.map((p) => [p.adjusterId, p.value]))
  const adjusters = new Map(units.flatMap((u) => u.adjusters.map((a) => [a.id, a] as const)))
  const moves: Move[] = []
  for (const p of after.positions) {
    const from = old.get(p.adjusterId)
    const adjuster = adjusters.get(p.adjusterId)
    if (from === undefined || !adjuster || Math.abs(from - p.value) < samePosition) continue
    moves.push({ end: p.end, adjuster, from, to: p.value })
  }
  const order = { spring: 0, lever: 1, rebound: 2, compression: 3, other: 4 }
  return moves.sort(
    (x, y) =>
      order[familyOf(x.adjuster)] - order[familyOf(y.adjuster)] ||
      (x.end === y.end ? 0 : x.end === 'front' ? -1 : 1),
  )
}

/** "Rear rebound 7 clicks → 8 clicks, 1 click faster" */
export function moveWords(m: Move, units: UnitChoice = canonicalUnits): string {
  const end = m.end === 'front' ? 'Front' : 'Rear'
  const name = adjusterName(m.adjuster).toLowerCase()
  const from = positionWords(m.adjuster, m.from, units).replace(/ .*/, '')
  return `${end} ${name} ${m.adjuster.kind === 'lever' ? positionWords(m.adjuster, m.from, units) : from} → ${positionWords(m.adjuster, m.to, units)}, ${distanceWords(m.adjuster, m.from, m.to, units)} ${effectWord(m.adjuster, m.from, m.to)}`
}
