import type { Quote } from './cells.ts'
import { clockSeconds, type DateOrder } from './clock.ts'
import { looseNumber } from './looseNumber.ts'
import { plainRowEnd, scanNumber } from './numberScan.ts'

export interface DelimitedOptions {
  delimiter: string
  decimal: string
  skipBytes: number
  /** 1-based line of the first row of numbers. */
  firstRowLine: number
  /** Columns to read, in the order of the result. */
  columns: number[]
  /** What holds a cell together that contains the delimiter; a double quote when nothing is said. */
  quote?: Quote
  /** Order of local dates in the clock column. */
  dateOrder?: DateOrder | null
  /** Column that may hold clock times instead of numbers; -1 for none. */
  clockColumn: number
  /** Called about every half million bytes with the share done; throw to cancel. */
  onProgress?: (share: number) => void
}

export interface DelimitedTable {
  /** One array per asked column; blank and unreadable cells are NaN. */
  columns: Float64Array[]
  /** 1-based file line of each row. */
  lines: Uint32Array
  /** Rows with fewer cells than the asked columns need, and the first line of them. */
  shortRows: number
  firstShortLine: number | null
  /** Cells that held text instead of a number, and the first line of them. */
  textCells: number
  firstTextLine: number | null
  /** Cells whose marks were taken for grouped thousands. */
  groupedCells: number
}

const lf = 10
const cr = 13
const space = 32
const progressBytes = 1 << 19

/**
 * Reads chosen columns of delimited text into typed arrays, in one pass over the bytes. Lines may end in LF, CRLF
 * or CR, mixed. Never throws on content: what could not be read is counted.
 * Cost O(bytes); memory 8 bytes per cell asked for, plus 4 per row.
 */
export function readDelimited(bytes: Uint8Array, options: DelimitedOptions): DelimitedTable {
  const { skipBytes, firstRowLine, columns, clockColumn, onProgress } = options
  const delimiter = options.delimiter.charCodeAt(0)
  const decimal = options.decimal.charCodeAt(0)
  const quote = { '"': 34, "'": 39, none: -1 }[options.quote ?? '"']
  const dateOrder = options.dateOrder ?? null
  const n = bytes.length
  let capacity = Math.max(16, Math.ceil(n / estimateLineBytes(bytes, skipBytes)) + 16)
  let out = growAll(
    columns.map(() => new Float64Array(0)),
    capacity,
  )
  let lines: Uint32Array = new Uint32Array(capacity)
  const width = columns.length
  const slotOf = new Int32Array(Math.max(1, ...columns.map((c) => c + 1))).fill(-1)
  for (let k = 0; k < columns.length; k++) slotOf[columns[k]] = k

  const lastFeed = bytes.lastIndexOf(lf)
  const lastBreak = lastFeed >= 0 ? lastFeed : bytes.lastIndexOf(cr)
  let rows = 0
  let line = 1
  let i = skipBytes
  let shortRows = 0
  let firstShortLine: number | null = null
  let textCells = 0
  let groupedCells = 0
  let firstTextLine: number | null = null
  let nextProgress = progressBytes

  while (i < n) {
    if (line < firstRowLine) {
      while (i < n && bytes[i] !== lf && bytes[i] !== cr) i++
    } else {
      if (rows === capacity) {
        capacity *= 2
        out = growAll(out, capacity)
        lines = grow(lines, new Uint32Array(capacity))
      }
      const plainEnd =
        i >= lastBreak || delimiter === space
          ? -1
          : plainRowEnd(bytes, i, delimiter, decimal, slotOf, out, rows, quote)
      if (plainEnd >= 0) {
        i = plainEnd
        lines[rows++] = line
      } else {
        if (delimiter === space) while (i < n && bytes[i] === space) i++
        const lineStart = i
        let filled = 0
        for (let column = 0; ;) {
          const cellStart = i
          if (quote >= 0) i = pastQuoted(bytes, i, quote, delimiter)
          while (i < n && bytes[i] !== delimiter && bytes[i] !== lf && bytes[i] !== cr) i++
          if (slotOf[column] >= 0) {
            let value = scanNumber(bytes, cellStart, i, decimal)
            if (value !== value && i > cellStart) {
              const text = cellText(bytes, cellStart, i)
              if (column === clockColumn) value = clockSeconds(text, dateOrder)
              const loose = value === value ? null : looseNumber(text, options.decimal)
              if (loose) {
                value = loose.value
                if (loose.grouped) groupedCells++
              }
              if (value !== value && text !== '' && !/^(nan|null|n\/?a|-)$/i.test(text)) {
                textCells++
                firstTextLine ??= line
              }
            }
            out[slotOf[column]][rows] = value
            filled++
          }
          if (i >= n || bytes[i] !== delimiter) break
          if (delimiter === space) while (i < n && bytes[i] === space) i++
          else i++
          column++
          if (column === slotOf.length) {
            while (i < n && bytes[i] !== lf && bytes[i] !== cr) i++
            break
          }
        }
        if (i > lineStart) {
          if (filled < width) {
            shortRows++
            firstShortLine ??= line
          } else lines[rows++] = line
        }
      }
    }
    // CRLF, LF or CR: at most one of each ends a line.
    if (i < n && bytes[i] === cr) i++
    if (i < n && bytes[i] === lf) i++
    line++
    if (onProgress && i >= nextProgress) {
      onProgress(i / n)
      nextProgress = i + progressBytes
    }
  }
  return {
    columns: cut(out, rows),
    lines: lines.subarray(0, rows),
    shortRows,
    firstShortLine,
    textCells,
    firstTextLine,
    groupedCells,
  }
}

/** Where a quoted cell's closing quote stands, else where it begins; quotes do not reach over a line. */
function pastQuoted(bytes: Uint8Array, from: number, quote: number, delimiter: number): number {
  let i = from
  while (bytes[i] === space && delimiter !== space) i++
  if (bytes[i] !== quote) return from
  for (i++; i < bytes.length && bytes[i] !== lf && bytes[i] !== cr; i++) {
    if (bytes[i] !== quote) continue
    if (bytes[i + 1] !== quote) return i + 1
    i++
  }
  return from
}

function estimateLineBytes(bytes: Uint8Array, from: number): number {
  const end = Math.min(bytes.length, from + 65536)
  let breaks = 0
  for (let i = from; i < end; i++) if (bytes[i] === lf || (bytes[i] === cr && bytes[i + 1] !== lf)) breaks++
  return Math.max(2, ((end - from) / Math.max(1, breaks)) * 0.9)
}

/** Closures here, not in the hot function: a captured counter is slow to count. */
const growAll = (columns: Float64Array[], capacity: number) =>
  columns.map((c) => grow(c, new Float64Array(capacity)))

const cut = (columns: Float64Array[], rows: number) => columns.map((c) => c.subarray(0, rows))

function grow<T extends Float64Array | Uint32Array>(from: T, to: T): T {
  to.set(from)
  return to
}

function cellText(bytes: Uint8Array, from: number, to: number): string {
  let s = ''
  for (let k = from; k < to; k++) s += String.fromCharCode(bytes[k])
  return s.trim().replace(/^"|"$/g, '').trim()
}
