import type { Adjuster } from '#contract/adjuster'
import type { End } from '#contract/common'
import type { DayBundle } from '#contract/endpoints'
import type { Position } from '#contract/setup'
import { adjusterRange } from '../adjusters/range.ts'
import { InputError } from '../errors.ts'
import { fromChosen, type UnitChoice } from '../units/choice.ts'

/** A part as it is gone through before the first run. */
export interface CheckedPart {
  end: End
  adjuster: Adjuster
  /** As it is kept; null: nobody has read it. */
  stored: Position | null
  /** Where it stood at the end of the last day before; null: not known there. */
  last: number | null
  /** Somebody has read it in the hours before the first run. */
  lookedAt: boolean
}

/** One bike before its first run. */
export interface MorningCheck {
  parts: CheckedPart[]
  /** Where and when it was ridden last; null: not in this book. */
  lastPlace: { name: string; date: string; settled: boolean } | null
  /** A run is logged: the check is over, and what is read now is a reading of the day. */
  ridden: boolean
}

/** Longer ago is another day’s check. */
const freshMs = 12 * 60 * 60_000

/** The settings at the end of a day: the last that is its own, else those it began with. */
const endOf = (b: DayBundle) =>
  b.setups.findLast((s) => s.dayId === b.day.id && !s.wanted) ??
  b.setups.find((s) => s.id === b.day.startSetupId) ??
  null

/**
 * A bike part by part: as it is kept, as it stood at the last place, and what was looked at today.
 * @param earlier days of the same rider and bike before, newest first
 * @param nowMs   the present, for a day without a run
 */
export function morningCheck(b: DayBundle, earlier: readonly DayBundle[], nowMs: number): MorningCheck {
  const now = endOf(b)
  const before = earlier.at(0) ?? null
  const then = before && endOf(before)
  const firstRun = b.runs.at(0)?.startedAt ?? null
  const untilMs = firstRun === null ? nowMs : Date.parse(firstRun)
  const unturned = b.setups.filter((s) => !s.wanted && Date.parse(s.madeAt) <= untilMs)
  const before1st = (id: string) =>
    (
      unturned.findLast((s) => s.dayId === b.day.id) ?? b.setups.find((s) => s.id === b.day.startSetupId)
    )?.positions.find((p) => p.adjusterId === id)
  const isFresh = (p: Position | undefined) =>
    p?.known.how === 'read' &&
    p.known.at !== null &&
    Date.parse(p.known.at) >= untilMs - freshMs &&
    Date.parse(p.known.at) <= untilMs
  return {
    parts: b.units.flatMap((u) =>
      u.adjusters.map((adjuster): CheckedPart => {
        const stored = now?.positions.find((p) => p.adjusterId === adjuster.id) ?? null
        return {
          end: u.end,
          adjuster,
          stored,
          last: then?.positions.find((p) => p.adjusterId === adjuster.id)?.value ?? null,
          lookedAt: isFresh(before1st(adjuster.id)),
        }
      }),
    ),
    lastPlace: before && {
      name: before.trail.name,
      date: before.day.date,
      settled: before.day.settledSetupId !== null,
    },
    ridden: firstRun !== null,
  }
}

/** A pressure on the round with the gauge. */
export interface GaugePlace {
  dayId: string
  adjuster: Adjuster
}

/** No gauge in psi shows hundredths: "87,89" are two of them, "5,62" bar is one. */
const between = { psi: /[\s;/]+|,(?=\s|$)|,(?=\d{2,})/, bar: /[\s;/]+|,(?=\s|$)/ } as const

/**
 * Pressures as a hand reads them out, one after the other: "87 89 84". A dash passes one by: it stays as it was.
 *
 * @param places in the order they are read
 * @param units  what the gauge shows
 * @returns psi for each place, null where it was passed by or not come to
 * @throws InputError 'pressures.not-numbers', 'pressures.too-many', 'pressures.out-of-range'
 */
export function parsePressures(
  text: string,
  places: readonly GaugePlace[],
  units: UnitChoice,
): (number | null)[] {
  const words = text
    .replace(new RegExp(`\\b${units.pressure}\\b|(?<=\\d)${units.pressure}\\b`, 'gi'), ' ')
    .trim()
    .split(between[units.pressure])
    .filter(Boolean)
  if (words.length > places.length)
    throw new InputError('pressures.too-many', { got: words.length, max: places.length })
  return places.map(({ adjuster }, i) => {
    const word = words.at(i)
    if (word === undefined || /^[-–—]$/.test(word)) return null
    if (!/^\d+(?:[.,]\d+)?$/.test(word)) throw new InputError('pressures.not-numbers', { got: word })
    const psi = fromChosen('pressure', Number(word.replace(',', '.')), units)
    const { min, max } = adjusterRange(adjuster)
    if (psi < min - 1e-6 || psi > max + 1e-6)
      throw new InputError('pressures.out-of-range', { got: word, place: i + 1 })
    return psi
  })
}
