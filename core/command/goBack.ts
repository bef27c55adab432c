import type { Token } from './tokens.ts'

/** Settings ridden earlier today: of a run by its number, of the best-rated one, or of the baseline run. */
export type GoBack = number | 'best' | 'baseline'

const around = new Set(
  'go put bring take come back to on the settings setting set setup of from in run runs we had it was that what'.split(
    ' ',
  ),
)
const beginning = new Set(['baseline', 'start', 'started', 'began', 'beginning', 'where'])
const praise = new Set(['best', 'good', 'last', 'rated', 'one'])

/**
 * Reads "back to run 3", "put run 3 back on", "go back to 3", "back to the last good one", "back to the best",
 * "back to the baseline", "back to where we started". Only where
 * nothing else is said: "rebound back to 3" names a part and is a place on its dial.
 */
export function goBackOf(tokens: readonly Token[]): GoBack | null {
  const words = tokens.map((t) => t.text.replace(/'s$/, ''))
  const said = (w: string) => words.includes(w)
  if (!said('back')) return null
  if (words.every((w) => around.has(w) || praise.has(w)) && (said('best') || (said('last') && said('good'))))
    return 'best'
  if (
    words.every((w) => around.has(w) || beginning.has(w)) &&
    words.some((w) => beginning.has(w) && w !== 'where')
  )
    return 'baseline'
  const rest = tokens.filter((_, i) => !around.has(words[i]))
  if (rest.length !== 1 || !(said('run') || said('to'))) return null
  const [t] = rest
  const n = t.kind === 'number' ? t.value : Number(/^(\d+)'s$/.exec(t.text)?.[1] ?? NaN)
  return Number.isInteger(n) && n >= 1 && !(t.kind === 'number' && t.signed) ? n : null
}
