import type { Answer } from '#contract/question'
import type { Feel, Verdict } from '#contract/run'

/** What is tapped on a card about the run before is the verdict that can be given by hand. */
const verdicts: Record<string, Verdict['value']> = {
  'much-better': 2,
  better: 1,
  same: 0,
  worse: -1,
  'much-worse': -2,
}

/** The verdict that an answer is, −2 … 2; null: it is none, or nobody could say. */
export const verdictOf = ({
  question,
  answer,
}: Pick<Answer, 'question' | 'answer'>): Verdict['value'] | null =>
  question === 'than-before' ? (verdicts[answer] ?? null) : null

const isSame = (a: Answer, b: Answer) => a.question === b.question && a.end === b.end

/** The feel of a run with an answer, instead of what was answered to that question before. @param before the run before */
export function withAnswered(feel: Feel, given: Answer, before: string | null): Feel {
  const old = feel.answers.find((a) => isSame(a, given))
  const rest = old ? withTakenBack(feel, old, before) : feel
  const answers = [...rest.answers, given]
  const value = verdictOf(given)
  if (value === null || before === null) return { ...rest, answers }
  const others = rest.verdicts.filter((v) => v.againstRunId !== before)
  return { ...rest, answers, verdicts: [...others, { againstRunId: before, value }] }
}

/** The feel of a run without an answer, and without what it said. @param before the run before */
export function withTakenBack(feel: Feel, given: Answer, before: string | null): Feel {
  const value = verdictOf(given)
  return {
    ...feel,
    answers: feel.answers.filter((a) => !isSame(a, given)),
    // One that was said otherwise by hand since stays.
    verdicts: feel.verdicts.filter((v) => value === null || v.againstRunId !== before || v.value !== value),
  }
}

/** The feel of a run with what is said against others by hand: what a card was told of the run before and is not so any more goes. */
export function withVerdicts(feel: Feel, verdicts: Feel['verdicts'], before: string | null): Feel {
  const stands = (a: Answer) =>
    verdictOf(a) === null || verdicts.some((v) => v.againstRunId === before && v.value === verdictOf(a))
  return { ...feel, verdicts, answers: feel.answers.filter(stands) }
}
