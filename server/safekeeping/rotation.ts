/** Why a safe copy was made; only daily ones are ever taken away by themselves, and all but the last ones of a change. */
export const reasons = ['daily', 'by-hand', 'before-update', 'before-restore'] as const
export type Reason = (typeof reasons)[number]

export interface Dated {
  name: string
  /** UTC, ISO 8601. */
  at: string
  why: Reason
}

const spans = { days: 7, weeks: 4, months: 12 } as const
/** Of the copies made before a change of the whole file. */
const mostBefore = 3

/**
 * Which copies may go: of daily ones the newest of each of the last 7 days, 4 weeks and 12 months that have one stay.
 * Days without a copy do not count, so that a season's rest takes nothing away. By hand: never. What a clock that went
 * wrong dated into the future stays, and is none of those days.
 * @param now UTC, ISO 8601
 */
export function mayGo(copies: readonly Dated[], now: string): Dated[] {
  const newestFirst = copies.filter((c) => c.at <= now).sort((a, b) => b.at.localeCompare(a.at))
  const daily = newestFirst.filter((c) => c.why === 'daily')
  const stay = new Set<Dated>([
    ...newestOfEach(daily, (c) => c.at.slice(0, 10), spans.days),
    ...newestOfEach(daily, (c) => weekOf(c.at), spans.weeks),
    ...newestOfEach(daily, (c) => c.at.slice(0, 7), spans.months),
    ...newestFirst.filter((c) => c.why === 'by-hand'),
    ...newestFirst.filter((c) => c.why === 'before-update').slice(0, mostBefore),
    ...newestFirst.filter((c) => c.why === 'before-restore').slice(0, mostBefore),
  ])
  return newestFirst.filter((c) => !stay.has(c))
}

function newestOfEach(newestFirst: readonly Dated[], span: (c: Dated) => string, most: number): Dated[] {
  const found = new Map<string, Dated>()
  for (const c of newestFirst) if (!found.has(span(c)) && found.size < most) found.set(span(c), c)
  return [...found.values()]
}

/** Monday that a week begins with, UTC. */
function weekOf(at: string): string {
  const day = new Date(`${at.slice(0, 10)}T00:00:00Z`)
  day.setUTCDate(day.getUTCDate() - ((day.getUTCDay() + 6) % 7))
  return day.toISOString().slice(0, 10)
}
