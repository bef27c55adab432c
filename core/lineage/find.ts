import type { RiddenOn } from '#contract/bikeSetups'
import type { Surface } from '#contract/conditions'
import type { Purpose } from '#contract/kept'
import { wordRules } from '../causes/words.ts'
import type { KnownPlace } from './facts.ts'

/** What is looked for; null and empty ask for nothing. */
export interface Wanted {
  /** Beginnings of words: name, trail, place, month, what was said. */
  text: string
  surfaces: readonly Surface[]
  purpose: Purpose | null
  /** Air, °C. */
  warmerThanC: number | null
  colderThanC: number | null
  settledOnly: boolean
}

export const anything: Wanted = {
  text: '',
  surfaces: [],
  purpose: null,
  warmerThanC: null,
  colderThanC: null,
  settledOnly: false,
}
export const asksForNothing = (w: Wanted) =>
  w.text.trim() === '' &&
  w.surfaces.length === 0 &&
  w.purpose === null &&
  w.warmerThanC === null &&
  w.colderThanC === null &&
  !w.settledOnly

/** One occasion that a place is known from: a day, or what was noted when it was kept. */
interface Occasion {
  text: string
  surface: Surface | null
  airTempC: number | null
  settled: boolean
}

const months = 'January February March April May June July August September October November December'.split(
  ' ',
)
const whenWords = (date: string) => `${months[Number(date.slice(5, 7)) - 1]} ${date.slice(0, 4)} ${date}`
const surfaceText: Record<Surface, string> = {
  'dry-hard': 'dry hard',
  'dry-loose': 'dry loose',
  damp: 'damp',
  wet: 'wet',
  mud: 'mud wet',
  snow: 'snow',
}
const saidText = (words: RiddenOn['words']) =>
  words.map((w) => `${wordRules[w.word].label} ${wordRules[w.word].aliases.join(' ')} ${w.end}`).join(' ')

function occasionsOf(p: KnownPlace): Occasion[] {
  const of = [p.name, ...(p.kept?.purposes ?? []), p.kept?.words, p.kept?.geometry, p.setup.reason.text]
    .filter(Boolean)
    .join(' ')
  const days = p.rides.map((r) => ({
    text: `${of} ${r.trailName} ${r.place} ${whenWords(r.date)} ${r.conditions.surface ? surfaceText[r.conditions.surface] : ''} ${saidText(r.words)} ${r.purpose === 'race' ? 'race' : ''}`,
    surface: r.conditions.surface,
    airTempC: r.conditions.airTempC,
    settled: r.settled,
  }))
  const noted = p.kept?.found ?? p.setup.foundIn
  const surface = p.kept?.found.surface ?? null
  const own = {
    text: `${of} ${noted?.place ?? ''} ${whenWords(p.setup.madeAt)} ${surface ? surfaceText[surface] : ''}`,
    surface,
    airTempC: noted?.airTempC ?? null,
    settled: false,
  }
  return [...days, own]
}

/**
 * Whether a place answers what is looked for. Ground, air, month and words must hold of one and the same day: dry in
 * October and wet in June is no wet October.
 */
export function answers(p: KnownPlace, wanted: Wanted): boolean {
  if (wanted.purpose !== null && !p.kept?.purposes.includes(wanted.purpose)) return false
  const terms = termsOf(wanted.text)
  return occasionsOf(p).some((o) => {
    if (wanted.settledOnly && !o.settled) return false
    if (wanted.surfaces.length && (o.surface === null || !wanted.surfaces.includes(o.surface))) return false
    if (wanted.warmerThanC !== null && (o.airTempC === null || o.airTempC < wanted.warmerThanC)) return false
    if (wanted.colderThanC !== null && (o.airTempC === null || o.airTempC > wanted.colderThanC)) return false
    const words = termsOf(o.text)
    return terms.every((t) => words.some((w) => w.startsWith(t)))
  })
}

const termsOf = (text: string) =>
  text
    .toLowerCase()
    .split(/[\s,.;:()“”"]+/)
    .filter(Boolean)
