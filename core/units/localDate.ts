/**
 * Date of an instant where this runs, YYYY-MM-DD: what was set in the evening was set that day, whatever day it was in
 * Greenwich.
 *
 * @param instant ISO 8601
 * @param zone of another place, by its name in the time zone database; a server does not stand where somebody rides
 */
export function localDate(instant: string, zone?: string): string {
  const at = new Date(instant)
  // Canada writes the year first.
  if (zone !== undefined) return new Intl.DateTimeFormat('en-CA', { timeZone: zone }).format(at)
  const two = (n: number) => String(n).padStart(2, '0')
  return `${at.getFullYear()}-${two(at.getMonth() + 1)}-${two(at.getDate())}`
}
