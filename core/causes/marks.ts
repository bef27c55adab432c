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
 * How much a word speaks for each of its causes, sums to 1: exp(sharpness · weight) of the table that the handbook
 * prints, with causes equally likely beforehand.
 */
export function wordShares(
  word: FeelWord,
  end: End,
  section: SectionKind | null,
  sharpness: number,
): number[] {
  const weights = markCauses(word, end, section).map((c) => Math.exp(sharpness * c.weight))
  const total = weights.reduce((s, x) => s + x, 0)
  return weights.map((x) => x / total)
}
