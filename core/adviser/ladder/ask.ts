import type { End } from '#contract/common'
import type { Cause, Proposal } from '#contract/proposal'
import type { AskedQuestion, QuestionId } from '#contract/question'
import type { Mark } from '#contract/run'
import { cannotSay, questionRules, type QuestionRule } from '../../causes/questions.ts'
import { isComplaint, wordRules } from '../../causes/words.ts'
import { conditionsNow } from '../../conditions/at.ts'
import { answersGiven, answerTo, withAnswer } from '../answers.ts'
import { plain, reason } from '../cards.ts'
import { comparable } from '../comparable.ts'
import { costRuns } from '../costs.ts'
import { isRefuted } from '../deepest.ts'
import { outlookOn, worth, type Outlook } from '../decide.ts'
import { lastAnswerWeights } from '../lastAnswers.ts'
import type { HistoryRun, SetupSpace } from '../dayHistory.ts'
import { urgentOf } from './complaint.ts'
import { hasLever } from './openLever.ts'
import { pointedOut } from './pointing.ts'
import { climbOf, hasAskedEnough, type Climb, type Rung } from './climb.ts'

/** Nobody likes to be questioned: so often on the same settings. */
const mostQuestions = 2
/** A smaller worth is not printed, rating points. */
const worthSaying = 0.05
/** A question about heat is only put when it is warm and nobody knows where the settings were found. */
const warmFromC = 22
const likedFrom = 7.5
/** Rated below, something is wrong though nobody said what. */
const unhappyBelow = 6.5
const mostEndQuestions = 2
/** Who could not say so often is not asked any more what was better. */
const mostCannotSay = 2
/** An answer less likely than this is not asked for. Of three that are as likely each has a third, less what nobody knows. */
const mayComeFrom = 0.2
/** Of five that stand for a number that says nothing. */
const verdictMayComeFrom = 0.05

/**
 * One question to the rider, where the answers lead to different turns and knowing is worth more than it costs. What each
 * answer leads to is worked out before it is asked, and stands on the card.
 *
 * @param advise the whole ladder, for what an answer would lead to
 */
export const asking =
  (advise: (c: Climb) => Proposal): Rung =>
  (c) => {
    const last = c.onNow[c.onNow.length - 1]
    // Of a ride before the last one nobody is asked any more.
    if (last !== c.counted[c.counted.length - 1]) return null
    // On race day nothing new is looked for.
    if (c.imagined || !last?.feel || c.h.purpose === 'race' || hasAskedEnough(c)) return null
    if (c.onNow.reduce((n, r) => n + (r.feel?.answers.length ?? 0), 0) >= mostQuestions) return null
    const open = openQuestions(c, last)
      .map((q) => ({ ...q, imagine: imagine(c, last, q) }))
      // Pointing at an end saves a reading at the other.
      .filter((q) => q.imagine.worth >= costRuns.question || q.imagine.parts || q.mark === null)
      // A look that costs nothing comes before what has to be remembered.
      .sort((a, b) => Number(isLook(b)) - Number(isLook(a)) || b.imagine.worth - a.imagine.worth)
    for (const q of open) {
      const leads = q.imagine.leads.map((lead) => ({ ...lead, card: advise(lead.climb) }))
      // Of the answers that may well come, two must lead to different turns.
      if (new Set(leads.filter((l) => l.mayCome).map((l) => turnKey(l.card, c.space))).size < 2) continue
      const without = advise(unanswered(c, last, q))
      // What is to be read or looked at first is done first; then it is asked.
      if (q.id === 'than-before' && !turningKinds.includes(without.kind)) continue
      return askCard(c, last, q, {
        id: q.id,
        end: q.end,
        runId: last.run.id,
        worth: Math.round(100 * q.imagine.worth) / 100,
        answers: [
          ...leads.map((l) => ({ id: l.answer, label: l.label, leadsTo: l.card.headline })),
          { id: cannotSay, label: 'Can’t say', leadsTo: without.headline },
        ],
      })
    }
    return null
  }

/** What is next where nobody can say which run was better, for it to be worth asking. */
const turningKinds: readonly Proposal['kind'][] = ['change', 'go-back', 'separating-test', 'repeat']

const isLook = (q: Pick<Open, 'id'>) => q.id === 'lever-open'

/** The day where nobody can say: looked at as it will be when that is tapped, to the last sample. */
function unanswered(c: Climb, last: HistoryRun, q: Pick<Open, 'id' | 'end'>): Climb {
  const day = withAnswer(c.h, last.run.id, { question: q.id, end: q.end, answer: cannotSay })
  const known = outlookOn(day, c.space, c.outlook().fitted)
  return { ...climbOf(day, c.space, () => known), session: c.session, imagined: true }
}

