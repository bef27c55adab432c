import { numberWords } from './lexicon.ts'
import { numeralsFor } from './numerals.ts'

export type Token =
  | { kind: 'word'; text: string }
  /** signed: + or − stood before it. */
  | { kind: 'number'; value: number; signed: boolean; text: string }

const joined: [RegExp, string][] = [
  [/[’`]/g, "'"],
  [/[−–]/g, '-'],
  [/\b(low|high)[\s-]*speed[\s-]*(rebound|reb)\b/g, '$1-speed-rebound'],
  [/\b(low|high)[\s-]*speed[\s-]*(compression|comp)\b/g, '$1-speed-compression'],
  [/\b(low|high)[\s-]*speed\b(?!-)/g, '$1-speed'],
  [/\bvolume[\s-]*(spacers?)\b/g, '$1'],
  [/\bhalf (?:a |of a )?(?=click|turn)/g, 'half '],
  [/\b1\/2\b/g, '0.5'],
  [/\b1\/4\b/g, '0.25'],
  // "8 → 6", as a change is shown
  [/\s*(?:→|[-=]?>)\s*/g, ' to '],
  // A comma between digits is a decimal comma; any other parts two moves.
  [/(\d),(\d)/g, '$1.$2'],
  [/[,;&]/g, ' $& '],
  // ".5"
  [/(^|[\s+-])(\.\d)/g, '$10$2'],
  // "2psi", "+2psi"
  [/(\d)([a-z]+)/g, '$1 $2'],
  // "+ 2"
  [/([+-])\s+(\d)/g, '$1$2'],
]

/** A typed line as words and numbers; number words are numbers. */
export function tokensOf(line: string): Token[] {
  let text = numeralsFor(line.toLowerCase())
  for (const [from, to] of joined) text = text.replace(from, to)
  return text
    .split(/\s+/)
    .map((w) => w.replace(/[.:!?]+$/, ''))
    .filter(Boolean)
    .map((w): Token => {
      if (/^[+-]?\d+(\.\d+)?$/.test(w))
        return { kind: 'number', value: Number(w), signed: /^[+-]/.test(w), text: w }
      const n = numberWords.get(w)
      return n === undefined
        ? { kind: 'word', text: w }
        : { kind: 'number', value: n, signed: false, text: w }
    })
}
