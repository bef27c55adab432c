import type { Adjuster, CountBase } from '#contract/adjuster'
import { adjusterRange, canStandAt, clampToRange } from '../adjusters/range.ts'
import { adjusterName, positionWords } from '../adjusters/words.ts'
import { barToPsi, lbInToNPerMm } from '../units/convert.ts'
import { baseOf } from './base.ts'
import type { ColumnUse, RateUnit } from './column.ts'

/** Of a cell: a canonical position, nothing, or why it is none. */
export type ReadValue = { value: number } | { fault: string } | null

const nothing = /^\s*(|[-–—?]+|n\/?a|none noted|unknown|not read|\.)\s*$/i
const number = /^(\d+(?:[.,]\d+)?)\s*(.*)$/
const fractions: Record<string, number> = { '½': 1 / 2, '¼': 1 / 4, '¾': 3 / 4, '⅓': 1 / 3, '⅔': 2 / 3 }
const step =
  /^[-+−–]\s*\d|\b(slower|faster|quicker|firmer|stiffer|harder|softer|more|less|fewer|up|down|added|removed)\b/i
const atClosed = /^((fully|full|all the way|all) )?(closed|shut)$|^(fully|full|all the way|all) in$/i
const atOpen = /^((fully|full|all the way|all) )?open$|^(fully|full|all the way|all) out$/i
/** "8/14", "8 clicks of 14", "8 out of 14": how many there are. */
const ofHowMany = /^(?:clicks?|turns?)?\s*(?:\/|(?:out )?of)\s*(\d+(?:[.,]\d+)?)\s*(?:clicks?|turns?)?(.*)$/i
const pressureUnit = /^(psi|bar|kpa)\b\s*/i
/** At which temperature a pressure was noted. */
const atTemperature = /@\s*-?\d+(?:[.,]\d+)?\s*(?:°?\s*[cf]\b|°|deg\b)?/i
const rateUnit = /^(n\s*\/\s*mm|lbs?\s*\/\s*in|lbs?|#)\s*/i
/** The stroke that a spring is made for stands beside its rate: "450x2.5". */
const forStroke = /^[x×*]\s*\d+(?:[.,]\d+)?/i

const pressures: Record<string, (x: number) => number> = {
  psi: (x) => x,
  bar: barToPsi,
  kpa: (x) => barToPsi(x / 100),
}
const rates: Record<RateUnit, (x: number) => number> = { 'N/mm': (x) => x, 'lb/in': lbInToNPerMm }

/**
 * A position out of a cell of somebody's own table: "8", "8 clicks out", "8/14", "1 1/2", "5,4 bar", "2 spacers", "firm".
 * A step ("+2") and two numbers ("8-9") are none.
 * @returns canonical position (contract/adjuster.ts); null where nobody noted one
 */
export function readValue(cell: string, a: Adjuster, column: ColumnUse & { use: 'dial' }): ReadValue {
  const text = cell.trim()
  const shown = `“${text.slice(0, 30)}”`
  if (nothing.test(text)) return null
  if (a.kind === 'lever') {
    const at = a.positions.findIndex((p) => p.toLowerCase() === text.toLowerCase())
    return at >= 0 ? { value: at } : { fault: `${shown} is none of ${a.positions.join(', ')}.` }
  }
  if (a.kind === 'click' || a.kind === 'turn') {
    if (atClosed.test(text)) return { value: 0 }
    if (atOpen.test(text)) return { value: adjusterRange(a).max }
  }
  if (a.kind === 'spacer' && /^(none|no|no spacers)$/i.test(text)) return { value: 0 }
  if (step.test(text)) return { fault: `${shown} is a step; a row has to say where it stood.` }
  const found = amountOf(text, a)
  if (!found) return { fault: `${shown} is no number.` }
  const read = withUnit(found, a, column)
  if ('outOf' in read) return { fault: `${shown} counts ${read.outOf}; this dial has ${read.has}.` }
  if (/\d/.test(read.behind)) return { fault: `${shown} has two numbers; a row has to say which it was.` }
  // A spring of 79.99 N/mm, worked out from lb/in, is the one of 80.
  const near = a.kind === 'spring-rate' ? clampToRange(a, read.value) : read.value
  const at = a.kind === 'spring-rate' && Math.abs(near - read.value) / near < 0.01 ? near : read.value
  if (canStandAt(a, at)) return { value: at }
  const r = adjusterRange(a)
  return {
    fault: `${column.end === 'front' ? 'Front' : 'Rear'} ${adjusterName(a).toLowerCase()} goes from ${positionWords(a, r.min)} to ${positionWords(a, r.max)}; ${shown} is no place it can stand.`,
  }
}

interface Amount {
  n: number
  /** What stands behind it. */
  behind: string
}

/** The number that a cell begins with; of turns also "1/2", "1 1/2", "1½". */
function amountOf(text: string, a: Adjuster): Amount | null {
  if (a.kind === 'turn') {
    const half = /^(?:(\d+)\s+)?(\d)\/([2348])(?!\d)\s*(.*)$/.exec(text)
    if (half) return { n: Number(half[1] ?? 0) + Number(half[2]) / Number(half[3]), behind: half[4] }
    const sign = /^(\d+)?\s*([½¼¾⅓⅔])\s*(.*)$/.exec(text)
    if (sign) return { n: Number(sign[1] ?? 0) + fractions[sign[2]], behind: sign[3] }
  }
  const found = number.exec(text)
  return found && { n: Number(found[1].replace(',', '.')), behind: found[2] }
}

/** The amount as a canonical position, and what stands behind it and its unit; or of how many it is said to be. */
function withUnit(
  { n, behind }: Amount,
  a: Adjuster,
  column: ColumnUse & { use: 'dial' },
): { value: number; behind: string } | { outOf: string; has: string } {
  switch (a.kind) {
    case 'click':
    case 'turn': {
      const { max } = adjusterRange(a)
      const of = ofHowMany.exec(behind)
      const unit = a.kind === 'click' ? 'clicks' : 'turns'
      if (of && Number(of[1].replace(',', '.')) !== max) return { outOf: `${of[1]} ${unit}`, has: `${max}` }
      const rest = of ? of[2] : behind
      return { value: fromBase(n, baseOf(rest) ?? column.base, max), behind: rest }
    }
    case 'pressure': {
      const unit = pressureUnit.exec(behind)?.[1] ?? column.pressure
      return {
        value: pressures[unit.toLowerCase()](n),
        behind: behind.replace(pressureUnit, '').replace(atTemperature, ''),
      }
    }
    case 'spring-rate': {
      const said = rateUnit.exec(behind)?.[1]
      const unit = said === undefined ? column.rate : /^n/i.test(said) ? 'N/mm' : 'lb/in'
      return { value: rates[unit](n), behind: behind.replace(rateUnit, '').replace(forStroke, '') }
    }
    default:
      return { value: n, behind }
  }
}

const fromBase = (n: number, base: CountBase, max: number) =>
  base === 'open' ? max - n : base === 'closed-1' ? n - 1 : n
