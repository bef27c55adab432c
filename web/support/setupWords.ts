import type { RiddenOn } from '#contract/bikeSetups'
import type { Purpose } from '#contract/kept'
import type { Setup } from '#contract/setup'
import type { SuspensionUnit } from '#contract/unit'
import { distanceWords, effectWord, shortName } from '#core/adjusters/words'
import type { KnownPlace, PlaceState } from '#core/lineage/facts'
import { diffSetups } from '#core/setup/diff'
import { say, type UnitChoice } from '#core/units/choice'
import { dateWords, dayWords, localDate } from './dates.ts'
import { surfaceWords } from './words.ts'

export const keptForWords: Record<Purpose, string> = {
  flow: 'flow',
  rough: 'rough',
  wet: 'wet',
  jump: 'jumps',
  climb: 'climbing',
  race: 'race',
  winter: 'winter',
  tour: 'tour',
}
export const stateWords: Record<PlaceState, string> = {
  wanted: 'wanted, not turned yet',
  noted: 'noted before',
  stood: 'not ridden',
  ridden: 'ridden',
  settled: 'settled',
}

/** What a person calls it: its own name, else where it was ridden last, else why it was made. */
export function titleOf(p: KnownPlace): string {
  const ride = p.rides[0] as RiddenOn | undefined
  return p.name ?? ride?.trailName ?? (p.setup.reason.text.split('\n')[0].slice(0, 60) || 'Unnamed')
}

const joined = (parts: readonly (string | null | false | undefined)[]) => parts.filter(Boolean).join(' · ')

/** When it was made, where nothing was ridden. */
export const madeWords = (s: Setup) => dateWords(localDate(s.madeAt))

/** "4 Oct 2025 · 8 °C · wet", where room is short. */
export const shortRideWords = (r: RiddenOn, units: UnitChoice): string =>
  joined([
    dateWords(r.date),
    r.conditions.airTempC !== null && say('temperature', r.conditions.airTempC, units).replace(' ', '\u00a0'),
    r.conditions.surface && surfaceWords[r.conditions.surface],
  ])
/** "Sat, 4 Oct 2025 · 8 °C · wet", a number together with its unit. */
export function rideWords(r: RiddenOn, units: UnitChoice): string {
  const { airTempC, altitudeM, surface } = r.conditions
  return joined([
    dayWords(r.date),
    airTempC !== null && say('temperature', airTempC, units),
    surface && surfaceWords[surface],
    altitudeM !== null && say('altitude', altitudeM, units),
  ]).replace(/(\d) (?=[°a-z])/gi, '$1\u00a0')
}

export const mean = (xs: readonly number[]) => xs.reduce((s, x) => s + x, 0) / xs.length
/** Scatter of single ratings; null for fewer than two. */
export function scatter(xs: readonly number[]): number | null {
  if (xs.length < 2) return null
  const m = mean(xs)
  return Math.sqrt(xs.reduce((s, x) => s + (x - m) ** 2, 0) / (xs.length - 1))
}

/** "8.5 ± 0.7, 2 runs", where room is short. */
export function shortRatedWords(p: Pick<KnownPlace, 'ratings' | 'countedRuns'>): string {
  return ratedWords(p).replace('rated ', '').replace(' over', ',')
}
/** "rated 7.4 ± 0.6 over 5 runs", "2 runs, not rated", "no counted run". */
export function ratedWords(p: Pick<KnownPlace, 'ratings' | 'countedRuns'>): string {
  const runs = (n: number) => `${n} ${n === 1 ? 'run' : 'runs'}`
  if (p.countedRuns === 0) return 'no counted run'
  if (p.ratings.length === 0) return `${runs(p.countedRuns)}, not rated`
  const sd = scatter(p.ratings)
  const spread = sd === null ? '' : ` ± ${sd.toFixed(1)}`
  return `rated ${mean(p.ratings).toFixed(1)}${spread} over ${runs(p.ratings.length)}`
}

/** What was turned between two places, short: "Front 4 psi softer, LSC 2 clicks softer; rear rebound 1 click faster". */
export function turnedWords(
  before: Setup,
  after: Setup,
  units: readonly SuspensionUnit[],
  choice: UnitChoice,
): string {
  if (before.frontUnitId !== after.frontUnitId || before.rearUnitId !== after.rearUnitId)
    return 'another fork or shock'
  const moves = diffSetups(before, after, units)
  const end = (which: 'front' | 'rear') => {
    const words = moves
      .filter((m) => m.end === which)
      .map((m) => {
        const name = m.adjuster.role === 'main-pressure' ? '' : `${shortName(m.adjuster)} `
        const how = `${distanceWords(m.adjuster, m.from, m.to, choice)} ${effectWord(m.adjuster, m.from, m.to)}`
        return (name.startsWith('LS') || name.startsWith('HS') ? name : name.toLowerCase()) + how
      })
    return words.length ? `${which} ${words.join(', ')}` : ''
  }
  const text = [end('front'), end('rear')].filter(Boolean).join('; ')
  return text ? text[0].toUpperCase() + text.slice(1) : 'read, nothing turned'
}
