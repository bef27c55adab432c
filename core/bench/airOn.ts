import type { Bench } from '#contract/bench'
import { localDate } from '../units/localDate.ts'

/** Air of the bench, °C, m above the sea, and where. */
export type BenchAir = Pick<Bench, 'airTempC' | 'altitudeM' | 'place'>

/**
 * Air and place of the bench on the day of an instant. What was said on another day is not that day's: a bench stays open
 * over night, and a new one begins with the place of the last.
 *
 * @returns nothing where nobody has said it that day
 */
export const airOn = (bench: Bench, at: string): BenchAir => airOfDay(bench, localDate(at))

/**
 * The same on a day on the calendar.
 * @param date YYYY-MM-DD
 */
export function airOfDay(bench: Bench, date: string): BenchAir {
  return localDate(airSaidAt(bench)) === date
    ? { airTempC: bench.airTempC, altitudeM: bench.altitudeM, place: bench.place }
    : { airTempC: null, altitudeM: null, place: '' }
}

/** When air and place were said; a bench kept before that was written down said them at its beginning. */
export const airSaidAt = (bench: Bench): string => bench.airSaidAt ?? bench.startedAt

/** Whether the bench holds air or place from another day than that of an instant. */
export function hasOldAir(bench: Bench, at: string): boolean {
  const said = bench.airTempC !== null || bench.altitudeM !== null || bench.place !== ''
  return said && localDate(airSaidAt(bench)) !== localDate(at)
}

/** When something was last set or read on this bench, sag too; null = nothing since it began. */
export function lastHandAt(bench: Bench): string | null {
  const hands = bench.positions.flatMap((p) =>
    (p.known.how === 'set' || p.known.how === 'read') && p.known.at !== null && p.known.at >= bench.startedAt
      ? [p.known.at]
      : [],
  )
  const sags = bench.readings.flatMap((r) => (r.leftOut ? [] : [r.at]))
  return [...hands, ...sags].reduce<string | null>((a, b) => (a === null || b > a ? b : a), null)
}
