import { nameOf } from './encoding.ts'
import { unitOf } from './unitNames.ts'

/** A number with what people and spreadsheets put around it. */
export interface LooseNumber {
  value: number
  /** What stands behind it, '' without anything. */
  unit: string
  /** Marks in it were taken for grouped thousands. */
  grouped: boolean
}

/**
 * A number with a unit behind it ("12.3 mm") or with grouped thousands ("1,234.5", "1'234", "1 234"). Groups are of three
 * digits and never begin with 0, so a decimal part is not taken for one. What stands behind must be a unit: "3 flags" is
 * no number.
 *
 * @param decimal '.' or ','; the other of the two may group thousands
 * @returns null when it is none
 */
export function looseNumber(cell: string, decimal: string): LooseNumber | null {
  // A thin space between thousands comes as three letters from a file that is read byte by byte.
  const text = nameOf(cell)
    .trim()
    .replace(/^"|"$/g, '')
    .replace(/[\u00a0\u202f\u2009]/g, ' ')
    .trim()
  const parts = /^([-+−]?)(\d[\d.,' ]*|[.,]\d+)(e[-+]?\d+)?\s*([^\d\s.,'+-][^\d]*?\d?)?$/i.exec(text)
  if (!parts) return null
  const [, sign, digits, exponent = '', unit = ''] = parts
  const number = digits.trim()
  const [whole, fraction, more] = number.split(decimal)
  if (more !== undefined) return null
  const grouped = /^[1-9]\d{0,2}([.,' ])\d{3}(?:\1\d{3})*$/.test(whole)
  if (!grouped && !/^\d*$/.test(whole)) return null
  if (fraction !== undefined && !/^\d*$/.test(fraction)) return null
  const plain = `${whole.replace(/[.,' ]/g, '')}${fraction === undefined ? '' : `.${fraction}`}${exponent}`
  const value = Number(plain)
  if (plain === '' || plain === '.' || !Number.isFinite(value)) return null
  const named = nameOf(unit.trim())
  if (named !== '' && unitOf(named) === null) return null
  return { value: sign === '-' || sign === '−' ? -value : value, unit: named, grouped }
}
