import type { Mark } from '#contract/run'
import type { TentNoteKind, Whereabouts } from '#contract/tent'
import { feelOfCode } from './feelCodes.ts'
import { tokensOf } from '../command/tokens.ts'
import { parsePlan, planHelp, type Plan } from '../plans/plan.ts'

/** How a run was, as far as a line says it. */
export interface LineFeel {
  rating: number | null
  marks: Pick<Mark, 'word' | 'end'>[]
  /** Against the run before it. */
  verdict: -1 | 0 | 1 | null
}

export type LineEntry =
  /** A number alone: who is spoken of from now on. */
  | { kind: 'who' }
  /** The rider has come in: a run is logged, with what is said of it. */
  | { kind: 'in'; feel: LineFeel }
  | { kind: 'feel'; feel: LineFeel }
  | { kind: 'whereabouts'; to: Exclude<Whereabouts, 'settled'> }
  | { kind: 'note'; note: Exclude<TentNoteKind, 'plan'>; text: string }
  /** What is to be done if the next run comes so. */
  | { kind: 'plan'; text: string; plan: Plan }
  /** It was meant for something, and cannot be read. */
  | { kind: 'unclear'; words: string }
  /** Everything else: for the command line of that rider’s day. */
  | { kind: 'change'; line: string }

/** What a line in the tent says, and of whom. */
export interface TentLine {
  /** null: of whoever is chosen. */
  number: number | null
  entry: LineEntry
}

const verdicts: Record<string, LineFeel['verdict']> = {
  better: 1,
  b: 1,
  same: 0,
  s: 0,
  worse: -1,
  w: -1,
}
const places: Record<string, Extract<LineEntry, { kind: 'whereabouts' }>['to']> = {
  out: 'out',
  here: 'here',
  rest: 'resting',
  resting: 'resting',
}
const noteWords: [RegExp, Exclude<TentNoteKind, 'plan'>][] = [
  [/^(?:leave|left) (?:it )?alone\b[,:]?\s*/i, 'left-alone'],
  [/^alone\b[,:]?\s*/i, 'left-alone'],
  [/^(?:later|after the next run)\b[,:]?\s*/i, 'later'],
  [/^no time\b[,:]?\s*/i, 'no-time'],
]

/** Ratings, verdicts and two-letter words, in any order; null where one word is none of them. */
function feelOf(words: readonly string[]): LineFeel | null {
  const feel: LineFeel = { rating: null, marks: [], verdict: null }
  for (const w of words) {
    const rating = /^(?:10|[1-9])(?:[.,]5)?$/.test(w) ? Number(w.replace(',', '.')) : null
    const mark = feelOfCode(w)
    if (rating !== null && rating <= 10 && feel.rating === null) feel.rating = rating
    else if (w in verdicts && feel.verdict === null) feel.verdict = verdicts[w]
    else if (mark) feel.marks.push(mark)
    else return null
  }
  return feel
}

const unitWord =
  /^(?:clicks?|notch(?:es)?|turns?|psi|bar|spacers?|(?:more|less|fewer)\s+(?:clicks?|psi|bar|turns?|spacers?))\b/i
const wayWord =
  /^(?:slower|faster|quicker|firmer|stiffer|harder|softer|lighter|more|less|fewer|(?:up|down|in|out)\s+\D)/i
/** Whether a line that begins with a rider's number may have meant it as an amount: nothing else in it says how far. */
function numberIs(after: string): 'rider' | 'amount' | 'either' {
  if (tokensOf(after).some((t) => t.kind === 'number')) return 'rider'
  return unitWord.test(after) ? 'amount' : wayWord.test(after) ? 'either' : 'rider'
}
const eitherHelp = (n: string, after: string) =>
  `${n} can be the rider or how far. For rider ${n}: “${n} ${after} 1”. For whoever is chosen, the number last: “${after} ${n}”.`

/**
 * Reads a line of the tent: a rider's number, then what is done, said or decided. "3 in 6.5 rki" · "2 shock reb slower 1" ·
 * "4 out" · "1 leave alone, rode it twice" · "5 later fork +2" · "3 7 better" ·
 * "2 if worse or rki, shock reb faster 1".
 *
 * @param numbers of the riders in the tent
 * @returns null for an empty line
 */
export function parseTentLine(text: string, numbers: readonly number[]): TentLine | null {
  const line = text.trim()
  if (line === '') return null
  const [, first = '', after = ''] = /^(\d{1,2})(?:\s+(.*))?$/.exec(line) ?? []
  const is = numberIs(after)
  const known = first !== '' && numbers.includes(Number(first))
  const named = known && is !== 'amount'
  const number = named ? Number(first) : null
  const rest = named ? after.trim() : line
  if (rest === '') return { number, entry: { kind: 'who' } }
  for (const [start, note] of noteWords)
    if (start.test(rest))
      return { number, entry: { kind: 'note', note, text: rest.replace(start, '').trim() } }
  if (/^if\b/i.test(rest)) {
    const plan = parsePlan(rest)
    return { number, entry: plan ? { kind: 'plan', text: rest, plan } : { kind: 'unclear', words: planHelp } }
  }
  const words = rest.toLowerCase().split(/\s+/)
  const to = words.length === 1 ? places[words[0]] : undefined
  if (to) return { number, entry: { kind: 'whereabouts', to } }
  if (words[0] === 'in') {
    const feel = feelOf(words.slice(1))
    if (feel) return { number, entry: { kind: 'in', feel } }
  }
  const feel = feelOf(words)
  if (feel) return { number, entry: { kind: 'feel', feel } }
  if (named && is === 'either')
    return { number: null, entry: { kind: 'unclear', words: eitherHelp(first, after) } }
  return { number, entry: { kind: 'change', line: rest } }
}
