import { FeelWord } from '#contract/run'
import { termsOf } from './terms.ts'
import { isMeant, wordRules } from '#core/causes/words'

const known = new Map(
  FeelWord.options.map((w) => {
    const { label, aliases } = wordRules[w]
    return [w, termsOf([label, w, ...aliases].join(' '))] as const
  }),
)

/**
 * Words of feel that a line may mean, as people type them: a name or a part of it, else those that hold every word of the
 * line in any form, else those that hold the most of it.
 */
export function wordsFor(typed: string): FeelWord[] {
  const named = FeelWord.options.filter((w) => isMeant(w, typed))
  if (named.length > 0) return named
  const terms = termsOf(typed)
  const held = (w: FeelWord) =>
    terms.filter((t) => known.get(w)!.some((k) => k === t || (t.length > 2 && k.startsWith(t)))).length
  const most = Math.max(0, ...FeelWord.options.map(held))
  return most === 0 ? [] : FeelWord.options.filter((w) => held(w) === most)
}
