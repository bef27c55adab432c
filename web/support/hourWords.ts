import type { HourLine, TrackChange } from '#contract/hour'
import { say, type UnitChoice } from '#core/units/choice'
import { localToday } from './dates.ts'
import { surfaceWords } from './words.ts'

export const trackWords: Record<TrackChange, string> = {
  rougher: 'rougher',
  smoother: 'smoother',
  drier: 'drier',
  wetter: 'wetter',
  looser: 'looser',
}
/** "27 °C · 640 m · dry, loose · rougher": only what was noted. */
export function hourWords(h: HourLine, units: UnitChoice): string {
  return [
    h.airTempC === null ? '' : say('temperature', h.airTempC, units),
    h.altitudeM === null ? '' : say('altitude', h.altitudeM, units),
    h.surface && surfaceWords[h.surface],
    ...h.track.map((t) => trackWords[t]),
    h.note,
  ]
    .filter(Boolean)
    .join(' · ')
}

/** A line of the log of a date that says nothing yet. Of today it is of now; of another date nobody has said since when. */
export const nothingSaid = (date: string): Omit<HourLine, 'id'> => ({
  at: date === localToday() ? new Date().toISOString() : '',
  airTempC: null,
  altitudeM: null,
  surface: null,
  track: [],
  note: '',
})