interface Open {
  id: QuestionId
  end: End | null
  /** The word that raises it; null: nothing was said. */
  mark: Mark | null
}

/** Questions that the words of the latest run raise, and that nobody has answered on these settings. */
function openQuestions(c: Climb, last: HistoryRun): Open[] {
  const out: Open[] = isWordless(c, last) ? [{ id: 'which-end', end: null, mark: null }] : []
  if (isUnjudged(c, last)) out.push({ id: 'than-before', end: null, mark: null })
  for (const mark of urgentOf(last.feel?.marks ?? []))
    for (const id of Object.keys(questionRules) as QuestionId[]) {
      const rule: QuestionRule = questionRules[id]
      if (!rule.words.includes(mark.word) || !makesSense(c, last, id, mark)) continue
      const end =
        rule.of === 'bike'
          ? null
          : mark.end === 'both'
            ? (wordRules[mark.word].usualEnd ?? 'front')
            : mark.end
      // Nothing springs there.
      if (end !== null && !c.space[end]) continue
      if (answerTo(c.onNow, id, end) || out.some((q) => q.id === id && q.end === end)) continue
      out.push({ id, end, mark })
    }
  return out
}

/** Rated low, and nobody said of what: asked which end, so often a day, and never again of who could not say. */
function isWordless(c: Climb, { feel }: HistoryRun): boolean {
  if (!c.space.front || !c.space.rear || (feel?.rating ?? unhappyBelow) >= unhappyBelow) return false
  if (feel!.marks.some((m) => isComplaint(m.word)) || answerTo(c.onNow, 'which-end', null)) return false
  if (pointedOut(c)) return false
  const asked = answersGiven(c.h).filter((g) => g.answer.question === 'which-end')
  return asked.length < mostEndQuestions && asked.every((g) => g.answer.answer !== cannotSay)
}

/** Ridden once since something was turned, and neither the numbers nor what was said tell what that did. */
function isUnjudged(c: Climb, last: HistoryRun): boolean {
  const before = c.counted.at(-2)
  if (c.onNow.length !== 1 || !before?.feel || last.feel!.verdicts.length > 0) return false
  const [was, is] = [before.feel.rating, last.feel!.rating]
  if (was !== null && is !== null && was !== is) return false
  if (!comparable(c.h, before, last).equal || answerTo([last], 'than-before', null)) return false
  const unsaid = answersGiven(c.h).filter(
    (g) => g.answer.question === 'than-before' && g.answer.answer === cannotSay,
  )
  return unsaid.length < mostCannotSay
}

function makesSense(c: Climb, last: HistoryRun, id: QuestionId, mark: Mark): boolean {
  // What a ring or a sensor shows is not asked for.
  if (endsOf(mark).every((end) => isRefuted(mark.word, end, last, c.space))) return false
  // Only who likes the ride may mean that travel is used as it should be.
  if (id === 'bottoms-on') return mark.strength === 1 || (last.feel?.rating ?? 0) >= likedFrom
  if (id === 'lever-open') return isUnreadLever(c, mark.end)
  if (id === 'since-hot') {
    const found = c.h.setups.find((s) => s.id === c.h.startSetupId)?.foundIn?.airTempC ?? null
    return found === null && (conditionsNow(c.h).airTempC ?? -99) >= warmFromC
  }
  return true
}

const endsOf = (mark: Mark): readonly End[] => (mark.end === 'both' ? ['front', 'rear'] : [mark.end])

function isUnreadLever(c: Climb, end: Mark['end']): boolean {
  const lever = end === 'both' ? null : hasLever(c, end)
  return lever !== null && !c.positions.has(lever.id)
}

interface Imagined {
  /** Points that knowing brings over acting at once. */
  worth: number
  /** Two answers that may well come lead to different causes, whatever the dials say. */
  parts: boolean
  leads: { answer: string; label: string; mayCome: boolean; climb: Climb }[]
}

