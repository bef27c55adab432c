import type { End } from '#contract/common'
import type { Cause, Evidence, Proposal, ProposalKind } from '#contract/proposal'
import { adjusterName, distanceWords, effectWord } from '../adjusters/words.ts'
import { causeLabel, springCauses } from '../causes/kinds.ts'
import { isComplaint } from '../causes/words.ts'
import type { Session } from '../stats/session.ts'
import { judge } from '../stats/verdict.ts'
import { moveWords } from '../setup/diff.ts'
import type { UnitChoice } from '../units/choice.ts'
import { diagnose } from './diagnose.ts'
import {
  countedRuns,
  sessionOf,
  setupOf,
  settingsKey,
  stillPossible,
  type DayHistory,
  type HistoryRun,
  type SetupSpace,
} from './history.ts'
import { remedyMoves, type RemedyMove } from './remedies.ts'
import { findTangle } from './tangle.ts'
import { separatingTest, watchFor } from './watch.ts'

const lookAlikeFactor = 2
const worseBelow = 0.3
const happyRating = 8

/**
 * The most useful next step of the day. A pure function of what was ridden and what can be turned, so that its inside
 * can be replaced without touching anything around it.
 *
 * Order: something to judge first; then untangle, go back, repeat; then the likeliest cause that can be answered,
 * springs before dampers, one change, inside the range.
 */
