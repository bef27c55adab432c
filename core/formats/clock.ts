/**
 * Seconds from a clock or ISO date cell: "12:03:04.250", "2031-05-02T12:03:04.250Z", "4:05.5" (minutes:seconds).
 * and local dates "31/05/2031 12:03:04 PM" where their order is known. Dates count from 1970 by the civil-days formula (Hinnant); zones are ignored, only differences matter.
 * @returns NaN when it is neither
 */
export function clockSeconds(cell: string, order: DateOrder | null = null): number {
  const text = cell.trim().replace(/^"|"$/g, '').replace(',', '.')
  const local = localDate.exec(text)
  if (local) return order ? localSeconds(local, order) : NaN
  const date = /^(\d{4})-(\d\d)-(\d\d)[T ](.*?)(Z|[+-]\d\d:?\d\d)?$/.exec(text)
  const time = /^(\d{1,2}):(\d\d)(?::(\d\d(?:\.\d+)?))?(\.\d+)?$/.exec(date ? date[4] : text)
  if (!time) return NaN
  const [, a, b, c, fraction] = time
  const ofDay =
    c !== undefined
      ? +a * 3600 + +b * 60 + +c
      : date
        ? +a * 3600 + +b * 60
        : +a * 60 + +b + Number(fraction ?? 0)
  return date ? civilDays(+date[1], +date[2], +date[3]) * 86400 + ofDay : ofDay
}

/** Whether a date begins with the day or the month. */
export type DateOrder = 'dmy' | 'mdy'

const localDate =
  /^(\d{1,2})[./-](\d{1,2})[./-](\d{4}|\d{2})[T ]+(\d{1,2}:\d\d(?::\d\d(?:\.\d+)?)?)\s*([ap]m)?$/i

function localSeconds([, first, second, y, time, half]: RegExpExecArray, order: DateOrder): number {
  const [d, m] = order === 'dmy' ? [+first, +second] : [+second, +first]
  if (m < 1 || m > 12 || d < 1 || d > 31) return NaN
  const [h, min, s = '0'] = time.split(':')
  const hours = half ? (+h % 12) + (/p/i.test(half) ? 12 : 0) : +h
  return civilDays(y.length === 2 ? 2000 + +y : +y, m, d) * 86400 + hours * 3600 + +min * 60 + +s
}

/**
 * In which order local dates stand, by those that can only be read one way, else by what changes within a ride.
 * @returns 'unclear' when both orders fit; null when there are no local dates
 */
export function dateOrderOf(cells: readonly string[]): DateOrder | 'unclear' | null {
  const found = cells
    .map((c) => localDate.exec(c.trim().replace(/^"|"$/g, '').replace(',', '.')))
    .filter((m) => m !== null)
  if (found.length === 0) return null
  if (found.some((m) => +m[1] > 12)) return 'dmy'
  if (found.some((m) => +m[2] > 12)) return 'mdy'
  // The same number twice is the same date either way.
  return found.every((m) => +m[1] === +m[2]) ? 'dmy' : 'unclear'
}

function civilDays(y: number, m: number, d: number): number {
  const year = m <= 2 ? y - 1 : y
  const era = Math.floor(year / 400)
  const yoe = year - era * 400
  const doy = Math.floor((153 * (m + (m > 2 ? -3 : 9)) + 2) / 5) + d - 1
  const doe = yoe * 365 + Math.floor(yoe / 4) - Math.floor(yoe / 100) + doy
  return era * 146097 + doe - 719468
}
