/**
 * Seconds from a clock or ISO date cell: "12:03:04.250", "2031-05-02T12:03:04.250Z", "4:05.5" (minutes:seconds).
 * Dates count from 1970 by the civil-days formula (Hinnant); zones are ignored, only differences matter.
 * @returns NaN when it is neither
 */
export function clockSeconds(cell: string): number {
  const text = cell.trim().replace(/^"|"$/g, '').replace(',', '.')
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

function civilDays(y: number, m: number, d: number): number {
  const year = m <= 2 ? y - 1 : y
  const era = Math.floor(year / 400)
  const yoe = year - era * 400
  const doy = Math.floor((153 * (m + (m > 2 ? -3 : 9)) + 2) / 5) + d - 1
  const doe = yoe * 365 + Math.floor(yoe / 4) - Math.floor(yoe / 100) + doy
  return era * 146097 + doe - 719468
}
