import type { DayBundle } from '#contract/endpoints'
import { adjusterName, effectWord } from '../adjusters/words.ts'
import { diffSetups } from '../setup/diff.ts'
import { cellOf, unitOf, type Cell } from './parts.ts'

/** Columns of changes as a plain file, in their order. */
export const changeColumns = [
  'date',
  'rider',
  'bike',
  'trail',
  'change',
  'made_at',
  'before_run',
  'end',
  'adjuster',
  'from',
  'to',
  'unit',
  'direction',
  'source',
  'linked',
  'why',
] as const
export type ChangeRow = Record<(typeof changeColumns)[number], Cell>

/**
 * Changes of a day, one row for every part that was turned, in the order they were made; parts of one change share its
 * number. A reading turns nothing and is none.
 */
export function changeRows(b: DayBundle): ChangeRow[] {
  let change = 0
  // By the order in which they were saved: clocks of two devices need not agree.
  const orderOf = new Map(b.setups.map((s, i) => [s.id, i]))
  return b.setups
    .filter((s) => s.dayId === b.day.id && s.parentId !== null && s.reason.source !== 'reading')
    .flatMap((after) => {
      const before = b.setups.find((s) => s.id === after.parentId)
      const moves = before ? diffSetups(before, after, b.units) : []
      if (moves.length === 0) return []
      change++
      const next = b.runs.findIndex((r) => orderOf.get(r.setupId)! >= orderOf.get(after.id)!)
      return moves.map((m) => ({
        date: b.day.date,
        rider: b.rider.name,
        bike: b.bike.name,
        trail: b.trail.name,
        change,
        made_at: after.madeAt,
        before_run: next < 0 ? '' : next + 1,
        end: m.end,
        adjuster: adjusterName(m.adjuster),
        from: cellOf(m.adjuster, m.from),
        to: cellOf(m.adjuster, m.to),
        unit: unitOf(m.adjuster),
        direction: effectWord(m.adjuster, m.from, m.to),
        source: after.reason.source,
        linked: after.reason.linked ? 'yes' : 'no',
        why: after.reason.text,
      }))
    })
}
