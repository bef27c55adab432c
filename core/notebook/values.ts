import type { Adjuster, CountBase } from '#contract/adjuster'
import { adjusterRange, canStandAt, clampToRange } from '../adjusters/range.ts'
import { adjusterName, positionWords } from '../adjusters/words.ts'
import { barToPsi, lbInToNPerMm } from '../units/convert.ts'
import { baseOf } from './base.ts'
import type { ColumnUse } from './column.ts'

/** Of a cell: a canonical position, nothing, or why it is none. */
export type ReadValue = { value: number } | { fault: string } | null

const nothing = /^\s*(|[-–—?]+|n\/?a|none noted|unknown|not read|\.)\s*$/i
const number = /^\s*([-+]?\d+(?:[.,]\d+)?)\s*(.*)$/
const pressures: Record<string, (x: number) => number> = {
  psi: (x) => x,
  bar: barToPsi,
  kpa: (x) => barToPsi(x / 100),
}
const rates: Record<string, (x: number) => number> = {
  'n/mm': (x) => x,
  'lb/in': lbInToNPerMm,
  lbs: lbInToNPerMm,
}

/**
 * A position out of a cell of somebody's own table: "8", "8 clicks out", "5,4 bar", "2 spacers", "firm".
 * @returns canonical position (contract/adjuster.ts); null where nobody noted one
 */
export function readValue(cell: string, a: Adjuster, column: ColumnUse & { use: 'dial' }): ReadValue {
  if (nothing.test(cell)) return null
  if (a.kind === 'lever') {
    const at = a.positions.findIndex((p) => p.toLowerCase() === cell.trim().toLowerCase())
    return at >= 0 ? { value: at } : { fault: `“${cell.trim()}” is none of ${a.positions.join(', ')}.` }
  }
  const found = number.exec(cell)
  if (!found) return { fault: `“${cell.trim().slice(0, 30)}” is no number.` }
  const [n, behind] = [Number(found[1].replace(',', '.')), found[2].trim().toLowerCase()]
  const value = canonical(n, behind, a, column)
  // A spring of 79.99 N/mm, worked out from lb/in, is the one of 80.
  const near = a.kind === 'spring-rate' ? clampToRange(a, value) : value
  const at = a.kind === 'spring-rate' && Math.abs(near - value) / near < 0.01 ? near : value
  if (canStandAt(a, at)) return { value: at }
  const r = adjusterRange(a)
  return {
    fault: `${column.end === 'front' ? 'Front' : 'Rear'} ${adjusterName(a).toLowerCase()} goes from ${positionWords(a, r.min)} to ${positionWords(a, r.max)}; “${cell.trim().slice(0, 30)}” is no place it can stand.`,
  }
}

function canonical(n: number, behind: string, a: Adjuster, column: ColumnUse & { use: 'dial' }): number {
  switch (a.kind) {
    case 'click':
    case 'turn':
      return fromBase(n, baseOf(behind) ?? column.base, adjusterRange(a).max)
    case 'pressure':
      return (pressures[behind] ?? pressures[column.pressure.toLowerCase()])(n)
    case 'spring-rate':
      return (rates[behind] ?? rates[column.rate.toLowerCase()])(n)
    default:
      return n
  }
}

const fromBase = (n: number, base: CountBase, max: number) =>
  base === 'open' ? max - n : base === 'closed-1' ? n - 1 : n
