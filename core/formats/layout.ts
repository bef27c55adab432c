import type { ChannelRole, ChannelUnit, ImportMapping } from '#contract/recording'
import { InputError } from '../errors.ts'
import { splitCells, type Quote } from './cells.ts'
import { dateOrderOf, type DateOrder } from './clock.ts'
import { nameOf, plainBytes } from './encoding.ts'
import { looseNumber } from './looseNumber.ts'
import { scanNumber } from './numberScan.ts'
import { inEnglish } from './tongues.ts'
import { unitOf } from './unitNames.ts'

/** What a delimited text file looks like, guessed from its first bytes. */
export interface FileLayout {
  delimiter: ImportMapping['delimiter']
  decimal: ImportMapping['decimal']
  /** Bytes to skip at the start (byte order mark). */
  skipBytes: number
  /** 1-based line on which the first row of numbers stands. */
  firstRowLine: number
  /** The header line, one letter a byte; '' when there is none. */
  headerLine: string
  quote: Quote
  /** Order of local dates, null without any. */
  dateOrder: DateOrder | 'unclear' | null
  columns: ColumnGuess[]
}

export interface ColumnGuess {
  name: string
  role: ChannelRole
  unit: ChannelUnit
}

const delimiters: ImportMapping['delimiter'][] = [';', '\t', '|', ',', ' ']
/** Enough for the longest head of comments that is known. */
const headBytes = 1 << 18

/** What a person says of a file instead of what it looks like. */
export type Said = Partial<Pick<ImportMapping, 'delimiter' | 'decimal' | 'firstRowLine' | 'quote'>>

/**
 * Guesses delimiter, decimal mark, header and the meaning of each column.
 *
 * @param file the file, or at least its first 256 kB
 * @param said is kept to, whatever it looks like
 * @throws InputError 'file.empty', 'file.binary', 'file.one-column', 'file.header-only', 'file.no-numbers'
 */
export function sniffLayout(file: Uint8Array, said: Said = {}): FileLayout {
  const bytes = plainBytes(file)
  if (bytes.length === 0) throw new InputError('file.empty')
  const skipBytes = bytes[0] === 0xef && bytes[1] === 0xbb && bytes[2] === 0xbf ? 3 : 0
  const head = bytes.subarray(skipBytes, headBytes)
  let control = 0
  for (const b of head) if (b < 9 || (b > 13 && b < 32)) control++
  if (control > 0) throw new InputError('file.binary')
  const whole = bytes.length <= headBytes
  const lines = decodeLatin(head).split(/\r\n|\n|\r/)
  // The last line of a cut head is a torso.
  if (!whole && lines.length > 1) lines.pop()
  const kept = lines.map((text, i) => ({ text, line: i + 1 })).filter((l) => l.text.trim() !== '')
  if (kept.length === 0) throw new InputError('file.empty')

  const quote = said.quote ?? '"'
  const choice = chooseDelimiter(
    kept.map((l) => l.text),
    said,
    quote,
  )
  if (!choice) {
    const numeric = kept.some((l) => /^\s*[-+]?[\d.,]+\s*$/.test(l.text))
    throw new InputError(numeric || kept.length > 1 ? 'file.one-column' : 'file.no-numbers')
  }
  const { delimiter } = choice
  const isRow = (text: string) => numericShare(text, delimiter, choice.decimal, quote, true) >= 0.5
  const asked = said.firstRowLine
  const firstRow = kept.findIndex((l, i) =>
    asked ? l.line >= asked : isRow(l.text) && (i + 1 >= kept.length || isRow(kept[i + 1].text)),
  )
  if (firstRow < 0) throw new InputError(kept.length > 1 ? 'file.no-numbers' : 'file.header-only')
  const split = (text: string) => splitCells(text, delimiter, quote)
  const width = split(kept[firstRow].text).length
  const sampled = kept.slice(firstRow, firstRow + 200).map((l) => split(l.text).map(clean))
  const groups = !said.decimal && groupsThousands(sampled, choice.decimal)
  const decimal = groups ? (choice.decimal === ',' ? '.' : ',') : choice.decimal
  // A units line under the names has the same width; the names are the first line of that width.
  const headers = kept.slice(0, firstRow).filter((l) => split(l.text).length === width)
  const nameLine =
    headers.length >= 2 && looksLikeUnits(headers[headers.length - 1].text, delimiter)
      ? headers[headers.length - 2]
      : headers[headers.length - 1]
  const unitLine =
    nameLine && headers[headers.length - 1] !== nameLine ? headers[headers.length - 1] : undefined
  const names = nameLine ? split(nameLine.text) : []
  const units = unitLine ? split(unitLine.text) : []
  const columns = Array.from({ length: width }, (_, i) =>
    guessColumn(
      nameOf(clean(names[i] ?? '')),
      nameOf(clean(units[i] ?? '')) || unitInCells(sampled, i, decimal),
      i,
    ),
  )
  keepFirstOfEachRole(columns)
  if (!columns.some((c) => c.role === 'time')) findTime(columns, sampled.slice(0, 50), decimal)
  return {
    delimiter,
    decimal,
    skipBytes,
    firstRowLine: kept[firstRow].line,
    headerLine: nameLine?.text ?? '',
    columns,
    quote,
    dateOrder:
      columns.map((_, i) => dateOrderOf(sampled.map((cells) => cells[i] ?? ''))).find((o) => o !== null) ??
      null,
  }
}

