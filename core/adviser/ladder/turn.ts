import type { Cause, Proposal } from '#contract/proposal'
import type { AskedQuestion } from '#contract/question'
import { springCauses } from '../../causes/kinds.ts'
import { cannotSay, questionRules } from '../../causes/questions.ts'
import { knownSagPct } from '../../setup/sagOf.ts'
import { answerTo } from '../answers.ts'
import { forAndAgainst, noAnswerCard, plain, reason, repeatCard } from '../cards.ts'
import type { Candidate } from '../candidates.ts'
import { cautionFor, changeCard, stepWords } from '../change.ts'
import { choice, movedToday, worth } from '../decide.ts'
import { settingsKey } from '../history.ts'
import { answersOf, remedyMoves } from '../remedies.ts'
import { againstEveryCause, answeringComplaint, causesOf, complaintsOf, nearLeader } from './complaint.ts'
import { leadingCause } from './leading.ts'
import { withoutNeedlessOpening } from './opening.ts'
import { hasAskedEnough, type Climb, type Rung } from './climb.ts'
import { sensorSays } from './sensorSays.ts'
import { worseBelow } from './worse.ts'
import { watchFor } from '../watch.ts'

/** Causes below this are not worth a change of their own. */
const likelyFrom = 0.15
const worthDisturbing = 0.25
/** Ridden settings are the better ones from this chance on. */
const noBetterBelow = 0.55
/** Read this near to its target a spring stands right: what a ring can show, points of sag. */
const rightWithinPct = 2.5
/** Ridden this often on the same settings, another repeat tells nothing new. */
const repeatsEnough = 3
const checkedByHand: readonly Cause['kind'][] = ['tyres', 'stiction']

/** The turn that the surface makes most worthwhile, one adjuster or a pair that belongs together. */
export const turn: Rung = (c) => {
  const best = bestOf(c)
  return best && worth(best) >= choice.leastWorth
    ? changeCard(c.h, c.space, c.outlook().dials, best, c.causes(), c.positions)
    : null
}

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
  const byTheBook = complaintsOf(c).length > 0 ? bookMove(c) : null
  if (byTheBook) return byTheBook
  if (complaintsOf(c).length > 0)
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

/** What the likeliest cause of the complaint asks for by itself, where those settings were not ridden yet. */
function bookMove(c: Climb): Proposal | null {
  const [cause] = causesOf(c, complaintsOf(c))
  const move = cause && remedyMoves(cause.kind, cause.end, c.space, c.positions)[0]
  if (!move || move.sideEffect || !c.now || cause.probability < likelyFrom) return null
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
    caution: cautionFor(move.adjuster),
    causes: c.causes(),
  }
}

/** Changes worth weighing, most useful first; while something clear is complained of, those that answer it. */
export function usefulOf(c: Climb): Candidate[] {
  const sound = soundOf(c)
  return answeringComplaint(c, sound) ?? sound
}

/** All changes but what was worse already, opens a unit for nothing or goes against the leading cause, most useful first. */
function soundOf(c: Climb): Candidate[] {
  let sound = weighed.get(c)
  if (!sound) {
    const against = againstLeading(c)
    const unheard = againstEveryCause(c)
    const all = c
      .outlook()
      .candidates.filter(
        (x) => !against(x) && !unheard(x) && !alreadyWorse(c, x) && !leavesARightSpring(c, x),
      )
    sound = withoutNeedlessOpening(c, all)
    weighed.set(c, sound)
  }
  return sound
}

/** Several rungs ask for the same list on one climb. */
const weighed = new WeakMap<Climb, Candidate[]>()

/** No dial is moved against the cause that clearly leads: that is how riders get hurt. */
export function againstLeading(c: Climb): (x: Candidate) => boolean {
  const cause = leadingCause(c)
  const right = cause ? answersOf(cause.kind, cause.end, c.space).filter((a) => !a.standIn) : []
  const { dials } = c.outlook()
  return (x) =>
    x.steps.some((step) =>
      right.some(
        (a) =>
          a.adjuster.id === dials[step.dial].adjuster.id && a.direction !== Math.sign(step.to - step.from),
      ),
    )
}

