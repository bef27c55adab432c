import type { DayBundle, DaySummary } from '#contract/endpoints'
import { say, type UnitChoice } from '#core/units/choice'
import { shortDayWords } from './dates.ts'
import { surfaceWords } from './words.ts'

/** When and where a day is, and under which conditions; a number stays with its unit. */
export function conditionWords({ day, trail }: DayBundle, units: UnitChoice): string {
  const c = day.conditions
  return [
    shortDayWords(day.date),
    trail.name,
    c.airTempC === null ? null : say('temperature', c.airTempC, units),
    surfaceWords[c.surface],
    c.altitudeM === null ? null : say('altitude', c.altitudeM, units),
    day.purpose === 'race' ? 'race day' : null,
    day.blind ? 'judged blind' : null,
  ]
    .filter(Boolean)
    .join(' · ')
    .replace(/(\d) /g, '$1\u00a0')
}

/** "3 counted of 5 runs". */
export const runsWords = (d: DaySummary): string =>
  d.runs === 0 ? 'no run yet' : `${d.countedRuns} counted of ${d.runs} ${d.runs === 1 ? 'run' : 'runs'}`

/** "last 6.5, best 7", in as few words as hold it. */
export const ratingWords = (d: DaySummary): string =>
  d.bestRating === null
    ? 'not rated yet'
    : d.lastRating === d.bestRating
      ? `rated ${d.bestRating}, the best yet`
      : `last ${d.lastRating}, best ${d.bestRating}`
