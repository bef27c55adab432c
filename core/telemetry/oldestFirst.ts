import type { DelimitedTable } from '../formats/delimited.ts'

/** So much of a clock has to run backwards, share of its steps: one that is set back does so now and then. */
const nearlyAll = 0.99

/**
 * A table whose newest row stands first, turned round; null where it does not. The table itself stays as it is: it may be
 * remembered.
 * @param time index of its time column
 */
export function oldestFirst(table: DelimitedTable, time: number): DelimitedTable | null {
  const stamps = table.columns[time]
  let [back, steps] = [0, 0]
  for (let i = 1; i < stamps.length; i++) {
    if (stamps[i] === stamps[i - 1] || Number.isNaN(stamps[i] - stamps[i - 1])) continue
    steps++
    if (stamps[i] < stamps[i - 1]) back++
  }
  if (steps === 0 || back < nearlyAll * steps) return null
  return {
    ...table,
    columns: table.columns.map((c) => c.slice().reverse()),
    lines: table.lines.slice().reverse(),
  }
}
