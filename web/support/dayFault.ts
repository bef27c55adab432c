import { dateWords, localToday } from './dates.ts'

const firstYear = 1980
const dayMs = 86_400_000

/**
 * Why a day that was typed is most likely a slip of the year or the month; null: it is a day like any other, or none at all.
 * A day of another year would stand behind, or in front of, all that is done from then on.
 *
 * @param day   YYYY-MM-DD
 * @param ahead so many days it may lie ahead: none, where only what was done is told
 */
export function dayFault(day: string, { ahead = 0, today = localToday() } = {}): string | null {
  const days = (Date.parse(day) - Date.parse(today)) / dayMs
  if (Number.isNaN(days)) return null
  if (Number(day.slice(0, 4)) < firstYear)
    return `The year ${Number(day.slice(0, 4))} is most likely a slip; check it.`
  if (days <= ahead) return null
  if (ahead === 0) return 'That day has not come yet.'
  const far = days < 730 ? `${days} days` : `${Math.round(days / 365.25)} years`
  return `${dateWords(day)} is ${far} ahead; check month and year.`
}

/** The same beside the field of a form. */
export function dayFaultAt(path: string, ...of: Parameters<typeof dayFault>) {
  const message = dayFault(...of)
  return message === null ? null : { path, message }
}
