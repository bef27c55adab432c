/**
 * Days from 1970-01-01 to a calendar day, proleptic Gregorian, without a clock or time zone.
 * Source: the well-known days-from-civil algorithm (eras of 400 years, years beginning in March).
 *
 * @param day YYYY-MM-DD, anything after is ignored
 */
export function dayNumber(day: string): number {
  const [year, month, date] = day.slice(0, 10).split('-').map(Number)
  const y = month <= 2 ? year - 1 : year
  const era = Math.floor(y / 400)
  const yearOfEra = y - era * 400
  const dayOfYear = Math.floor((153 * (month + (month > 2 ? -3 : 9)) + 2) / 5) + date - 1
  const dayOfEra = yearOfEra * 365 + Math.floor(yearOfEra / 4) - Math.floor(yearOfEra / 100) + dayOfYear
  return era * 146097 + dayOfEra - 719468
}