/** Text of bytes, one letter a byte: column names in any encoding survive well enough to be shown. */
function decodeLatin(bytes: Uint8Array): string {
  let out = ''
  for (let i = 0; i < bytes.length; i += 8192) out += String.fromCharCode(...bytes.subarray(i, i + 8192))
  return out
}

const clean = (s: string) => s.trim().replace(/^"|"$/g, '').trim()

function cellNumber(cell: string, decimal: string): number {
  const bytes = Uint8Array.from(cell, (c) => c.charCodeAt(0) & 255)
  return scanNumber(bytes, 0, bytes.length, decimal.charCodeAt(0))
}

/** @param loosely numbers with units and grouped thousands count, too */
function numericShare(
  text: string,
  delimiter: string,
  decimal: string,
  quote: Quote,
  loosely: boolean,
): number {
  const cells = splitCells(text, delimiter, quote).map(clean)
  if (cells.length < 2) return 0
  const isNumber = (c: string) =>
    !Number.isNaN(cellNumber(c, decimal)) || (loosely && looseNumber(c, decimal) !== null)
  const good = cells.filter((c) => c === '' || /^nan$/i.test(c) || isNumber(c) || isClock(c)).length
  const filled = cells.filter(isNumber).length
  return filled === 0 ? 0 : good / cells.length
}

/** The unit that stands behind the numbers of a column, if one does. */
function unitInCells(rows: readonly string[][], column: number, decimal: string): string {
  for (const cells of rows) {
    const unit = looseNumber(cells[column] ?? '', decimal)?.unit
    if (unit) return unit
  }
  return ''
}

/**
 * Whether the mark that was taken for the decimal one groups thousands: nowhere in the file is it followed by anything but
 * three digits or led by a zero, and where it is missing the numbers have three digits. "998; 1,002; 1,031" and not
 * "0,998; 1,002".
 */
function groupsThousands(rows: readonly string[][], decimal: '.' | ','): boolean {
  const mark = decimal === '.' ? '\\.' : ','
  const grouped = new RegExp(`^[-+]?[1-9]\\d{0,2}(${mark}\\d{3})+$`)
  let [marked, bare] = [0, 0]
  for (const cells of rows)
    for (const c of cells) {
      if (!c.includes(decimal)) {
        if (/^[-+]?\d{3}$/.test(c)) bare++
      } else if (grouped.test(c)) marked++
      else if (!isClock(c)) return false
    }
  return marked > 0 && bare > 0
}

export function isClock(cell: string): boolean {
  if (/^\d{1,2}[./-]\d{1,2}[./-]\d{2,4}[T ]+\d{1,2}:\d\d/.test(cell)) return true
  return /^\d{4}-\d\d-\d\d[T ]\d\d:\d\d/.test(cell) || /^\d{1,2}:\d\d(:\d\d)?([.,]\d+)?$/.test(cell)
}

/** The delimiter and decimal mark under which most lines are rows of numbers of one width, wider first. */
function chooseDelimiter(lines: string[], said: Said, quote: Quote) {
  // A head of comments may be longer than any sample from the top.
  const sample = [...lines.slice(0, 200), ...lines.slice(200).slice(-200)]
  return (
    bestDelimiter(sample, said, quote, false) ??
    bestDelimiter(sample, said, quote, true) ??
    headerOnlyDelimiter(lines, quote)
  )
}

