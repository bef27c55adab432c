import type { BikeKind } from '#contract/bike'
import type { Surface } from '#contract/conditions'
import type { TrailDay } from '#contract/day'
import type { RiderLevel, RiderTaste } from '#contract/rider'
import type { Effort, MindTag, RunKind } from '#contract/run'
import type { Pace, Steepness } from '#core/carry/situation'
import type { SectionKind } from '#contract/trail'

export const surfaceWords: Record<Surface, string> = {
  'dry-hard': 'dry, hard',
  'dry-loose': 'dry, loose',
  damp: 'damp',
  wet: 'wet',
  mud: 'mud',
  snow: 'snow',
}
export const runKindWords: Record<RunKind, string> = {
  'warm-up': 'warm-up',
  counted: 'counted',
  void: 'doesn’t count',
}
export const mindWords: Record<MindTag, string> = {
  normal: 'normal',
  'track-new': 'track new to me',
  nervous: 'nervous',
  tired: 'tired',
  'saving-tyres': 'saving tyres',
}
export const effortWords: Record<Effort, string> = {
  'held-back': 'held back',
  usual: 'as usual',
  'all-out': 'all out',
}
export const levelWords: Record<RiderLevel, string> = {
  novice: 'novice',
  intermediate: 'intermediate',
  advanced: 'advanced',
  race: 'race',
}
export const tasteWords: Record<RiderTaste, string> = {
  planted: 'calm',
  neutral: 'balanced',
  lively: 'quick',
}
export const bikeKindWords: Record<BikeKind, string> = {
  'cross-country': 'cross-country',
  trail: 'trail',
  enduro: 'enduro',
  downhill: 'downhill',
  other: 'something else',
}
export const sectionWords: Record<SectionKind, string> = {
  smooth: 'smooth',
  roots: 'roots',
  'braking-bumps': 'braking bumps',
  berms: 'berms',
  drop: 'drop',
  jump: 'jump',
  'g-out': 'G-out',
  'flat-turn': 'flat turn',
  'square-edges': 'square edges',
  rollers: 'rollers',
  climb: 'climb',
  'flat-out': 'flat out',
  mixed: 'a bit of everything',
}

/** Options for a select from a table of words. */
export const optionsOf = <K extends string>(words: Record<K, string>) =>
  (Object.keys(words) as K[]).map((value) => ({ value, text: words[value] }))

/** "a, b and c". */
export const listOf = (words: readonly string[]): string =>
  words.length > 1 ? `${words.slice(0, -1).join(', ')} and ${words.at(-1)}` : (words[0] ?? '')

/** The ground, which may be left unsaid. */
export const groundOptions: { value: Surface | null; text: string }[] = [
  { value: null, text: 'not noted' },
  ...optionsOf(surfaceWords),
]

export const purposeWords: Record<TrailDay['purpose'], string> = {
  testing: 'Testing',
  race: 'Race day',
}
export const steepnessWords: Record<Steepness, string> = {
  flat: 'flatter',
  usual: 'as here',
  steep: 'steeper',
}
export const paceWords: Record<Pace, string> = {
  slower: 'slower',
  usual: 'as here',
  faster: 'faster',
}

/** A number with the minus sign of print, and none before a zero. */
export function plainWords(x: number, digits: number): string {
  const size = Math.abs(x).toFixed(digits)
  return (Number(size) === 0 || x >= 0 ? '' : '−') + size
}

/** "+1.2", "−0.4", and "0.0" for what rounds to nothing. */
export function signedWords(x: number, digits: number): string {
  const size = Math.abs(x).toFixed(digits)
  return (Number(size) === 0 ? '' : x < 0 ? '−' : '+') + size
}
