import Papa from 'papaparse'

/** A pasted or chosen table: a heading for each column, and the rows below it. */
export interface TableText {
  header: string[]
  rows: string[][]
  /** Whether the first line is its heading. */
  hasHeading: boolean
}

/** A line in which something stands that no heading would: a number or a day. */
const isData = (cells: readonly string[]) => cells.some((c) => /^\s*[-+]?\d/.test(c))

/**
 * Reads text as a table: tabs from a spreadsheet, commas, semicolons.
 * @param heading whether the first line is one; null: found out
 * @returns null where there is no table in it
 */
export function readTable(text: string, heading: boolean | null = null): TableText | null {
  const clean = text.replace(/^\uFEFF/, '')
  const delimiter = clean.includes('\t') ? '\t' : ''
  const { data } = Papa.parse<string[]>(clean, { skipEmptyLines: 'greedy', delimiter })
  const width = Math.max(0, ...data.map((r) => r.length))
  if (data.length === 0 || width < 2) return null
  const hasHeading = heading ?? !isData(data[0])
  const header = Array.from({ length: width }, (_, i) => (hasHeading ? (data[0][i] ?? '').trim() : ''))
  return {
    header: header.map((h, i) => h || `Column ${i + 1}`),
    rows: hasHeading ? data.slice(1) : data,
    hasHeading,
  }
}
