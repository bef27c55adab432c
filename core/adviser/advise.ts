import type { Cause, Proposal } from '#contract/proposal'
import { adjusterName } from '../adjusters/words.ts'
import { springCauses } from '../causes/kinds.ts'
import { isComplaint } from '../causes/words.ts'
import type { Session } from '../stats/session.ts'
import { judge } from '../stats/verdict.ts'
import { moveWords } from '../setup/diff.ts'
import { changesMade } from '../setup/undo.ts'
import type { Candidate } from './candidates.ts'
import {
  firstRunCard,
  forAndAgainst,
  goBackCard,
  noAnswerCard,
  plain,
  reason,
  repeatCard,
  untangleCard,
} from './cards.ts'
import { changeCard, separatingCard } from './change.ts'
import { clicksOf } from './clues.ts'
import { choice, standingOf, worth, type Standing } from './decide.ts'
import { diagnose } from './diagnose.ts'
import type { DayHistory, HistoryRun, SetupSpace } from './dayHistory.ts'
import { countedRuns, keyOfRun, sessionOf, setupOf, settingsKey, stillPossible } from './history.ts'
import { raceAdvice } from './race.ts'
import { remedyMoves } from './remedies.ts'
import { evidenceReturned } from './returning.ts'
import { findTangle } from './tangle.ts'

const lookAlikeFactor = 2
const worseBelow = 0.3
const happyRating = 8
/** A happy rider is only disturbed for more than this, rating points. */
const worthDisturbing = 0.25
/** What a place that was ridden is worth over one that is only expected, rating points. */
const knownPlaceBonus = 0.3
/** Causes below this are not worth a change of their own. */
const likelyFrom = 0.15
const checkedByHand: readonly Cause['kind'][] = ['tyres', 'stiction']

/**
 * The most useful next step of the day. A pure function of what was ridden and what can be turned.
 *
 * Order: something to judge first; then untangle, go back, stop; then springs that are measurably wrong; a test where
 * two causes ask for opposite moves; then the change the surface makes most worthwhile, or a repeat.
 *
 * @param standing where the day stands by its surface, when it is known already
 */
export function advise(
  h: DayHistory,
  space: SetupSpace,
  standing: () => Standing = () => standingOf(h, space),
): Proposal {
  const counted = countedRuns(h)
  if (h.settledSetupId !== null)
    return (
      evidenceReturned(h) ??
      plain(
        'leave-it',
        'Settled. Leave it alone.',
        'Ride. New evidence opens the day again.',
        'A complaint on two runs.',
      )
    )
  if (counted.length === 0) return firstRunCard(h.runs.some((r) => r.run.kind === 'warm-up'))
  const last = h.runs[h.runs.length - 1]
  const lastCounted = counted[counted.length - 1]
  if (lastCounted === last && !hasFeel(lastCounted)) {
    return plain(
      'tell-the-feel',
      `Run ${lastCounted.number}: say how it felt`,
      'Feel first, then data. A rating and one word are enough.',
      'Nothing can be judged before it is said.',
    )
  }
  const causes = diagnose(h, space)
  const tangle = findTangle(h, space)
  if (tangle)
    return untangleCard(
      tangle.moves.map((m) => moveWords(m, space.units)),
      tangle.before,
      causes,
    )
  const session = sessionOf(h)
  const now = setupOf(h, h.currentSetupId)
  const nowKey = now ? settingsKey(now) : ''
  const onNow = counted.filter((r) => keyOfRun(h, r) === nowKey)
  const changes = changesMade(h.setups, h.dayId)
  const back = betterBefore(h, space, session, nowKey, onNow.length > 0)
  const goBack = () => goBackCard(back!.target, back!.words, back!.probability, causes)
  const enough = changes >= h.changeLimit
  if (back && (enough || h.purpose === 'race')) return goBack()
  if (enough && h.purpose !== 'race') return { ...enoughCard(changes), causes }
  const s = standing()
  const positions = new Map(now?.positions.map((p) => [p.adjusterId, p.value] as const))
  if (h.purpose === 'race') return raceAdvice(h, space, causes, s, positions)
  if (s.settled) return settledCard(h, s, causes)
  const useful = s.candidates.filter((c) => !alreadyWorse(h, c, s, session, nowKey))
  const best = bestOf(useful, s, causes, space, positions)
  // Going on from here beats going back only where the surface knows a clearly better place than the one behind.
  if (back) {
    const gain = gainOfSetup(h, s, back.target.run.setupId)
    if (gain > worthDisturbing && (best?.gain ?? 0) < gain + knownPlaceBonus) return goBack()
  }
  if (wouldSettle(s))
    return repeatCard(
      'One more run on the same settings, same line and speed: if it feels the same, it is settled.',
      [reason(`Chance that something clearly better is left: ${Math.round(100 * s.doubt)} %.`)],
      causes,
    )
  // Who was happy twice is left alone unless the gain would be felt.
  const disturbing = onNow.length >= 2 ? s.noticeable : worthDisturbing
  if (isHappy(onNow, causes) && (!best || best.gain < disturbing)) return { ...happyCard(causes) }
  const test = separating(h, space, s, useful, causes, positions)
  if (test) return test
  const answerable = causes.some(
    (c) => c.probability >= likelyFrom && remedyMoves(c.kind, c.end, space, positions).length > 0,
  )
  // Tyres and sticking parts are looked at before anything is turned; what no fitted dial answers is said when nothing else is left.
  const lookFirst = checkedByHand.includes(causes[0].kind) && onNow.length < 2
  const nothingElse = !best || (lookFirst ? best.gain < worthDisturbing : worth(best) < choice.leastWorth)
  if (s.dials.length === 0 || (!answerable && causes[0].kind !== 'none' && nothingElse))
    return noAnswerCard(causes)
  if (!best || worth(best) < choice.leastWorth)
    return repeatCard(
      'Nothing else promises more than another look at this. Same line, same speed.',
      [reason(`Chance that something clearly better is left: ${Math.round(100 * s.doubt)} %.`)],
      causes,
    )
  return changeCard(h, space, s.dials, best, causes, positions)
}

