import type { End } from '#contract/common'
import type { CauseKind } from '#contract/proposal'
import type { FeelWord } from '#contract/run'
import type { SectionKind } from '#contract/trail'
import { wordRules } from './words.ts'

export interface MarkCause {
  kind: CauseKind
  end: End | null
  /** Log-likelihood weight for a mark of middle strength. */
  weight: number
}

/** The candidate causes of a word said at an end, with what the kind of section adds. */
export function markCauses(word: FeelWord, end: End, section: SectionKind | null): MarkCause[] {
  const rule = wordRules[word]
  return rule.causes.map((c) => ({
    kind: c.kind,
    end: c.at === 'same' ? end : c.at === 'bike' ? null : c.at,
    weight: c.weight + (rule.inSection?.find((x) => x.section === section && x.kind === c.kind)?.weight ?? 0),
  }))
}

/**
 * How much a word speaks for each of its causes, sums to 1: a cause that few words name owns those words.
 * Bayes' rule with equal causes; P(word | cause) ∝ exp(sharpness · weight) over all words that can name the cause.
 */
export function wordShares(
  word: FeelWord,
  end: End,
  section: SectionKind | null,
  sharpness: number,
): number[] {
  const causes = markCauses(word, end, section)
  const weights = causes.map((c) => Math.exp(sharpness * c.weight) / namedBy(c.kind, c.end, end, sharpness))
  const total = weights.reduce((s, x) => s + x, 0)
  return weights.map((x) => x / total)
}

const totals = new Map<string, number>()

/** Σ exp(sharpness · weight) over the words that name a cause when said at an end. */
function namedBy(kind: CauseKind, seat: End | null, said: End, sharpness: number): number {
  const key = `${kind} ${seat} ${said} ${sharpness}`
  let total = totals.get(key)
  if (total === undefined) {
    total = 0
    for (const word of Object.keys(wordRules) as FeelWord[])
      for (const c of markCauses(word, said, null))
        if (c.kind === kind && c.end === seat) total += Math.exp(sharpness * c.weight)
    totals.set(key, total)
  }
  return total
}
