import type { Bench } from '#contract/bench'
import { localDate } from '../units/localDate.ts'

/** Air of the bench, °C, m above the sea, and where. */
export type BenchAir = Pick<Bench, 'airTempC' | 'altitudeM' | 'place'>
const airParts = ['airTempC', 'altitudeM', 'place'] as const

/**
 * Air and place of the bench on the day of an instant. What was said on another day is not that day's: a bench stays open
 * over night, and a new one begins with the place of the last.
 *
 * @returns nothing where nobody has said it that day
 */
export const airOn = (bench: Bench, at: string): BenchAir => airOfDay(bench, localDate(at))

/**
 * The same on a day on the calendar. Each stands by its own word: who types the warmth of today has not said that the place
 * of last week holds.
 * @param date YYYY-MM-DD
 */
export function airOfDay(bench: Bench, date: string): BenchAir {
  const holds = (what: keyof BenchAir) => localDate(airSaidAt(bench, what)) === date
  return {
    airTempC: holds('airTempC') ? bench.airTempC : null,
    altitudeM: holds('altitudeM') ? bench.altitudeM : null,
    place: holds('place') ? bench.place : '',
  }
}

/** When it was said; a bench kept before that was written down said all at its beginning. */
export const airSaidAt = (bench: Bench, what: keyof BenchAir): string =>
  bench.airSaidEach?.[what] ?? bench.airSaidAt ?? bench.startedAt

/**
 * What changes on a bench where somebody says air, altitude or place.
 * @param said what was said; nothing = what stands there holds
 * @param at now, ISO 8601
 */
export function sayingAir(
  bench: Bench,
  said: Partial<BenchAir>,
  at: string,
): Partial<Pick<Bench, keyof BenchAir | 'airSaidAt' | 'airSaidEach'>> {
  const left = airParts.filter((what) => !(what in said))
  if (left.length === 0 || left.length === airParts.length)
    return { ...said, airSaidAt: at, airSaidEach: null }
  const each = (what: keyof BenchAir) => (what in said ? at : airSaidAt(bench, what))
  return {
    ...said,
    airSaidEach: { airTempC: each('airTempC'), altitudeM: each('altitudeM'), place: each('place') },
  }
}

/** What the bench holds of air and place from another day than that of an instant, and when it was said. */
export function oldAir(bench: Bench, at: string): { what: keyof BenchAir; saidAt: string }[] {
  return airParts.flatMap((what) => {
    const saidAt = airSaidAt(bench, what)
    const said = bench[what] !== null && bench[what] !== ''
    return said && localDate(saidAt) !== localDate(at) ? [{ what, saidAt }] : []
  })
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
