const msPerDay = 86_400_000

/**
 * Days from 1970-01-01 to a calendar day, by the platform's own UTC calendar; no clock, no time zone.
 *
 * @param day YYYY-MM-DD, anything after is ignored
 */
export function dayNumber(day: string): number {
  const [year, month, date] = day.slice(0, 10).split('-').map(Number)
  return Math.round(Date.UTC(year, month - 1, date) / msPerDay)
}
