import type { End } from '#contract/common'
import type { QuestionId } from '#contract/question'
import { adjusterName, familyOf } from '../../adjusters/words.ts'
import { questionRules } from '../../causes/questions.ts'
import { wordRules } from '../../causes/words.ts'
import type { PracticeDay, PracticeRun } from '../day.ts'
import type { HiddenRider } from '../hiddenRider.ts'
import { lossOfDial, offsetsOf, type Positions } from '../landscape.ts'
import { gaps } from '../onTheBike.ts'
import { misheardWords } from './heard.ts'

/** How a run stands in the review. */
export type Standing = 'well-done' | 'found' | 'open' | 'missed'

/** What a rule is told of one run. */
export interface RunInDay {
  rider: HiddenRider
  day: PracticeDay
  /** Place in `day.runs`. */
  at: number
  run: PracticeRun
  /** The earlier run whose settings are nearest, the latest of them: what it can be compared with. */
  against: PracticeRun | null
  /** Dials that stand elsewhere than at that run, or at the start. */
  turned: string[]
  /** Whether something else was ridden in between. */
  isBack: boolean
  /** Rating points that the settings of this run are better by than those before: of `against`, or, gone back, of the run before. */
  gain: number
}

/** A run of a day as the rules see it. @param at place in `day.runs` */
export function runInDay(rider: HiddenRider, day: PracticeDay, at: number): RunInDay {
  const run = day.runs[at]
  const differ = (x: Positions) => Object.keys(run.byHand).filter((id) => run.byHand[id] !== x[id])
  const earlier = day.runs.slice(0, at).reverse()
  const against = earlier.reduce<PracticeRun | null>(
    (best, x) => (best && differ(best.byHand).length <= differ(x.byHand).length ? best : x),
    null,
  )
  const turned = differ(against?.byHand ?? rider.start)
  const before = day.runs[at - 1] ?? null
  const isBack = against !== null && turned.length === 0 && differ(before.byHand).length > 0
  // Both at this run: what the heat does in between is no gain of a change.
  const lost = (x: PracticeRun) => rider.lossAt(x.positions, run.number)
  const from = isBack ? before : against
  return { rider, day, at, run, against, turned, isBack, gain: from ? lost(from) - lost(run) : 0 }
}

export interface ReviewRule {
  /** The rule as it is printed. */
  when: string
  standing: Standing
  /** What it says of a run; null where it does not apply. */
  says: (r: RunInDay) => string | null
}

/** A step that a rider feels, rating points. */
export const feltStep = 0.5
/** Differences this small cannot be heard in one rating of this rider: a share of the scatter. */
const tooSmallShare = 0.6
const points = (x: number) => x.toFixed(1)

const actsUpTo = (r: RunInDay) => r.day.runs.slice(0, r.at + 1).flatMap((x) => x.since)
/** Questions that tell the causes of a word apart, by the word. */
function openQuestion(r: RunInDay): { word: string; end: End; ask: string; id: QuestionId } | null {
  const marks = r.day.bundle.feels[r.at - 1]?.marks ?? []
  for (const m of marks) {
    if (m.end === 'both') continue
    for (const [id, rule] of Object.entries(questionRules))
      if (rule.kind === 'question' && rule.of === 'end' && rule.words.includes(m.word))
        return { word: wordRules[m.word].label, end: m.end, ask: rule.ask, id: id as QuestionId }
  }
  return null
}
/** What did not stand where it was written to before anybody looked for this run. */
function gapsBefore(r: RunInDay): Positions {
  const before = r.day.runs[r.at - 1] as RunInDay['run'] | undefined
  const { start, written, leaks } = r.rider
  if (!before) return gaps({ stands: start, written })
  // A run takes out what leaks, after it was ridden.
  return { ...before.gaps, ...Object.fromEntries([...leaks].map(([id, clicks]) => [id, -clicks])) }
}
const nameOf = (r: RunInDay, id: string) => {
  const d = r.rider.dials.find((x) => x.adjuster.id === id)!
  return `${d.end} ${adjusterName(d.adjuster).toLowerCase()}`
}
const capital = (text: string) => text.charAt(0).toUpperCase() + text.slice(1)
const wasAsked = (r: RunInDay, id: QuestionId) =>
  r.day.runs.slice(0, r.at + 1).some((x) => x.since.some((a) => a.do === 'ask' && a.question === id))

/** The end whose spring stands off by more than is felt, unread, when a damper of it is turned for the first time. */
function springBehind(r: RunInDay): End | null {
  const { rider, run } = r
  const likes = rider.likesAt(run.number)
  const off = offsetsOf(likes, run.positions)
  const dampers = (end: End) =>
    rider.dials.filter((d) => d.end === end && familyOf(d.adjuster) !== 'spring').map((d) => d.adjuster.id)
  for (const end of ['front', 'rear'] as const) {
    const k = rider.dials.findIndex((d) => d.end === end && d.adjuster.role === 'main-pressure')
    const isFirst =
      dampers(end).some((id) => r.turned.includes(id)) &&
      r.day.runs.slice(0, r.at).every((x) => dampers(end).every((id) => x.byHand[id] === rider.start[id]))
    const wasRead = actsUpTo(r).some((a) => a.do === 'read' && a.end === end)
    if (isFirst && !wasRead && k >= 0 && lossOfDial(likes, k, off[k]) > feltStep) return end
  }
  return null
}

