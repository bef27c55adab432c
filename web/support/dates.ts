import { localDate } from '#core/units/localDate'

export { localDate }

const day = new Intl.DateTimeFormat('en-GB', {
  weekday: 'short',
  day: 'numeric',
  month: 'short',
  year: 'numeric',
})
const clock = new Intl.DateTimeFormat('en-GB', { hour: '2-digit', minute: '2-digit' })

const shortDay = new Intl.DateTimeFormat('en-GB', { weekday: 'short', day: 'numeric', month: 'short' })
export const shortDayWords = (date: string) => shortDay.format(new Date(`${date}T12:00:00`))
const date = new Intl.DateTimeFormat('en-GB', { day: 'numeric', month: 'short', year: 'numeric' })
export const dateWords = (of: string) => date.format(new Date(`${of}T12:00:00`))
export const dayWords = (date: string) => day.format(new Date(`${date}T12:00:00`))
/** "Sat, Apr 26, 10:05" on this device's clock. */
export const dateTimeWords = (instant: string) =>
  `${shortDay.format(new Date(instant))}, ${clockWords(instant)}`
/** "11:38", as the clock on the wall says it; ISO or ms. */
export const clockWords = (at: string | number) => clock.format(new Date(at))

/** Time zone of this device, by its name: for what is printed elsewhere. */
export const zoneHere = (): string => Intl.DateTimeFormat().resolvedOptions().timeZone

/** Today at this place, YYYY-MM-DD. */
export const localToday = (now = new Date()): string => localDate(now.toISOString())

/** 112 → "1:52"; 112.34 with two digits → "1:52.34". */
export function durationWords(seconds: number, digits = 0): string {
  // Rounded before it is parted, or 119.7 would be "1:60".
  const s = Number(seconds.toFixed(digits))
  const minutes = Math.floor(s / 60)
  const rest = (s - 60 * minutes).toFixed(digits)
  return `${minutes}:${rest.padStart(digits ? digits + 3 : 2, '0')}`
}
