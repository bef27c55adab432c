import type { Feel, Mark } from '#contract/run'
import { wordRules } from '../../causes/words.ts'

type Heard = Pick<Feel, 'rating' | 'marks'>

const markWords = (m: Mark) => `“${wordRules[m.word].label}”${m.end === 'both' ? '' : `, ${m.end}`}`
const listed = (marks: readonly Mark[]) => marks.map(markWords).join(' and ')
const isOf = (marks: readonly Mark[]) => (m: Mark) => marks.some((n) => n.word === m.word && n.end === m.end)

/**
 * What a rider said and nobody noted, or was noted and never said, by word and end; where and how strongly is left to
 * whoever listens.
 * @param feltStep rating points below which a rating counts as heard
 * @returns null: it was heard right
 */
export function misheardWords(said: Heard, noted: Heard, feltStep: number): string | null {
  const missing = said.marks.filter((m) => !isOf(noted.marks)(m))
  const added = noted.marks.filter((m) => !isOf(said.marks)(m))
  if (missing.length > 0)
    return `The rider’s words were ${listed(missing)}; noted was ${added.length > 0 ? listed(added) : 'nothing of it'}`
  if (added.length > 0) return `Noted was ${listed(added)}, which the rider never said`
  return Math.abs((noted.rating ?? 0) - (said.rating ?? 0)) >= feltStep
    ? `The rider gave it a ${said.rating}; noted was ${noted.rating}`
    : null
}