/** An earlier setup that the runs so far call better than the present one. */
function betterBefore(
  h: DayHistory,
  space: SetupSpace,
  session: Session,
  nowKey: string,
  ridden: boolean,
): { target: HistoryRun; words: string; probability: number } | null {
  const rated = session.setups.filter((s) => session.level(s).runs > 0)
  const best = rated.reduce<string | null>(
    (b, s) => (b === null || session.level(s).mean > session.level(b).mean ? s : b),
    null,
  )
  if (!ridden || best === null || best === nowKey) return null
  const v = judge(session, best, nowKey)
  const target = [...countedRuns(h)].reverse().find((r) => keyOfRun(h, r) === best)
  const setup = target && setupOf(h, target.run.setupId)
  return v.probability < worseBelow && setup && stillPossible(setup, space)
    ? { target, words: v.words, probability: v.probability }
    : null
}

/** Expected gain of going over to other settings as a whole, rating points. */
function gainOfSetup(h: DayHistory, s: Standing, setupId: string): number {
  const here = s.surface.lossAt(clicksOf(h, h.currentSetupId, s.dials, null))
  const there = s.surface.lossAt(clicksOf(h, setupId, s.dials, null))
  return here.reduce((t, x, i) => t + x - there[i], 0) / s.surface.samples
}

/** No single change is likely to be clearly better, and little doubt is left; only the second run is missing. */
function wouldSettle(s: Standing): boolean {
  return (
    s.dials.length > 0 &&
    s.runsHere < choice.settleRuns &&
    s.doubt < choice.settleDoubt &&
    s.candidates.every((c) => c.clearlyBetter < choice.settleCandidate)
  )
}

function settledCard(h: DayHistory, s: Standing, causes: Cause[]): Proposal {
  const likeliest = s.candidates.reduce<Candidate | null>(
    (b, c) => (b === null || c.clearlyBetter > b.clearlyBetter ? c : b),
    null,
  )
  const moved = new Set(
    h.setups.flatMap((x) =>
      x.positions
        .filter((p) => {
          const start = setupOf(h, h.startSetupId)?.positions.find((q) => q.adjusterId === p.adjusterId)
          return start !== undefined && Math.abs(start.value - p.value) > 1e-6
        })
        .map((p) => p.adjusterId),
    ),
  )
  const dial = likeliest && s.dials[likeliest.steps[0].dial]
  return {
    ...plain(
      'settled',
      'Settled: leave it alone',
      'Save it as the setup for this trail and these conditions, and ride.',
      'The same complaint on two runs, other weather, or another trail.',
    ),
    speaksFor: [
      reason(`Ridden ${s.runsHere} times on these settings, and it felt alike`),
      reason(
        `Chance that anything reachable is better by more than ${s.noticeable.toFixed(1)} points, which is what you would notice: ${Math.round(100 * s.doubt)} %`,
      ),
      ...(likeliest && dial
        ? [
            reason(
              `The likeliest single change, ${dial.end} ${adjusterName(dial.adjuster).toLowerCase()}, would be clearly better with ${Math.round(100 * likeliest.clearlyBetter)} %`,
            ),
          ]
        : []),
      ...(moved.size > 0
        ? [reason(`${moved.size} of ${s.dials.length} adjusters were tried elsewhere today`)]
        : []),
    ],
    causes,
  }
}