/**
 * What each run could have told. The first rule that applies speaks; the page prints them all. Each looks only at what
 * was done and at what was hidden, never at luck: a step in the right direction is right, whatever the rating said.
 */
export const reviewRules = {
  noBaseline: {
    when: 'Something was turned before the first run.',
    standing: 'missed',
    says: (r) =>
      r.at === 0 && r.turned.length > 0
        ? 'Turned before the first run: there is no baseline to hold it against'
        : null,
  },
  twoAtOnce: {
    when: 'Two or more things were changed before a run, other than as a card asked.',
    standing: 'open',
    says: (r) =>
      r.turned.length > 1 && !r.run.since.some((a) => a.do === 'turn' && a.source === 'proposal')
        ? `${r.turned.length} things at once: whatever this run says, nobody knows which of them it was`
        : null,
  },
  unnoted: {
    when: 'What the rider said was to be noted by hand, and no rating was.',
    standing: 'missed',
    says: (r) =>
      r.run.byHandNoted && noted(r).rating === null
        ? `The rider gave it a ${r.run.said.rating}, and nobody noted it: nothing can be held against this run`
        : null,
  },
  misheard: {
    when: `What was noted by hand is not what the rider said: another word or end, or a rating at least ${feltStep} off.`,
    standing: 'open',
    says: (r) => (r.run.byHandNoted ? misheardWords(r.run.said, noted(r), feltStep) : null),
  },
  springBehind: {
    when: 'A damper was turned at an end whose spring was off, and sag had never been read there.',
    standing: 'missed',
    says: (r) => {
      const end = springBehind(r)
      return end && `The ${end} spring was off. To read sag costs a minute and no run; it would have said so`
    },
  },
  lookedAndFound: {
    when: 'Something was counted or gauged, and did not stand where it was written to.',
    standing: 'found',
    says: (r) => {
      const looked = r.run.since.find((a) => a.do === 'look' && a.adjusterId in gapsBefore(r))
      if (looked?.do !== 'look') return null
      return `Looked before it was believed: ${nameOf(r, looked.adjusterId)} did not stand where it was written to`
    },
  },
  countedOn: {
    when: 'A dial was turned on a count that nobody had looked at, and it was wrong.',
    standing: 'missed',
    says: (r) => {
      const blind = r.turned.find((id) => id in r.run.gaps)
      return blind === undefined
        ? null
        : `${capital(nameOf(r, blind))} was turned on a count that was wrong. To count it takes a minute and no run`
    },
  },
  back: {
    when: 'It had got worse, and what was changed was put back.',
    standing: 'well-done',
    says: (r) =>
      r.isBack && r.gain > 0 ? 'Back to what was better: now it is known which way is wrong' : null,
  },
  found: {
    when: `A change brought at least ${feltStep} rating points.`,
    standing: 'found',
    says: (r) =>
      r.gain >= feltStep && r.turned.length > 0
        ? `${points(r.gain)} points nearer${isBiggest(r) ? ': the biggest step of the day' : ''}`
        : null,
  },
  questionOpen: {
    when: 'A word fits several causes, a question would have told them apart, and something was turned without it.',
    standing: 'open',
    says: (r) => {
      const q = r.turned.length > 0 && r.gain < 0 ? openQuestion(r) : null
      return q && !wasAsked(r, q.id)
        ? `“${q.word}” fits several causes. To ask the rider costs no run: “${q.ask}”`
        : null
    },
  },
  worse: {
    when: `A change cost at least ${feltStep} rating points.`,
    standing: 'open',
    says: (r) =>
      r.gain <= -feltStep && r.turned.length > 0
        ? `${points(-r.gain)} points further away: the other way, or another dial`
        : null,
  },
  tooSmall: {
    when: 'A step made less difference than this rider’s scatter: one rating could not show it.',
    standing: 'open',
    says: (r) =>
      r.turned.length > 0 && Math.abs(r.gain) < tooSmallShare * r.rider.noticeable
        ? `A difference of ${points(Math.abs(r.gain))} points, where ratings scatter by ${points(r.rider.drill.temper.noise)}: one run cannot show it`
        : null,
  },
  sameAgain: {
    when: 'The same setup was ridden a second time.',
    standing: 'well-done',
    says: (r) =>
      r.against && r.turned.length === 0 && !r.isBack && timesRidden(r) === 2
        ? 'The same again: what differs now is the scatter, not the bike'
        : null,
  },
  oneMore: {
    when: 'The same setup was ridden a third time or more.',
    standing: 'open',
    says: (r) =>
      r.against && r.turned.length === 0 && !r.isBack && timesRidden(r) > 2
        ? 'The same once more: it told little that was not known'
        : null,
  },
  baseline: {
    when: 'The first run was ridden as the bike stood.',
    standing: 'well-done',
    says: (r) =>
      r.at === 0 && r.turned.length === 0 ? 'The baseline: everything later is held against it' : null,
  },
} as const satisfies Record<string, ReviewRule>

const noted = (r: RunInDay) => r.day.bundle.feels[r.at]

const isBiggest = (r: RunInDay) =>
  r.day.runs.every((_, i) => i === r.at || runInDay(r.rider, r.day, i).gain < r.gain)
const timesRidden = (r: RunInDay) => {
  const key = JSON.stringify(r.run.positions)
  return r.day.runs.slice(0, r.at + 1).filter((x) => JSON.stringify(x.positions) === key).length
}
