import type { TentNoteKind, TrackWindow, Whereabouts } from '#contract/tent'
import type { End } from '#contract/common'
import { distanceWords, effectWord, positionNumber, shortName } from '#core/adjusters/words'
import type { Move } from '#core/setup/diff'
import type { LaneChange } from '#core/tent/lane'
import type { Trend } from '#core/tent/trend'
import type { windowAt } from '#core/tent/clock'
import type { UnitChoice } from '#core/units/choice'
import { clockWords } from './dates.ts'

/** Longer than this is told by the clock. */
const mostMinutes = 90

/** "here, 2 min", "out since 11:38", "settled 11:05". */
export function whereWords(where: Whereabouts, sinceMs: number, nowMs: number): string {
  const minutes = Math.max(0, Math.floor((nowMs - sinceMs) / 60_000))
  if (where === 'here')
    return minutes > mostMinutes ? `here since ${clockWords(sinceMs)}` : `here, ${minutes} min`
  return where === 'settled' ? `settled ${clockWords(sinceMs)}` : `${where} since ${clockWords(sinceMs)}`
}

export const noteWords: Record<TentNoteKind, string> = {
  'left-alone': 'Left alone',
  later: 'After the next run',
  plan: 'Planned',
  'no-time': 'No time between runs',
}
export const windowWords: Record<TrackWindow['kind'], string> = {
  practice: 'practice',
  timed: 'timed runs',
  closed: 'track closed',
}

/** "practice ends 12:30, 41 min", "timed runs from 13:30, in 60 min". */
export function scheduleWords(at: ReturnType<typeof windowAt>): { text: string; minutes: string } | null {
  if (!at) return null
  const { window, begun, minutes } = at
  const long = minutes > mostMinutes ? `${Math.floor(minutes / 60)} h ${minutes % 60} min` : `${minutes} min`
  return begun
    ? { text: `${windowWords[window.kind]} ends ${clockWords(Date.parse(window.to))}`, minutes: long }
    : {
        text: `${windowWords[window.kind]} from ${clockWords(Date.parse(window.from))}`,
        minutes: `in ${long}`,
      }
}

/** "rebound slower: 3 riders since 10:30; it is the heat, not the air" and whose names may be told. */
export function trendWords(t: Trend, names: readonly string[]): { text: string; by: string; who: string } {
  const others = t.dayIds.length - names.length
  const who = names.length
    ? `${names.join(', ')}${others > 0 ? ` and ${others} ${others === 1 ? 'other' : 'others'}` : ''}`
    : ''
  const by =
    t.by === 'heat'
      ? 'it is warm oil, not the air in the springs'
      : t.by === 'cold'
        ? 'it is cold oil, not the air in the springs'
        : ''
  const what = t.family === 'spring' ? 'springs' : t.family
  return { text: `${what} ${t.way}: ${t.dayIds.length} riders since ${clockWords(t.sinceMs)}`, by, who }
}

const endWords: Record<End, string> = { front: 'front', rear: 'rear' }
const low = (name: string) => (/^[A-Z]{3}/.test(name) ? name : name.toLowerCase())

/** "LSC 9→8", "spacers 0→1 …" where more was moved with it: what a mark on a lane says where there is room. */
export function changeLabel(c: LaneChange, units: UnitChoice): string {
  if (c.back) return 'back'
  const [m] = c.moves
  const name = m.adjuster.role === 'main-pressure' ? '' : `${low(shortName(m.adjuster))} `
  const more = c.moves.length > 1 ? ' …' : ''
  return m.adjuster.kind === 'pressure'
    ? `${distanceWords(m.adjuster, m.from, m.to, units)} ${effectWord(m.adjuster, m.from, m.to)}${more}`
    : `${name}${positionNumber(m.adjuster, m.from, units)}→${positionNumber(m.adjuster, m.to, units)}${more}`
}

/** "rear rebound 7 → 6, 1 click slower", every move of a change, for who reads or hears it. */
export const changeWords = (c: LaneChange, units: UnitChoice): string =>
  c.moves
    .map(
      (m) =>
        `${endWords[m.end]} ${low(shortName(m.adjuster))} ${positionNumber(m.adjuster, m.from, units)} → ${positionNumber(m.adjuster, m.to, units)}, ${distanceWords(m.adjuster, m.from, m.to, units)} ${effectWord(m.adjuster, m.from, m.to)}`,
    )
    .join('; ')

/** Where a dial stands and how far it is from the start: "rebound", "6", "1 slower". */
export function sinceStartWords(m: Move, units: UnitChoice): { name: string; at: string; by: string } {
  return {
    name: m.adjuster.role === 'main-pressure' ? 'air' : low(shortName(m.adjuster)),
    at: positionNumber(m.adjuster, m.to, units),
    by: `${distanceWords(m.adjuster, m.from, m.to, units).replace(/ (clicks?|spacers?)$/, '')} ${effectWord(m.adjuster, m.from, m.to)}`,
  }
}
