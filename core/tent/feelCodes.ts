import type { FeelWord, Mark } from '#contract/run'
import { wordRules } from '../causes/words.ts'

/** Two letters for each word a rider says: fast to type, and none of them means anything in a line of changes. */
export const feelCodes: Record<FeelWord, string> = {
  kicks: 'ki',
  pogo: 'bo',
  'harsh-gets-worse': 'hw',
  'harsh-square-edge': 'he',
  'harsh-everywhere': 'ha',
  'harsh-and-bottoms': 'hb',
  bottoms: 'bt',
  'unused-travel': 'nu',
  dives: 'di',
  wallows: 'wa',
  'blows-through': 'ft',
  'washes-out': 'fw',
  stretched: 'lo',
  'nose-heavy': 'nh',
  nervous: 'ne',
  dead: 'de',
  'stays-down': 'sd',
  'pedal-bob': 'bb',
  'pedals-strike': 'ps',
  'soft-when-hot': 'sh',
  'slow-when-cold': 'sc',
  good: 'gd',
  'holds-up': 'hu',
  grips: 'gr',
}

const byCode = new Map(Object.entries(feelCodes).map(([word, code]) => [code, word as FeelWord]))
const ends = { f: 'front', r: 'rear', b: 'both' } as const

/** "ki" is kicks at its usual end, "fki" in front, "rki" behind, "bki" at both; null: none of them. */
export function feelOfCode(code: string): { word: FeelWord; end: Mark['end'] } | null {
  const plain = byCode.get(code)
  if (plain) return { word: plain, end: wordRules[plain].usualEnd ?? 'both' }
  const end = ends[code[0] as keyof typeof ends] as Mark['end'] | undefined
  const word = byCode.get(code.slice(1))
  return end && word ? { word, end } : null
}