export function advise(h: DayHistory, space: SetupSpace): Proposal {
  const counted = countedRuns(h)
  const last = h.runs[h.runs.length - 1]
  if (h.settledSetupId !== null)
    return plain(
      'leave-it',
      'Settled. Leave it alone.',
      'Ride. New evidence opens the day again.',
      'A complaint on two runs.',
    )
  if (counted.length === 0) return firstRun(h)
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
    return untangle(
      tangle.moves.map((m) => moveWords(m, space.units)),
      tangle.before,
      causes,
    )

  const session = sessionOf(h)
  const now = setupOf(h, h.currentSetupId)
  const nowKey = now ? settingsKey(now) : ''
  const rated = session.setups.filter((s) => session.level(s).runs > 0)
  const best = rated.reduce<string | null>(
    (b, s) => (b === null || session.level(s).mean > session.level(b).mean ? s : b),
    null,
  )
  const onNow = counted.filter((r) => keyOf(h, r) === nowKey)

  if (onNow.length > 0 && best !== null && best !== nowKey) {
    const v = judge(session, best, nowKey)
    const target = [...counted].reverse().find((r) => keyOf(h, r) === best)
    const back = target && setupOf(h, target.run.setupId)
    if (v.probability < worseBelow && back && stillPossible(back, space))
      return goBack(target, v.words, v.probability, causes)
  }
  const previous = [...counted].reverse().find((r) => keyOf(h, r) !== nowKey)
  if (onNow.length === 1 && previous && typeof onNow[0].feel?.rating === 'number') {
    const v = judge(session, keyOf(h, previous)!, nowKey)
    // A difference near the noise is worth a second look before anything else is turned.
    if (v.probability > worseBelow && v.probability < 0.8)
      return repeat(onNow[0], previous, v.probability, causes)
  }
  const changes = h.setups.filter(
    (s) => s.dayId !== null && s.id !== h.startSetupId && s.reason.source !== 'baseline',
  ).length
  if (changes >= h.changeLimit) {
    return {
      ...plain(
        'leave-it',
        `${changes} changes today. Enough.`,
        'Ride the best one and enjoy it. Tomorrow starts with a clear head.',
        'Nothing today.',
      ),
      causes,
    }
  }
  const top = causes[0]
  const complaints = onNow.some((r) => r.feel?.marks.some((m) => isComplaint(m.word)))
  const rating = onNow[onNow.length - 1]?.feel?.rating ?? null
  if (!top || top.kind === 'none' || (!complaints && rating !== null && rating >= happyRating)) {
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
  return answer(h, space, causes, session)
}

function answer(h: DayHistory, space: SetupSpace, causes: Cause[], session: Session): Proposal {
  const now = setupOf(h, h.currentSetupId)
  const positions = new Map(now?.positions.map((p) => [p.adjusterId, p.value] as const))
  const ordered = springsFirst(causes)
  const answers = ordered
    .map((cause) => ({
      cause,
      move: remedyMoves(cause.kind, cause.end, space, positions).find((m) => !alreadyWorse(h, m, session)),
    }))
    .filter((a): a is { cause: Cause; move: RemedyMove } => a.move !== undefined)
  if (answers.length === 0) return noAnswer(causes)
  const [first] = answers
  const rival = answers.find(
    (a) =>
      a !== first &&
      a.move.adjuster.id === first.move.adjuster.id &&
      a.move.direction !== first.move.direction,
  )
  if (rival && first.cause.probability < lookAlikeFactor * rival.cause.probability)
    return separate(h, first, rival.cause, causes, space.units)
  return change(h, first, causes, 'change', space.units)
}

/** While a spring is among the likely causes it comes before any damper: a damper cannot repair it. */
function springsFirst(causes: Cause[]): Cause[] {
  const measured = (c: Cause) =>
    springCauses.includes(c.kind) && c.evidence.some((e) => e.weight > 0.5 && e.link.kind === 'metric')
  const likely = causes.filter((c) => measured(c) && c.probability >= 0.15)
  return [...likely, ...causes.filter((c) => !likely.includes(c))]
}

/** Whether the same adjuster already stood at that place and was judged worse than here. */
function alreadyWorse(h: DayHistory, m: RemedyMove, session: Session): boolean {
  const now = setupOf(h, h.currentSetupId)
  if (!now) return false
  const nowKey = settingsKey(now)
  return h.setups.some((s) => {
    const there = s.positions.find((p) => p.adjusterId === m.adjuster.id)
    if (!there || Math.abs(there.value - m.to) > 1e-6) return false
    const key = settingsKey(s)
    return (
      session.level(key).runs > 0 &&
      session.level(nowKey).runs > 0 &&
      session.compare(nowKey, key).probability < worseBelow
    )
  })
}

function change(
  h: DayHistory,
  { cause, move }: { cause: Cause; move: RemedyMove },
  causes: Cause[],
  kind: ProposalKind,
  units: UnitChoice | undefined,
): Proposal {
  const sectionId = cause.evidence.find((e) => e.weight > 0 && e.link.sectionId)?.link.sectionId
  const section = h.sections.find((s) => s.id === sectionId)?.name ?? null
  const { watch, changeOurMind } = watchFor(cause.kind, cause.end, section)
  const end = move.end === 'front' ? 'Front' : 'Rear'
  return {
    kind,
    headline: `${end} ${adjusterName(move.adjuster).toLowerCase()}, ${distanceWords(move.adjuster, move.from, move.to, units)} ${effectWord(move.adjuster, move.from, move.to)}`,
    moves: [{ end: move.end, adjusterId: move.adjuster.id, from: move.from, to: move.to }],
    setupId: null,
    ...forAndAgainst(cause),
    watchFor: watch,
    changeOurMind,
    caution: move.sideEffect ?? cautionFor(move),
    causes,
  }
}

function cautionFor(m: RemedyMove): string {
  if (m.adjuster.kind === 'pressure')
    return 'Shock pump only, and never above the maximum printed on the unit. Then check sag and rebound again.'
  if (m.adjuster.kind === 'spacer')
    return 'Let all the air out slowly and cycle the unit before opening it. If unsure, leave it to a workshop.'
  if (m.adjuster.kind === 'spring-rate') return 'Change the spring by the manual, or leave it to a workshop.'
  return m.adjuster.role.includes('rebound')
    ? 'A wrong rebound setting can throw a rider: try it at low speed in a safe place first.'
    : 'Try it at low speed in a safe place first.'
}

function separate(
  h: DayHistory,
  first: { cause: Cause; move: RemedyMove },
  rival: Cause,
  causes: Cause[],
  units: UnitChoice | undefined,
): Proposal {
  const probe = change(h, first, causes, 'separating-test', units)
  return {
    ...probe,
    headline: `Two causes, opposite ways: find out which`,
    watchFor: separatingTest(first.cause.kind, rival.kind, first.cause.end),
    changeOurMind: `It is ${causeLabel(first.cause.kind, first.cause.end)} or ${causeLabel(rival.kind, rival.end)}. If the test cannot be ridden, one click is a fair probe: ${probe.headline.toLowerCase()}.`,
    speaksAgainst: rival.evidence.filter((e) => e.weight > 0).sort(byWeight),
  }
}

function noAnswer(causes: Cause[]): Proposal {
  const top = causes[0]
  const check =
    top.kind === 'tyres'
      ? 'Check both tyre pressures'
      : top.kind === 'stiction'
        ? 'Check the unit before turning anything'
        : top.kind === 'line-or-rider'
          ? 'Ride the same settings again'
          : 'No dial left for this'
  const watch =
    top.kind === 'tyres'
      ? 'Bring both tyres to where they were on the baseline; then ride again.'
      : top.kind === 'stiction'
        ? 'Bounce it slowly: does it stick and jump? Then it needs service, not clicks.'
        : top.kind === 'line-or-rider'
          ? 'Same line, same speed, and nothing turned.'
          : 'What is fitted cannot answer this any further: think of spacers, another spring, or a workshop.'
  return {
    ...plain(
      top.kind === 'line-or-rider' ? 'repeat' : 'check-first',
      check,
      watch,
      'The same words on a second run.',
    ),
    ...forAndAgainst(top),
    causes,
  }
}

function untangle(moved: string[], before: HistoryRun, causes: Cause[]): Proposal {
  const evidence = (text: string): Evidence => ({
    weight: 1,
    text,
    topic: text,
    runNumbers: [],
    link: { kind: 'runs', runId: before.run.id, sectionId: null, word: null },
  })
  return {
    kind: 'untangle',
    headline: `Back to run ${before.number}, then one thing at a time`,
    moves: [],
    setupId: before.run.setupId,
    speaksFor: [
      ...moved.map(evidence),
      ...(before.run.kind === 'warm-up'
        ? [evidence(`Run ${before.number} was a warm-up: nerves and lines, not judged`)]
        : []),
    ],
    speaksAgainst: [],
    watchFor: `${moved.length} adjusters moved since run ${before.number}, so nobody can say which one did it. It happens. Go back, ride it once as a baseline, and change the one you believe in most.`,
    changeOurMind: 'If it rides well as it is, keep it, ride it once more, and call this the new baseline.',
    caution: null,
    causes,
  }
}

function goBack(target: HistoryRun, words: string, probability: number, causes: Cause[]): Proposal {
  return {
    ...plain(
      'go-back',
      `Go back to run ${target.number}`,
      'Ride it once more to be sure that it is still the better one.',
      'If it no longer feels better, the track or the day has changed.',
    ),
    setupId: target.run.setupId,
    speaksFor: [
      {
        weight: 1,
        text: `${words} Chance that the present one is better: ${Math.round(100 * probability)} %.`,
        topic: 'runs',
        runNumbers: [],
        link: { kind: 'runs', runId: target.run.id, sectionId: null, word: null },
      },
    ],
    causes,
  }
}

function repeat(current: HistoryRun, previous: HistoryRun, probability: number, causes: Cause[]): Proposal {
  return {
    ...plain(
      'repeat',
      'Ride the same settings again',
      `Same line, same speed. Run ${current.number} and run ${previous.number} lie within the noise.`,
      'A second run that differs clearly from the first.',
    ),
    speaksFor: [
      {
        weight: 1,
        text: `Chance that run ${current.number} is better than run ${previous.number}: ${Math.round(100 * probability)} %. One run cannot tell.`,
        topic: 'runs',
        runNumbers: [],
        link: { kind: 'runs', runId: current.run.id, sectionId: null, word: null },
      },
    ],
    causes,
  }
}

function firstRun(h: DayHistory): Proposal {
  const warm = h.runs.some((r) => r.run.kind === 'warm-up')
  return warm
    ? plain(
        'log-first-run',
        'Now the baseline run',
        'Change nothing. Same section, same line, a speed you can repeat.',
        'The warm-up is for nerves and lines; nobody judges it.',
      )
    : plain(
        'log-first-run',
        'One warm-up run, then the baseline',
        'Check tyre pressures and levers, ride the section once without judging it, then log the baseline.',
        'Nothing to judge yet.',
      )
}

function plain(kind: ProposalKind, headline: string, watch: string, changeOurMind: string): Proposal {
  return {
    kind,
    headline,
    moves: [],
    setupId: null,
    speaksFor: [],
    speaksAgainst: [],
    watchFor: watch,
    changeOurMind,
    caution: null,
    causes: [],
  }
}

const byWeight = (a: Evidence, b: Evidence) => Math.abs(b.weight) - Math.abs(a.weight)

function forAndAgainst(c: Cause): Pick<Proposal, 'speaksFor' | 'speaksAgainst'> {
  return {
    speaksFor: c.evidence.filter((e) => e.weight > 0).sort(byWeight),
    speaksAgainst: c.evidence.filter((e) => e.weight < 0).sort(byWeight),
  }
}

function hasFeel(r: HistoryRun): boolean {
  return r.feel !== null && (r.feel.rating !== null || r.feel.marks.length > 0)
}

function keyOf(h: DayHistory, r: HistoryRun): string | null {
  const s = setupOf(h, r.run.setupId)
  return s ? settingsKey(s) : null
}

/** Which end a proposal touches, for colour and mark. */
export function proposalEnd(p: Proposal): End | null {
  return p.moves[0]?.end ?? null
}
