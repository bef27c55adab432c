import type { End } from '#contract/common'
import type { CauseKind } from '#contract/proposal'
import type { Answer, QuestionId } from '#contract/question'
import type { FeelWord } from '#contract/run'
import { markCauses } from '../causes/marks.ts'
import { withAnswered } from '../causes/answered.ts'
import { runBefore } from '../setup/runBefore.ts'
import { cannotSay, answerCauses, answerWords, meantWord, questionRules } from '../causes/questions.ts'
import type { Finding } from '../causes/posterior.ts'
import type { DayHistory, HistoryRun } from './dayHistory.ts'

/** The same question asked again on other settings is answered by the same ear. */
const againShare = 0.5

export interface GivenAnswer {
  run: HistoryRun
  answer: Answer
  /** How much it weighs; 1 for the first time. */
  share: number
}

/** All that was answered today, in the order of the runs. */
export function answersGiven(h: DayHistory): GivenAnswer[] {
  const times = new Map<string, number>()
  return h.runs.flatMap((run) =>
    (run.feel?.answers ?? []).map((answer) => {
      const key = answerTopic(answer)
      const before = times.get(key) ?? 0
      times.set(key, before + (answer.answer === cannotSay ? 0 : 1))
      return { run, answer, share: againShare ** before }
    }),
  )
}

/** What an answer is about, as a line of evidence. */
export const answerTopic = ({ question, end }: Pick<Answer, 'question' | 'end'>) =>
  `answer ${question} ${end}`

/** What an answer speaks for and against. */
export function answerFindings({ run, answer, share }: GivenAnswer): Finding[] {
  return answerCauses(answer.question, answer.end, answer.answer).map((c) => ({
    kind: c.kind,
    end: c.end,
    evidence: {
      weight: c.weight * share,
      text: answerWords(answer.question, answer.answer),
      topic: answerTopic(answer),
      runNumbers: [run.number],
      link: { kind: 'answer', runId: run.run.id, sectionId: null, word: null },
    },
  }))
}

/** Whether a question was put about this word at this end. */
export function explains(a: Answer, word: FeelWord, end: End): boolean {
  return questionRules[a.question].words.includes(word) && (a.end === null || a.end === end)
}

/** How much oftener than by chance a cause is answered so; 1 where nothing was asked. */
export function toldFactor(told: readonly Answer[], kind: CauseKind, end: End | null): number {
  return told.reduce((f, a) => {
    const c = answerCauses(a.question, a.end, a.answer).find((x) => x.kind === kind && x.end === end)
    return f * Math.exp(c?.weight ?? 0)
  }, 1)
}

/** What an answer says of causes that the words of its run do not speak of. */
export function beyondWords(given: GivenAnswer): Finding[] {
  const spoken = (given.run.feel?.marks ?? []).flatMap((m) =>
    (m.end === 'both' ? (['front', 'rear'] as const) : [m.end])
      .filter((end) => explains(given.answer, m.word, end))
      .flatMap((end) => markCauses(meantWord(m.word, [given.answer]), end, null)),
  )
  return answerFindings(given).filter((f) => !spoken.some((c) => c.kind === f.kind && c.end === f.end))
}

/** A unit that sticks does so whatever is turned; all else that is answered holds for the settings it was said of. */
export const holdsAllDay = (question: QuestionId) => question === 'sticks'

/** The latest answer to a question, on these runs. */
export function answerTo(
  runs: readonly HistoryRun[],
  question: QuestionId,
  end: End | null,
): { run: HistoryRun; answer: string } | null {
  for (const run of [...runs].reverse()) {
    const a = run.feel?.answers.find((x) => x.question === question && x.end === end)
    if (a) return { run, answer: a.answer }
  }
  return null
}

/** The day as it would be with one more answer; for what it would lead to. */
export function withAnswer(h: DayHistory, runId: string, answer: Answer): DayHistory {
  const before = runBefore(
    h.runs.map((r) => r.run),
    runId,
  )
  return {
    ...h,
    runs: h.runs.map((r) =>
      r.run.id === runId && r.feel ? { ...r, feel: withAnswered(r.feel, answer, before?.id ?? null) } : r,
    ),
  }
}
