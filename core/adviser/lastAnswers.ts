import type { Answer } from '#contract/question'
import { verdictOf, withTakenBack } from '../causes/answered.ts'
import { runBefore } from '../setup/runBefore.ts'
import { otherConditionsVariance, sessionPriors } from '../stats/session.ts'
import { comparable } from './comparable.ts'
import { answersGiven, beyondWords, explains } from './answers.ts'
import { clueOf, dialAnswers, hintsOf, isOnly, slipOf, toldOf } from './clues.ts'
import type { Dial } from './dials.ts'
import type { DayHistory, SetupSpace } from './dayHistory.ts'
import { countedRuns } from './history.ts'
import type { ResponseSurface, SurfaceData } from './surface/model.ts'
import { clueLikelihood, hintLikelihood } from './surface/samples.ts'

/** The surface of all that is known but the answers about the last run. */
export interface Fitted {
  dials: Dial[]
  data: SurfaceData
  surface: ResponseSurface
}

/** The day as it was before anything was answered about its last counted run. */
export function beforeLastAnswers(h: DayHistory): DayHistory {
  const last = countedRuns(h).at(-1)
  if (!last?.feel || last.feel.answers.length === 0) return h
  const before = runBefore(
    h.runs.map((r) => r.run),
    last.run.id,
  )
  const feel = last.feel.answers.reduce((f, a) => withTakenBack(f, a, before?.id ?? null), last.feel)
  return { ...h, runs: h.runs.map((r) => (r === last ? { ...r, feel } : r)) }
}

/**
 * How much likelier all that was said gets by what was answered about the last run, under every sample of the surface that
 * was fitted before; null where nothing was answered. Weighed on the very samples that the question was weighed on, an
 * answer leads where its card said it would.
 */
export function lastAnswerWeights(h: DayHistory, space: SetupSpace, fitted: Fitted): Float64Array | null {
  const before = beforeLastAnswers(h)
  if (before === h) return null
  const { surface, data, dials } = fitted
  const answers = dialAnswers(space, dials)
  const runs = countedRuns(h)
  const given = answersGiven(h).filter((g) => g.run === runs.at(-1))
  const out = hintLikelihood(
    surface,
    data,
    given.flatMap((g) => hintsOf(beyondWords(g), runs.length - 1, answers)),
  )
  for (const { answer } of given) saidAgainst(h, fitted, answer, out)
  const was = countedRuns(before)
  runs.forEach((r, point) => {
    for (const mark of r.feel?.marks ?? [])
      for (const end of mark.end === 'both' ? (['front', 'rear'] as const) : [mark.end]) {
        if (!given.some((g) => explains(g.answer, mark.word, end))) continue
        const floor = slipOf(h, mark)
        const only = isOnly(r, mark)
        const likelihood = (told: readonly Answer[]) =>
          clueLikelihood(surface, data, { point, ...clueOf({ mark, end, floor, only, told }, h, answers) })
        const now = likelihood(toldOf(h, r, mark.word, end))
        const then = likelihood(toldOf(before, was[point], mark.word, end))
        for (let i = 0; i < out.length; i++) out[i] *= now[i] / then[i]
      }
  })
  return out
}

/**
 * Weighs the samples by what was said of the last run against the one before: as far apart as the bowl has them, with the
 * scatter of a rating and that of what is said. As a row of the surface does it (`surface/kernel.ts`), drift aside.
 */
function saidAgainst(h: DayHistory, { surface, data }: Fitted, answer: Answer, out: Float64Array): void {
  const value = verdictOf(answer)
  const runs = countedRuns(h)
  const [a, b] = [runs.length - 2, runs.length - 1]
  if (value === null || a < 0) return
  // What was said otherwise by hand since is a row like any other.
  const { verdicts } = runs[b].feel!
  if (!verdicts.some((v) => v.againstRunId === runs[a].run.id && v.value === value)) return
  const [was, is] = [a, b].map((i) => surface.lossAt(data.points[i].at))
  const times = comparable(h, runs[a], runs[b]).equal ? 1 : otherConditionsVariance
  for (let i = 0; i < out.length; i++) {
    const variance = times * surface.noiseSd[i] ** 2 + sessionPriors.saidSd ** 2
    const apart = value * sessionPriors.saidStep - (was[i] - is[i])
    out[i] *= Math.exp((-0.5 * apart * apart) / variance) / Math.sqrt(variance)
  }
}