function happyCard(causes: Cause[]): Proposal {
  const [top] = causes
  return {
    ...plain(
      'leave-it',
      'Leave it alone',
      'Nothing speaks clearly against it. Ride it again, or call it settled.',
      'A complaint in the same place on two runs.',
    ),
    causes,
    speaksFor: top?.kind === 'none' ? forAndAgainst(top).speaksFor : [],
  }
}

function enoughCard(changes: number): Proposal {
  return plain(
    'leave-it',
    `${changes} changes today. Enough.`,
    'Ride the best one and enjoy it. Tomorrow starts with a clear head.',
    'Nothing today.',
  )
}

/** Nothing was complained of on these settings, and it was rated well or nothing seems wrong. */
function isHappy(onNow: readonly HistoryRun[], causes: readonly Cause[]): boolean {
  const complaints = onNow.some((r) => r.feel?.marks.some((m) => isComplaint(m.word)))
  const rating = onNow[onNow.length - 1]?.feel?.rating ?? null
  return causes[0]?.kind === 'none' || (!complaints && rating !== null && rating >= happyRating)
}

/** While a spring is measurably wrong it comes before any damper: a damper cannot repair it. */
function bestOf(
  candidates: readonly Candidate[],
  s: Standing,
  causes: readonly Cause[],
  space: SetupSpace,
  positions: ReadonlyMap<string, number>,
): Candidate | null {
  const measured = causes.find(
    (c) =>
      springCauses.includes(c.kind) &&
      c.probability >= likelyFrom &&
      c.evidence.some((e) => e.weight > 0.5 && e.link.kind === 'metric'),
  )
  const move = measured && remedyMoves(measured.kind, measured.end, space, positions)[0]
  if (move && !move.sideEffect) {
    const first = candidates.find(
      (c) =>
        c.steps.length === 1 &&
        s.dials[c.steps[0].dial].adjuster.id === move.adjuster.id &&
        Math.sign(c.steps[0].to - c.steps[0].from) === move.direction,
    )
    if (first) return first
  }
  return candidates[0] ?? null
}

/** Whether a single step leads to settings that were ridden and judged worse than these. */
function alreadyWorse(h: DayHistory, c: Candidate, s: Standing, session: Session, nowKey: string): boolean {
  const now = setupOf(h, h.currentSetupId)
  if (!now || session.level(nowKey).runs === 0) return false
  const to = new Map(c.steps.map((x) => [s.dials[x.dial].adjuster.id, x.to]))
  const key = settingsKey({
    ...now,
    positions: now.positions.map((p) => ({ ...p, value: to.get(p.adjusterId) ?? p.value })),
  })
  return session.level(key).runs > 0 && session.compare(nowKey, key).probability < worseBelow
}

/** The likeliest causes ask for opposite turns of one dial that nobody has moved yet: find out first. */
function separating(
  h: DayHistory,
  space: SetupSpace,
  s: Standing,
  candidates: readonly Candidate[],
  causes: Cause[],
  positions: ReadonlyMap<string, number>,
): Proposal | null {
  const answers = causes.flatMap((cause) => {
    const [move] = remedyMoves(cause.kind, cause.end, space, positions)
    return move && !move.sideEffect ? [{ cause, move }] : []
  })
  const [first] = answers
  if (!first) return null
  const id = first.move.adjuster.id
  const rival = answers.find(
    (a) => a !== first && a.move.adjuster.id === id && a.move.direction !== first.move.direction,
  )
  if (!rival || first.cause.probability >= lookAlikeFactor * rival.cause.probability) return null
  const tried = new Set(h.setups.map((x) => x.positions.find((p) => p.adjusterId === id)?.value))
  if (tried.size > 1) return null
  const probe = candidates.find(
    (c) =>
      c.steps.length === 1 && s.dials[c.steps[0].dial].adjuster.id === id && c.steps[0].to === first.move.to,
  )
  return probe ? separatingCard(h, space, s.dials, probe, first.cause, rival.cause, causes, positions) : null
}

function hasFeel(r: HistoryRun): boolean {
  return r.feel !== null && (r.feel.rating !== null || r.feel.marks.length > 0)
}
