import type { DaySummary } from '#contract/endpoints'

export interface DayFilter {
  /** Every word of it somewhere in rider, bike, trail or date. */
  text: string
  state: 'all' | 'settled' | 'open'
}

/** Days that fit a filter, newest first. */
export function fitting(days: readonly DaySummary[], filter: DayFilter): DaySummary[] {
  const words = filter.text.toLowerCase().split(/\s+/).filter(Boolean)
  return days
    .filter((d) => filter.state === 'all' || d.settled === (filter.state === 'settled'))
    .filter((d) => {
      const about =
        `${d.riderName} ${d.bikeName} ${d.trailName} ${d.date} ${monthWords(d.date)}`.toLowerCase()
      return words.every((w) => about.includes(w))
    })
    .sort((a, b) => b.date.localeCompare(a.date))
}

const month = new Intl.DateTimeFormat('en-GB', { month: 'long', year: 'numeric' })
export const monthWords = (date: string): string => month.format(new Date(`${date.slice(0, 7)}-15T12:00:00`))

/** In months, newest first; the days of a month in their order. */
export function byMonth(days: readonly DaySummary[]): { month: string; days: DaySummary[] }[] {
  const out: { month: string; days: DaySummary[] }[] = []
  for (const d of days) {
    const name = monthWords(d.date)
    if (out.at(-1)?.month !== name) out.push({ month: name, days: [] })
    out.at(-1)!.days.push(d)
  }
  return out
}
