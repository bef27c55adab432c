import { springCauses } from '../../causes/kinds.ts'
import { facts } from '../../causes/factRules.ts'
import { knownSagPct } from '../../setup/sagOf.ts'
import type { Candidate } from '../candidates.ts'
import { answerTo } from '../answers.ts'
import { choice, movedToday, worth } from '../decide.ts'
import { answersOf, isOneOf, ownOrStandIn, remedyMoves } from '../remedies.ts'
import { hasAskedEnough, type Climb } from './climb.ts'
import { againstLastTurn } from './againstLastTurn.ts'
import { againstEveryCause, answeringComplaint, causesOf, complaintsOf, nearLeader } from './complaint.ts'
import { leadingCause } from './leading.ts'
import { riddenBetter } from './leadsBack.ts'
import { withoutNeedlessOpening } from './opening.ts'
import { sensorSays } from './sensorSays.ts'
import { worseBelow } from './worse.ts'

/** Causes below this are not worth a change of their own. */
export const likelyFrom = 0.15
/** Ridden settings are the better ones from this chance on. */
const noBetterBelow = 0.55

/** Changes worth weighing, most useful first; while something clear is complained of, those that answer it. */
export function usefulOf(c: Climb): Candidate[] {
  const sound = soundOf(c)
  return answeringComplaint(c, sound) ?? atWorseEnd(c, sound) ?? sound
}

/** Nothing was said but which end was worse: what only finds out is tried there; null: not told, or nothing is left there. */
function atWorseEnd(c: Climb, sound: readonly Candidate[]): Candidate[] | null {
  const worse = answerTo(c.onNow.slice(-1), 'which-end', null)?.answer
  if (worse !== 'front' && worse !== 'rear') return null
  const { dials } = c.outlook()
  const there = sound.filter((x) => x.gain > 0 || x.steps.every((s) => dials[s.dial].end === worse))
  return there.some((x) => worth(x) >= choice.leastWorth) ? there : null
}

/** All changes but what was worse already, opens a unit for nothing or goes against the leading cause, most useful first. */
function soundOf(c: Climb): Candidate[] {
  let sound = weighed.get(c)
  if (!sound) {
    const against = againstLeading(c)
    const unheard = againstEveryCause(c)
    const unlearnt = againstLastTurn(c)
    const isComplaining = complaintsOf(c).length > 0
    const all = c
      .outlook()
      .candidates.filter(
        (x) =>
          !against(x) &&
          !unheard(x) &&
          !unlearnt(x) &&
          !alreadyWorse(c, x) &&
          !(isComplaining && movesARightSpring(c, x)),
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
  // Without a part of its own, what stands in for it says which way is wrong.
  const right = cause ? ownOrStandIn(answersOf(cause.kind, cause.end, c.space)) : []
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
  const { dials } = c.outlook()
  const better = riddenBetter(c, new Map(x.steps.map((step) => [dials[step.dial].adjuster.id, step.to])))
  if (better === null) return false
  // Where it was ridden and was no better there is nothing to find out.
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

/**
 * What it turns is what one of the likeliest causes of the complaint asks for. What only stands in, and a spring that does
 * not lead, count where nothing else that is as likely has its own part.
 */
function isAnswering(c: Climb, x: Candidate): boolean {
  const spoken = causesOf(c, complaintsOf(c))
  if (spoken.length === 0) return false
  const likely = spoken.filter((cause) => cause.probability >= nearLeader * spoken[0].probability)
  const turnsOf = (causes: typeof spoken) =>
    causes.flatMap((cause) => answersOf(cause.kind, cause.end, c.space))
  const ofDials = likely.filter((cause) => cause === spoken[0] || !springCauses.includes(cause.kind))
  const own = turnsOf(ofDials).filter((t) => !t.standIn)
  return x.steps.some(isOneOf(own.length > 0 ? own : turnsOf(likely), c.outlook().dials))
}

/**
 * To find something out, a spring whose sag was read right: left where it is while something is complained of, and else tried
 * after what is not known to be right.
 */
function movesARightSpring(c: Climb, x: Candidate): boolean {
  if (x.gain > 0 || !c.now || isAnswering(c, x)) return false
  const { dials } = c.outlook()
  const springs = x.steps.map((s) => dials[s.dial]).filter((d) => d.adjuster.role === 'main-pressure')
  return springs.some((d) => {
    const unit = c.space[d.end]
    const sag = unit ? knownSagPct(c.h.setups, c.now!, unit) : null
    return sag !== null && Math.abs(sag - unit!.sagTargetPct) <= facts.sagRightPct
  })
}

/** While a sensor shows a spring to be wrong it comes before any damper: a damper cannot repair it. */
export function bestOf(c: Climb): Candidate | null {
  const all = usefulOf(c)
  const unsure = all.filter((x) => !movesARightSpring(c, x))
  const useful = unsure.some((x) => worth(x) >= choice.leastWorth) ? unsure : all
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
