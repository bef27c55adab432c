/**
 * Date of an instant where this runs, YYYY-MM-DD: what was set in the evening was set that day, whatever day it was in
 * Greenwich.
 *
 * @param instant ISO 8601
 */
export function localDate(instant: string): string {
  const at = new Date(instant)
  const two = (n: number) => String(n).padStart(2, '0')
  return `${at.getFullYear()}-${two(at.getMonth() + 1)}-${two(at.getDate())}`
}
