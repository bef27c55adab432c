import Papa from 'papaparse'
import { plainBytes } from '#core/formats/encoding'

/** A pasted or chosen table: a heading for each column, and the rows below it. */
export interface TableText {
  header: string[]
  rows: string[][]
  /** In which line of the text each row stands, the first being 1. */
  lines: number[]
  /** Whether it begins with a heading. */
  hasHeading: boolean
}

/** The text of a file, whatever spreadsheet wrote it: UTF-8, UTF-16 (“Unicode text”) by its mark, else what older ones write. */
export function textOf(file: Uint8Array): string {
  const bytes = plainBytes(file)
  try {
    return new TextDecoder('utf-8', { fatal: true }).decode(bytes)
  } catch {
    return new TextDecoder('windows-1252').decode(bytes)
  }
}

/** A line in which something stands that no heading would: a number or a day. */
const isData = (cells: readonly string[]) => cells.some((c) => /^\s*[-+]?\d/.test(c))
const filled = (cells: readonly string[]) => cells.filter((c) => c.trim() !== '').length

/**
 * Reads text as a table: tabs from a spreadsheet, commas, semicolons. A title above it is left out; a heading may stand in two
 * lines, "Fork" over "psi" and "rebound".
 * @param heading whether there is one; null: found out
 * @returns null where there is no table in it
 */
export function readTable(text: string, heading: boolean | null = null): TableText | null {
  const clean = text.replace(/^\uFEFF/, '')
  // Found out without the empty lines, which would have a say in it; read with them, since they count as lines.
  const delimiter = clean.includes('\t')
    ? '\t'
    : Papa.parse<string[]>(clean, { skipEmptyLines: 'greedy' }).meta.delimiter
  const { data } = Papa.parse<string[]>(clean, { delimiter })
  const all = data.map((cells, i) => ({ cells, line: i + 1 })).filter(({ cells }) => filled(cells) > 0)
  const width = Math.max(0, ...all.map(({ cells }) => cells.length))
  if (all.length === 0 || width < 2) return null
  // A title has a line of its own; so has a lonely note of a table without a heading, which is a row.
  const title = all.findIndex(({ cells }) => filled(cells) > 1 || isData(cells))
  const below = heading === false || title < 0 ? all : all.slice(title)
  const hasHeading = heading ?? !isData(below[0].cells)
  const first = below[0].cells
  const second = below.length > 2 ? below[1].cells : []
  const isGroup = (c: string, i: number) => c.trim() === '' && (second[i] ?? '').trim() !== ''
  const over = Array.from({ length: width }, (_, i) => first[i] ?? '')
  const twoLines = hasHeading && !isData(second) && filled(second) > 1 && over.some(isGroup)
  let group = ''
  const header = over.map((h, i) => {
    if (!hasHeading) return `Column ${i + 1}`
    // A cell that spans several is written in the first of them.
    group = h.trim() || group
    const own = twoLines ? `${(second[i] ?? '').trim() ? group : h} ${second[i] ?? ''}` : h
    return own.trim().replace(/\s+/g, ' ') || `Column ${i + 1}`
  })
  const rows = below.slice(hasHeading ? (twoLines ? 2 : 1) : 0)
  return { header, rows: rows.map((r) => r.cells), lines: rows.map((r) => r.line), hasHeading }
}
