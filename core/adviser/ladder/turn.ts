import type { Cause, Proposal } from '#contract/proposal'
import type { AskedQuestion } from '#contract/question'
import { cannotSay, questionRules } from '../../causes/questions.ts'
import { answerTo } from '../answers.ts'
import { forAndAgainst, noAnswerCard, plain, reason, repeatCard } from '../cards.ts'
import { cautionFor, changeCard, stepWords } from '../change.ts'
import type { Candidate } from '../candidates.ts'
import { choice, movedToday, worth } from '../decide.ts'
import { settingsKey } from '../history.ts'
import { answersOf, isOneOf, remedyMoves } from '../remedies.ts'
import { watchFor } from '../watch.ts'
import type { Climb, Rung } from './climb.ts'
import { causesOf, complaintsOf } from './complaint.ts'
import { backToBetter } from './earlier.ts'
import { leadsBack } from './leadsBack.ts'
import { hasComplaint } from './settle.ts'
import { bestOf, likelyFrom } from './useful.ts'

const worthDisturbing = 0.25
/** Ridden this often on the same settings, another repeat tells nothing new. */
const repeatsEnough = 3
/** Rated so highly once, it is ridden again before anything is turned to find out. */
const prizedFrom = 9
const checkedByHand: readonly Cause['kind'][] = ['tyres', 'stiction']

/** The turn that the surface makes most worthwhile, one adjuster or a pair that belongs together. */
export const turn: Rung = (c) => {
  const best = bestOf(c)
  if (!best || worth(best) < choice.leastWorth) return null
  const byTheBook = isGuessElsewhere(c, best) ? bookMove(c) : null
  if (byTheBook && !byTheBook.moves.some((m) => movedToday(c.h).has(m.adjusterId))) return byTheBook
  return best.gain < 0 && isPrizedOnce(c)
    ? repeatCard(
        `Rated ${c.onNow[0].feel!.rating}, once. Whether that holds comes before a turn that is more likely to lose than to gain.`,
        [],
        c.causes(),
      )
    : changeCard(c.h, c.space, c.outlook().dials, best, c.causes(), c.positions)
}

/** While something is complained of: expected to gain nothing, and no answer to it. */
function isGuessElsewhere(c: Climb, best: Candidate): boolean {
  const complaints = complaintsOf(c)
  if (best.gain > 0 || complaints.length === 0) return false
  const turns = causesOf(c, complaints).flatMap((x) => answersOf(x.kind, x.end, c.space))
  return !best.steps.some(isOneOf(turns, c.outlook().dials))
}

/** Ridden once, rated as highly as hardly any run, and nothing complained of. */
const isPrizedOnce = (c: Climb) =>
  c.onNow.length === 1 && (c.onNow[0].feel?.rating ?? 0) >= prizedFrom && !hasComplaint(c.onNow[0])

/** What no dial answers is looked at by hand before anything is turned, once per setting. */
export const byHand: Rung = (c) => {
  const causes = c.causes()
  const s = c.outlook()
  const best = bestOf(c)
  const answerable = causes.some(
    (x) => x.probability >= likelyFrom && remedyMoves(x.kind, x.end, c.space, c.positions).length > 0,
  )
  const lookFirst = checkedByHand.includes(causes[0].kind) && c.onNow.length < 2
  const nothingElse = !best || (lookFirst ? best.gain < worthDisturbing : worth(best) < choice.leastWorth)
  return s.dials.length === 0 || (!answerable && causes[0].kind !== 'none' && nothingElse)
    ? noAnswerCard(causes, stickQuestion(c, causes[0]))
    : null
}

/** Pushing a unit down slowly tells whether it sticks: asked with the card that says so. */
function stickQuestion(c: Climb, { kind, end }: Cause): AskedQuestion | null {
  const last = c.onNow[c.onNow.length - 1]
  if (kind !== 'stiction' || !last || answerTo(c.h.runs, 'sticks', end)) return null
  const { answers } = questionRules.sticks
  return {
    id: 'sticks',
    end,
    runId: last.run.id,
    worth: 0,
    answers: [
      { id: 'moves-freely', label: answers['moves-freely'], leadsTo: 'Then it is not the seals' },
      { id: 'sticks', label: answers.sticks, leadsTo: 'Service before any click' },
      { id: cannotSay, label: 'Can’t say', leadsTo: 'Go on without' },
    ],
  }
}

/** Nothing promises a gain: another look at these settings, and after enough of them rest. */
export const lookAgain: Rung = (c) => {
  const { doubt, allRead } = c.outlook()
  const left = [
    reason(
      `Chance that something clearly better is left${allRead ? '' : ' among the parts that were read'}: ${Math.round(100 * doubt)} %.`,
    ),
    ...(allRead ? [] : [reason('Of what nobody has read nothing is known')]),
  ]
  const isComplaining = complaintsOf(c).length > 0
  const other = isComplaining ? (bookMove(c) ?? backToBetter(c)) : null
  if (other) return other
  if (isComplaining)
    return {
      ...plain(
        'check-first',
        'No dial left for this',
        'What is fitted was tried, and nothing promises better than where it stands. What is left: sag and tyres, spacers, another spring, a workshop. Or the trail is so.',
        'Another word on the next run.',
      ),
      speaksFor: left,
      causes: c.causes(),
    }
  if (c.onNow.length >= repeatsEnough)
    return {
      ...plain(
        'leave-it',
        'Nothing more to learn here today',
        'No single change promises a gain that would be felt. Keep it, and come back on another day or another trail.',
        'A complaint in the same place on two runs.',
      ),
      speaksFor: left,
      causes: c.causes(),
    }
  return repeatCard(
    'Nothing else promises more than another look at this. Same line, same speed.',
    left,
    c.causes(),
  )
}

/** What the likeliest cause of the complaint asks for, or what stands in for it, where those settings were not ridden yet. */
function bookMove(c: Climb): Proposal | null {
  const [cause] = causesOf(c, complaintsOf(c))
  const move = cause && remedyMoves(cause.kind, cause.end, c.space, c.positions)[0]
  if (!move || !c.now || cause.probability < likelyFrom) return null
  if (leadsBack(c, [{ end: move.end, adjusterId: move.adjuster.id, from: move.from, to: move.to }]))
    return null
  const key = settingsKey({
    ...c.now,
    positions: c.now.positions.map((p) => (p.adjusterId === move.adjuster.id ? { ...p, value: move.to } : p)),
  })
  if (c.session().level(key).runs > 0) return null
  const { watch, changeOurMind } = watchFor(cause.kind, cause.end, null)
  return {
    ...plain('change', stepWords(move.end, move.adjuster, move.from, move.to, c.space), watch, changeOurMind),
    moves: [{ end: move.end, adjusterId: move.adjuster.id, from: move.from, to: move.to }],
    ...forAndAgainst(cause),
    caution: [move.sideEffect, cautionFor(move.adjuster)].filter(Boolean).join(' '),
    causes: c.causes(),
  }
}