function bestDelimiter(sample: string[], said: Said, quote: Quote, loosely: boolean) {
  let best: { delimiter: ImportMapping['delimiter']; decimal: '.' | ','; score: number } | null = null
  for (const delimiter of said.delimiter ? [said.delimiter] : delimiters) {
    for (const decimal of said.decimal ? [said.decimal] : (['.', ','] as const)) {
      if (decimal === delimiter) continue
      const widths = new Map<number, number>()
      for (const l of sample) {
        if (numericShare(l, delimiter, decimal, quote, loosely) < 0.5) continue
        const w = splitCells(l, delimiter, quote).length
        widths.set(w, (widths.get(w) ?? 0) + 1)
      }
      for (const [width, count] of widths) {
        if (width < 2) continue
        const numeric = sample.reduce(
          (s, l) =>
            s +
            (splitCells(l, delimiter, quote).length === width
              ? numericShare(l, delimiter, decimal, quote, loosely)
              : 0),
          0,
        )
        const score = numeric + count * 0.01 * Math.min(width, 20)
        if (!best || score > best.score + 1e-9) best = { delimiter, decimal, score }
      }
    }
  }
  return best
}

function headerOnlyDelimiter(lines: string[], quote: Quote) {
  const delimiter = delimiters.find((d) => splitCells(lines[0], d, quote).length > 1)
  return delimiter ? { delimiter, decimal: '.' as const, score: 0 } : null
}

const timeUnits: readonly ChannelUnit[] = ['min', 's', 'ms', 'us', 'ns']
const travelUnits: readonly ChannelUnit[] = ['mm', 'cm', 'in', 'm', 'pct', 'fraction', 'raw']

function looksLikeUnits(line: string, delimiter: string): boolean {
  const cells = splitCells(line, delimiter).map((c) => nameOf(clean(c)).replace(/^[[(]|[\])]$/g, ''))
  return cells.filter((c) => c !== '' && unitOf(c) !== null).length >= Math.max(1, cells.length / 3)
}

