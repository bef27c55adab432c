import type { DayBundle, DaySummary } from '#contract/endpoints'
import { conditionsOf } from '#core/conditions/ofDay'
import { say, type UnitChoice } from '#core/units/choice'
import { shortDayWords } from './dates.ts'
import { surfaceWords } from './words.ts'

/** When and where a day is, and under which conditions; a number stays with its unit. */
export function conditionWords(b: DayBundle, units: UnitChoice): string {
  const { day, trail } = b
  const c = day.conditions
  const last = conditionsOf(b)
  const since = (now: string | null, was: string | null) =>
    now === was || now === null ? was : was === null ? now : `${was}, then ${now}`
  const temp = (t: number | null) => (t === null ? null : say('temperature', t, units))
  return [
    shortDayWords(day.date),
    trail.name,
    since(temp(last.airTempC), temp(c.airTempC)),
    since(last.surface && surfaceWords[last.surface], c.surface && surfaceWords[c.surface]),
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
