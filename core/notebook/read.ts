import type { AdvisedPosition } from '#contract/setup'
import type { SuspensionUnit } from '#contract/unit'
import type { DateOrder } from '../formats/clock.ts'
import type { ColumnUse } from './column.ts'
import { readDate } from './dates.ts'
import { readValue } from './values.ts'

/** A row of somebody's own table, as the setup it notes. */
export interface NotedRow {
  /** Of the text it was read from, the first being 1. */
  line: number
  /** YYYY-MM-DD; null: it has none. */
  date: string | null
  name: string
  place: string
  note: string
  /** What nobody noted is not among them. */
  positions: AdvisedPosition[]
  /** Why it cannot be brought in; empty: it can. */
  faults: string[]
}

/**
 * Reads a table of settings by what a person said its columns are. A row is a whole: what of it cannot be read is told, and
 * nothing is filled in from the row above.
 * @param lines of the text, of each row
 * @param noDate the day of rows that have none of their own, YYYY-MM-DD; null: such rows are not brought in
 */
export function readNotebook(
  rows: readonly (readonly string[])[],
  lines: readonly number[],
  columns: readonly ColumnUse[],
  units: readonly SuspensionUnit[],
  order: DateOrder,
  noDate: string | null,
): NotedRow[] {
  const dials = new Map(units.flatMap((u) => u.adjusters.map((a) => [a.id, a] as const)))
  return rows.flatMap((cells, i) => {
    if (cells.every((c) => c.trim() === '')) return []
    const row: NotedRow = {
      line: lines[i],
      date: noDate,
      name: '',
      place: '',
      note: '',
      positions: [],
      faults: [],
    }
    columns.forEach((column, at) => {
      const cell = (cells[at] ?? '').trim()
      if (column.use === 'date') {
        if (cell === '') return
        row.date = readDate(cell, order)
        if (row.date === null) row.faults.push(`“${cell.slice(0, 30)}” is no day.`)
      } else if (column.use === 'dial') {
        const a = dials.get(column.adjusterId)
        const read = a ? readValue(cell, a, column) : null
        if (read === null) return
        if ('fault' in read) row.faults.push(read.fault)
        else row.positions.push({ end: column.end, adjusterId: column.adjusterId, value: read.value })
      } else if (column.use !== 'ignore')
        row[column.use] = row[column.use] ? `${row[column.use]}, ${cell}` : cell
    })
    if (row.date === null && row.faults.length === 0) row.faults.push('It has no day.')
    if (row.positions.length === 0 && row.faults.length === 0) row.faults.push('There is no setting in it.')
    return [row]
  })
}