/** Whether a change leads to settings that were ridden and judged worse than these, or no better. */
function alreadyWorse(c: Climb, x: Candidate): boolean {
  const session = c.session()
  const { now, nowKey } = c
  if (!now || session.level(nowKey).runs === 0) return false
  const { dials } = c.outlook()
  const to = new Map(x.steps.map((step) => [dials[step.dial].adjuster.id, step.to]))
  const key = settingsKey({
    ...now,
    positions: now.positions.map((p) => ({ ...p, value: to.get(p.adjusterId) ?? p.value })),
  })
  if (session.level(key).runs === 0) return false
  // Where it was ridden and was no better there is nothing to find out.
  const better = session.chanceOfBetter(nowKey, key)
  return better < worseBelow || (better < noBetterBelow && x.gain < c.outlook().noticeable)
}

/** To find something out, a spring whose sag nobody has read: asked for before, it is not pumped where something else is left. */
function pumpsBlind(c: Climb, x: Candidate): boolean {
  const { dials } = c.outlook()
  const spring = x.steps.map((s) => dials[s.dial]).find((d) => d.adjuster.role === 'main-pressure')
  const unit = spring && c.space[spring.end]
  if (!unit || !c.now || x.gain > 0 || movedToday(c.h).has(spring.adjuster.id)) return false
  return !sensorSays(c, spring.end) && knownSagPct(c.h.setups, c.now, unit) === null
}

/** What it turns is what one of the likeliest causes of the complaint asks for, be it for want of the right dial. */
function isAnswering(c: Climb, x: Candidate): boolean {
  const spoken = causesOf(c, complaintsOf(c))
  const { dials } = c.outlook()
  return spoken
    .filter((cause) => cause.probability >= nearLeader * spoken[0].probability)
    .flatMap((cause) => answersOf(cause.kind, cause.end, c.space))
    .some((t) =>
      x.steps.some(
        (s) => dials[s.dial].adjuster.id === t.adjuster.id && t.direction === Math.sign(s.to - s.from),
      ),
    )
}

/** To find something out while something is complained of, a spring whose sag was read right is left where it is. */
function leavesARightSpring(c: Climb, x: Candidate): boolean {
  if (x.gain > 0 || complaintsOf(c).length === 0 || !c.now || isAnswering(c, x)) return false
  const { dials } = c.outlook()
  const springs = x.steps.map((s) => dials[s.dial]).filter((d) => d.adjuster.role === 'main-pressure')
  return springs.some((d) => {
    const unit = c.space[d.end]
    const sag = unit ? knownSagPct(c.h.setups, c.now!, unit) : null
    return sag !== null && Math.abs(sag - unit!.sagTargetPct) <= rightWithinPct
  })
}

/** While a sensor shows a spring to be wrong it comes before any damper: a damper cannot repair it. */
export function bestOf(c: Climb): Candidate | null {
  const useful = usefulOf(c)
  const seeing = useful.filter((x) => !pumpsBlind(c, x))
  const candidates = hasAskedEnough(c) && seeing.length > 0 ? seeing : useful
  const { dials } = c.outlook()
  const measured = c
    .causes()
    .find(
      (x) =>
        springCauses.includes(x.kind) &&
        x.probability >= likelyFrom &&
        x.evidence.some((e) => e.weight > 0.5 && e.link.kind === 'metric'),
    )
  const move = measured && remedyMoves(measured.kind, measured.end, c.space, c.positions)[0]
  if (move && !move.sideEffect) {
    const first = soundOf(c).find(
      (x) =>
        x.steps.length === 1 &&
        dials[x.steps[0].dial].adjuster.id === move.adjuster.id &&
        Math.sign(x.steps[0].to - x.steps[0].from) === move.direction,
    )
    if (first) return first
  }
  return candidates[0] ?? null
}
