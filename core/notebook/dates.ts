import type { DateOrder } from '../formats/clock.ts'

/** Months by how their names begin, in the tongues of tables that people keep. */
const months: readonly RegExp[] = [
  /^(jan|gen|ene)/,
  /^(feb|fév|fev)/,
  /^(mar|mär|mae|mrz)/,
  /^(apr|avr|abr)/,
  /^(may|mai|mag)/,
  /^(jun|juin|giu)/,
  /^(jul|juil|lug)/,
  /^(aug|aoû|aou|ago)/,
  /^(sep|set)/,
  /^(oct|okt|ott)/,
  /^(nov)/,
  /^(dec|dez|déc|dic)/,
]
const weekday = '(?:\\p{L}{2,10}\\.?,? )?'
const iso = /^(\d{4})[-/.](\d{1,2})[-/.](\d{1,2})(?:[T ].*)?$/
const local = new RegExp(`^${weekday}(\\d{1,2})[./-](\\d{1,2})[./-](\\d{4}|\\d{2})(?: .*)?$`, 'u')
const dayFirst = new RegExp(
  `^${weekday}(\\d{1,2})(?:st|nd|rd|th|er|º|\\.)? (?:de )?(\\p{L}{3,10})\\.?,? (?:de )?(\\d{4}|\\d{2})$`,
  'iu',
)
const monthFirst = new RegExp(`^${weekday}(\\p{L}{3,10})\\.? (\\d{1,2})(?:st|nd|rd|th)?,? (\\d{4})$`, 'iu')

/**
 * In which order the dates of a column stand, by those that can only be read one way.
 * @returns 'unclear' when both orders fit; null when no date asks for it
 */
export function dateOrderOf(cells: readonly string[]): DateOrder | 'unclear' | null {
  const found = cells.map((c) => local.exec(c.trim())).filter((m) => m !== null)
  if (found.length === 0) return null
  const first = found.some((m) => Number(m[1]) > 12)
  const second = found.some((m) => Number(m[2]) > 12)
  if (first !== second) return first ? 'dmy' : 'mdy'
  return found.every((m) => m[1] === m[2]) ? 'dmy' : 'unclear'
}

/** A calendar day out of a cell, YYYY-MM-DD; null when there is none in it: a month alone is no day. */
export function readDate(cell: string, order: DateOrder): string | null {
  const text = cell.trim()
  const i = iso.exec(text)
  if (i) return day(Number(i[1]), Number(i[2]), Number(i[3]))
  const l = local.exec(text)
  if (l) {
    const [d, m] = order === 'dmy' ? [l[1], l[2]] : [l[2], l[1]]
    return day(year(l[3]), Number(m), Number(d))
  }
  const df = dayFirst.exec(text)
  if (df) return day(year(df[3]), monthOf(df[2]), Number(df[1]))
  const mf = monthFirst.exec(text)
  return mf ? day(year(mf[3]), monthOf(mf[1]), Number(mf[2])) : null
}

const year = (y: string) => (y.length === 2 ? 2000 + Number(y) : Number(y))
const monthOf = (name: string) => months.findIndex((m) => m.test(name.toLowerCase())) + 1

function day(y: number, m: number, d: number): string | null {
  const at = new Date(Date.UTC(y, m - 1, d))
  const isReal = at.getUTCFullYear() === y && at.getUTCMonth() === m - 1 && at.getUTCDate() === d
  return isReal ? at.toISOString().slice(0, 10) : null
}
