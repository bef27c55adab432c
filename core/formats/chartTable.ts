import type { ChartInput, ChartRow } from '#contract/chart'
import { InputError } from '../errors.ts'
import { barToPsi, lbInToNPerMm, lbToKg } from '../units/convert.ts'

/** What the second column of a pasted chart holds. */
export type ChartOutput = 'pressure' | 'clicks' | 'spring-rate'

const massUnits: Record<string, (x: number) => number> = { kg: (x) => x, lb: lbToKg, lbs: lbToKg }
const pressureUnits: Record<string, (x: number) => number> = { psi: (x) => x, bar: barToPsi }
const rateUnits: Record<string, (x: number) => number> = {
  'n/mm': (x) => x,
  'lb/in': lbInToNPerMm,
  lbs: lbInToNPerMm,
  lb: lbInToNPerMm,
}
const clickUnits: Record<string, (x: number) => number> = {
  click: (x) => x,
  clicks: (x) => x,
  turns: (x) => x,
  turn: (x) => x,
}

const outputUnits = { pressure: pressureUnits, clicks: clickUnits, 'spring-rate': rateUnits }
const number = String.raw`([-+]?\d+(?:[.,]\d+)?)`
const unit = String.raw`\s*(kg|lbs?\/in|lbs?|psi|bar|n\/mm|clicks?|turns?)?\.?`
/** "54-59 kg" and "54 – 59 kg" stand for their middle. */
const row = new RegExp(
  String.raw`^\s*${number}(?:\s*(?:-|–|to)\s*(\d+(?:[.,]\d+)?))?${unit}\s*[\s;,|:\t=]+\s*${number}${unit}\s*$`,
  'i',
)

/**
 * Rows of a maker's chart, typed or pasted: one row per line, weight or pressure first, then the setting. Units may
 * stand in a heading ("weight lb, psi") or behind the numbers; a range stands for its middle.
 *
 * @param fallback units taken where none is written
 * @returns rows in kg or psi and canonical settings (psi, N/mm); clicks as they are counted
 * @throws InputError 'chart.…' naming the row and what is right
 */
export function parseChartTable(
  text: string,
  input: ChartInput,
  output: ChartOutput,
  fallback: { at: string; value: string },
): ChartRow[] {
  const atUnits = input === 'riding-mass-kg' ? massUnits : pressureUnits
  const valueUnits = outputUnits[output]
  const said = { at: '', value: '' }
  const rows: ChartRow[] = []
  text.split(/\r?\n/).forEach((line, i) => {
    if (line.trim() === '') return
    if (rows.length === 0 && !/^\s*[-+]?\d/.test(line)) {
      headingUnits(line, atUnits, valueUnits, said)
      return
    }
    const hit = row.exec(line)
    if (!hit) throw new InputError('chart.row', { row: i + 1, text: line.trim().slice(0, 40) })
    const [, from, to, atUnit, value, valueUnit] = hit
    const at = to === undefined ? decimal(from) : (decimal(from) + decimal(to)) / 2
    const next = {
      at: unitFor(atUnit, said, 'at', atUnits, fallback.at, i + 1)(at),
      value: unitFor(valueUnit, said, 'value', valueUnits, fallback.value, i + 1)(decimal(value)),
    }
    const before = rows[rows.length - 1]
    if (before && next.at <= before.at)
      throw new InputError('chart.order', { row: i + 1, got: from, before: Math.round(before.at * 10) / 10 })
    rows.push(next)
  })
  if (rows.length < 2) throw new InputError('chart.empty')
  return rows
}

const decimal = (s: string) => Number(s.replace(',', '.'))

function headingUnits(
  line: string,
  atUnits: Record<string, unknown>,
  valueUnits: Record<string, unknown>,
  said: { at: string; value: string },
): void {
  const words = line.toLowerCase().match(/[a-z]+(?:\/[a-z]+)?/g) ?? []
  const first = words.findIndex((w) => w in atUnits)
  if (first >= 0) said.at = words[first]
  const second = words.findIndex((w, i) => w in valueUnits && i > first)
  if (second >= 0) said.value = words[second]
}

/** One unit for a whole column: the first that is written holds. */
function unitFor(
  written: string | undefined,
  said: { at: string; value: string },
  column: 'at' | 'value',
  known: Record<string, (x: number) => number>,
  fallback: string,
  rowNumber: number,
): (x: number) => number {
  const got = written?.toLowerCase()
  if (got) {
    if (!(got in known))
      throw new InputError('chart.unit', { row: rowNumber, got, want: Object.keys(known).join(' or ') })
    if (said[column] && known[said[column]] !== known[got])
      throw new InputError('chart.mixed-units', { row: rowNumber, got, before: said[column] })
    said[column] = got
  }
  return known[said[column] || fallback.toLowerCase()] ?? ((x) => x)
}