function guessColumn(name: string, unitCell: string, index: number): ColumnGuess {
  const bracket = /[[(]\s*([^\])]+?)\s*[\])]/.exec(name)?.[1]
  const tail = /[_ ]([a-zA-Zµ%/]+[2²]?)$/.exec(name)?.[1]
  const unit =
    unitOf(unitCell.replace(/^[[(]|[\])]$/g, '')) ??
    (bracket ? unitOf(bracket) : null) ??
    (tail ? unitOf(tail) : null)
  const n = inEnglish(name.toLowerCase())
  const label = name || `Column ${index + 1}`
  if (/^(t|time|timestamp|millis|elapsed|clock|zeit|temps|tiempo)\b|^time|^t[_ [(]|timestamp/.test(n)) {
    return { name: label, role: 'time', unit: unit && timeUnits.includes(unit) ? unit : 'none' }
  }
  if (/^lat(itude)?\b|^lat_/.test(n)) return { name: label, role: 'latitude', unit: 'deg' }
  if (/^lon(gitude)?\b|^lng\b|^lon_/.test(n)) return { name: label, role: 'longitude', unit: 'deg' }
  // That of a brake line or of a tyre is none of a chamber.
  if (
    /press|psi\b|_psi|_bar$|kpa/.test(n) &&
    /front|fork|rear|shock/.test(n) &&
    !/brake|tyre|tire|caliper/.test(n)
  ) {
    const pressureUnit = unit === 'bar' || unit === 'kPa' ? unit : 'psi'
    return {
      name: label,
      role: /front|fork/.test(n) ? 'front-pressure' : 'rear-pressure',
      unit: pressureUnit,
    }
  }
  if (/acc|_g$|\[g\]|\(g\)/.test(n) && !/gyro/.test(n)) {
    const role = /bar|hand|stem/.test(n)
      ? 'bar-acceleration'
      : /axle|hub|wheel/.test(n) && /front|fork/.test(n)
        ? 'front-axle-acceleration'
        : /axle|hub|wheel/.test(n) && /rear|shock/.test(n)
          ? 'rear-axle-acceleration'
          : 'ignore'
    return { name: label, role, unit: unit === 'm/s2' ? 'm/s2' : 'g' }
  }
  // An acceleration, pressure or temperature beside the travel must not be taken for travel.
  const other =
    /acc|gyro|press|temp|volt|batt|hum|head|alt|lat|lon|force|target|rpm|rev|torque|brake|lever|tyre|tire|power|cadence|angle|steer/.test(
      n,
    ) ||
    (/speed|velocity/.test(n) && !/travel|pos/.test(n))
  // In a unit that no travel has, it is none; in one that nobody wrote, it is asked.
  const isTravelUnit = unit === null || travelUnits.includes(unit)
  const travelUnit = unit ?? 'none'
  if (!other && isTravelUnit && /front|fork/.test(n))
    return { name: label, role: 'front-travel', unit: travelUnit }
  if (!other && isTravelUnit && /rear|shock/.test(n))
    return {
      name: label,
      role: /wheel|axle/.test(n) && !/shock/.test(n) ? 'rear-wheel-travel' : 'rear-travel',
      unit: travelUnit,
    }
  if (/speed|velocity/.test(n) && !/front|fork|rear|shock|shaft|damper|rebound|compress/.test(n))
    return { name: label, role: 'speed', unit: unit === 'km/h' ? 'km/h' : 'm/s' }
  if (!other && /dist/.test(n)) return { name: label, role: 'distance', unit: unit === 'km' ? 'km' : 'm' }
  return { name: label, role: 'ignore', unit: unit ?? 'none' }
}

/** No column is called time: one with a time unit, else one of clock times, else the first that climbs in even steps, is taken for it. */
function findTime(columns: ColumnGuess[], cells: string[][], decimal: string): void {
  const rows = cells.map((r) => r.map((c) => cellNumber(c, decimal)))
  const timed = columns.find((c) => c.role === 'ignore' && timeUnits.includes(c.unit))
  if (timed) {
    timed.role = 'time'
    return
  }
  const clock = columns.findIndex((c, i) => c.role === 'ignore' && cells.every((r) => isClock(r[i] ?? '')))
  if (clock >= 0) {
    columns[clock] = { ...columns[clock], role: 'time', unit: 'none' }
    return
  }
  // A count of samples climbs evenly, too, and says nothing of time.
  const climbing = columns.findIndex(
    (c, i) =>
      c.role === 'ignore' &&
      climbsEvenly(rows.map((r) => r[i])) &&
      !isCounter(
        c.name,
        rows.map((r) => r[i]),
      ),
  )
  if (climbing >= 0) columns[climbing] = { ...columns[climbing], role: 'time', unit: 'none' }
}

const isCounter = (name: string, x: number[]) =>
  /^(#|n|no\.?|nr\.?|i|id|idx|index|row|line|record|sample|samples|count|counter|frame|packet|seq|sequence)\b/i.test(
    name,
  ) || x.every((v, i) => Number.isInteger(v) && (i === 0 || v - x[i - 1] === 1))

function climbsEvenly(x: number[]): boolean {
  if (x.length < 5) return false
  const steps = x.slice(1).map((v, i) => v - x[i])
  const mean = (x[x.length - 1] - x[0]) / steps.length
  return mean > 0 && steps.every((s) => s > 0.5 * mean && s < 1.5 * mean)
}

function keepFirstOfEachRole(columns: ColumnGuess[]): void {
  // Where travel itself is given, the pressure beside it is not needed.
  for (const end of ['front', 'rear'])
    if (columns.some((c) => c.role === `${end}-travel` || (end === 'rear' && c.role === 'rear-wheel-travel')))
      for (const c of columns) if (c.role === `${end}-pressure`) c.role = 'ignore'
  // What the shock itself says comes before the wheel.
  if (columns.some((c) => c.role === 'rear-travel'))
    for (const c of columns) if (c.role === 'rear-wheel-travel') c.role = 'ignore'
  // Of two that could be the travel, the one that says what it is measured in.
  const chosen = new Map<ChannelRole, ColumnGuess>()
  for (const c of columns) {
    if (c.role === 'ignore') continue
    const before = chosen.get(c.role)
    if (!before || (c.role.endsWith('-travel') && plainness(c) < plainness(before))) chosen.set(c.role, c)
  }
  for (const c of columns) if (c.role !== 'ignore' && chosen.get(c.role) !== c) c.role = 'ignore'
}

/** How little has to be asked before a travel column can be read: a length, a share of the travel, readings, nothing known. */
const plainness = ({ unit }: ColumnGuess): number =>
  ['mm', 'cm', 'in', 'm'].includes(unit)
    ? 0
    : unit === 'pct' || unit === 'fraction'
      ? 1
      : unit === 'raw'
        ? 2
        : 3