function imagine(c: Climb, last: HistoryRun, q: Open): Imagined {
  const rule: QuestionRule = questionRules[q.id]
  const now = c.outlook()
  const { fitted } = now
  const even = new Float64Array(fitted.surface.samples).fill(1)
  const present = lastAnswerWeights(c.h, c.space, fitted) ?? even
  const days = Object.keys(rule.answers).map((answer) => {
    const day = withAnswer(c.h, last.run.id, { question: q.id, end: q.end, answer })
    return { answer, day, weights: lastAnswerWeights(day, c.space, fitted) }
  })
  const chances = chancesOf(
    present,
    days.map((d) => d.weights ?? even),
  )
  let expected = 0
  const isVerdict = q.id === 'than-before'
  const leads = days.map(({ answer, day, weights }, i) => {
    const known = outlookOn(day, c.space, fitted, weights)
    expected += chances[i] * bestWorth(known)
    return {
      answer,
      label: rule.answers[answer],
      mayCome: isVerdict
        ? chances[i] >= verdictMayComeFrom
        : answerChance(c.causes(), q, answer) >= mayComeFrom,
      climb: {
        ...climbOf(day, c.space, () => known),
        // An answer changes no rating.
        ...(isVerdict ? {} : { session: c.session }),
        imagined: true,
      },
    }
  })
  const tops = leads.filter((l) => l.mayCome).map((l) => leader(l.climb.causes()))
  return {
    worth: Math.max(0, expected - bestWorth(now)),
    parts: new Set(tops).size > 1,
    leads,
  }
}

/** Chance of each answer over the samples as they are weighed now. */
function chancesOf(present: Float64Array, answered: readonly Float64Array[]): number[] {
  const out = answered.map(() => 0)
  let total = 0
  for (let i = 0; i < present.length; i++) {
    let sum = 0
    for (const w of answered) sum += w[i]
    answered.forEach((w, a) => (out[a] += (present[i] * w[i]) / sum))
    total += present[i]
  }
  return out.map((x) => x / total)
}

/** How likely an answer is by the causes that are alive now. */
function answerChance(causes: readonly Cause[], q: Open, answer: string): number {
  const rule: QuestionRule = questionRules[q.id]
  const even = 1 / Object.keys(rule.answers).length
  return causes.reduce((t, cause) => {
    const given = rule.given.find(
      (g) => g.kind === cause.kind && (g.at === 'bike' ? null : g.at === 'same' ? q.end : g.at) === cause.end,
    )
    return t + cause.probability * (given?.shares[answer] ?? even)
  }, 0)
}

const bestWorth = (s: Outlook) => (s.candidates.length > 0 ? Math.max(0, worth(s.candidates[0])) : 0)
const leader = (causes: readonly Cause[]) => (causes.length > 0 ? `${causes[0].kind} ${causes[0].end}` : '')

/**
 * Two cards ask for the same when they turn the same parts the same way, or turn nothing under the same headline. Reading
 * sag and pumping are one errand: with the pump in hand.
 */
function turnKey(p: Proposal, space: SetupSpace): string {
  if (p.readEnd) return `spring ${p.readEnd}`
  const [only, ...more] = p.moves
  if (only && more.length === 0) {
    const part = space[only.end]?.adjusters.find((a) => a.id === only.adjusterId)
    if (part?.role === 'main-pressure') return `spring ${only.end}`
  }
  return only
    ? p.moves.map((m) => `${m.adjusterId} ${Math.sign(m.to - m.from)}`).join(', ')
    : `${p.kind} ${p.headline}`
}

function askCard(c: Climb, last: HistoryRun, q: Open, question: AskedQuestion): Proposal {
  return {
    ...plain('ask', asked(c, q), 'The answers lead different ways, and asking costs no run.', ''),
    speaksFor: [
      reason(raisedBy(c, last, q), last.run.id),
      ...(question.worth >= worthSaying
        ? [reason(`Knowing it first is worth ${question.worth.toFixed(1)} rating points on the next run`)]
        : []),
    ],
    question,
    causes: c.causes(),
  }
}

function asked(c: Climb, q: Open): string {
  if (q.id === 'than-before') return `Better or worse than run ${c.counted.at(-2)!.number}?`
  const rule: QuestionRule = questionRules[q.id]
  if (!q.end) return rule.ask
  return `${q.end === 'front' ? 'Front' : 'Rear'}: ${rule.ask.charAt(0).toLowerCase()}${rule.ask.slice(1)}`
}

function raisedBy(c: Climb, last: HistoryRun, q: Open): string {
  const rating = last.feel?.rating ?? null
  if (q.id === 'than-before') {
    const before = c.counted.at(-2)!.number
    return rating !== null && c.counted.at(-2)!.feel?.rating === rating
      ? `Runs ${before} and ${last.number} are both rated ${rating}: the numbers do not say what the turn between them did`
      : `No two numbers say what the turn between runs ${before} and ${last.number} did`
  }
  return q.mark
    ? `“${wordRules[q.mark.word].label}” on run ${last.number}`
    : `Run ${last.number} was rated ${rating}, and nothing was complained of`
}
