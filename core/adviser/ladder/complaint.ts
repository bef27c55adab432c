import type { Adjuster } from '#contract/adjuster'
import type { End } from '#contract/common'
import type { FeelWord, Mark } from '#contract/run'
import { cannotSay } from '../../causes/questions.ts'
import { isComplaint } from '../../causes/words.ts'
import { explains } from '../answers.ts'
import type { Candidate, Step } from '../candidates.ts'
import { choice, movedToday, worth } from '../decide.ts'
import { answersOf, isOneOf, oneStep } from '../remedies.ts'
import { isRemembered, type Climb } from './climb.ts'

/** A figure of this weight confirms a word. */
const clearFigure = 0.5
/** Causes at least this likely against the first of a complaint count as its causes. */
export const nearLeader = 0.5
/** Another end has to promise this much more than what answers the complaint. */
const elsewhereShare = 0.6

/** Who says it so strongly means it. */
export const strong = 3

/** What is complained of on the last run. */
export const complaintsOf = (c: Climb): Mark[] =>
  (c.onNow[c.onNow.length - 1]?.feel?.marks ?? []).filter((m) => isComplaint(m.word))
/** What throws a rider. */
const throwing: readonly FeelWord[] = ['pogo', 'kicks']
/** Of several complaints those that are answered first: what throws a rider, said strongly; else all of them. */
export function urgentOf(said: readonly Mark[]): readonly Mark[] {
  const thrown = said.filter((m) => m.strength === strong && throwing.includes(m.word))
  return thrown.length > 0 ? thrown : said
}
/** Causes that these words speak for, likeliest first. */
export const causesOf = (c: Climb, said: readonly Mark[]) =>
  c.causes().filter((x) => x.evidence.some((e) => e.weight > 0 && said.some((m) => m.word === e.link.word)))

/**
 * A gain that rests on something of this day or of earlier ones: the dial was turned, a likely cause asks for it, or it would
 * be felt. A dial that nobody touched, near a stop, is better further in on paper only: most are not found at their stops.
 */
function promising(c: Climb): (x: Candidate) => boolean {
  const { dials, noticeable } = c.outlook()
  const moved = movedToday(c.h)
  const asked = c
    .causes()
    .filter((cause) => cause.evidence.some((e) => e.weight > 0))
    .flatMap((cause) => answersOf(cause.kind, cause.end, c.space))
  const isAskedFor = isOneOf(asked, dials)
  const restsOnSomething = (s: Step) => {
    const { id } = dials[s.dial].adjuster
    return moved.has(id) || isRemembered(c, id) || isAskedFor(s)
  }
  return (x) => x.gain > 0 && (x.gain >= noticeable || x.steps.every(restsOnSomething))
}

/**
 * A complaint that was asked about, or that a figure confirms, gets a turn that answers it before one of an end of which
 * nothing was said. Where nothing that answers it is worth nearly as much, other ends are turned for an expected gain only.
 * null: no such complaint.
 */
export function answeringComplaint(c: Climb, sound: readonly Candidate[]): Candidate[] | null {
  const complaints = urgentOf(complaintsOf(c))
  const asked = complaints.filter((m) => wasAsked(c, m))
  const said = complaints.filter((m) => asked.includes(m) || isMeasured(c, m))
  if (said.length === 0) return withoutGuesses(c, complaints, sound)
  const spoken = causesOf(c, said)
  // Sorted by probability: what is much less likely than the first is no answer to the complaint.
  const topics = spoken.filter((x) => x.probability >= nearLeader * spoken[0].probability)
  const turns = topics.flatMap((x) => answersOf(x.kind, x.end, c.space))
  const { dials } = c.outlook()
  const fitting = sound.filter((x) => x.steps.some(isOneOf(turns, dials)))
  const ends = new Set(spoken.map((x) => x.end))
  const isPromising = promising(c)
  // To find something out at the other end is for runs that said nothing of this one.
  const others = sound.filter(
    (x) => isPromising(x) || fitting.includes(x) || x.steps.some((s) => ends.has(dials[s.dial].end)),
  )
  const elsewhere = others.length === 0 ? 0 : elsewhereShare * worth(others[0])
  const enough = Math.max(choice.leastWorth, elsewhere)
  return fitting.some((x) => worth(x) >= enough) ? fitting : others
}

/** A figure speaks for a cause of this very word. */
const isMeasured = (c: Climb, { word }: Mark) =>
  c
    .causes()
    .some(
      (x) =>
        x.evidence.some((e) => e.link.word === word && e.weight > 0) &&
        x.evidence.some((e) => e.link.kind === 'metric' && e.weight > clearFigure),
    )

function wasAsked(c: Climb, { word, end }: Mark): boolean {
  const ends: End[] = end === 'both' ? ['front', 'rear'] : [end]
  return c.onNow.some((r) =>
    r.feel?.answers.some((a) => a.answer !== cannotSay && ends.some((e) => explains(a, word, e))),
  )
}

/**
 * While something is complained of, what nothing speaks for is not tried to find out; where nothing else is left, it is
 * tried at the end that was complained of, and never at the other. null: nothing is complained of.
 */
function withoutGuesses(
  c: Climb,
  complaints: readonly Mark[],
  sound: readonly Candidate[],
): Candidate[] | null {
  if (complaints.length === 0) return null
  const turns = causesOf(c, complaints).flatMap((x) => answersOf(x.kind, x.end, c.space))
  const { dials } = c.outlook()
  const isPromising = promising(c)
  const orPromising = (fits: (s: Step) => boolean) => {
    const left = sound.filter((x) => isPromising(x) || x.steps.every(fits))
    return left.some((x) => worth(x) >= choice.leastWorth) ? left : null
  }
  const isThere = (s: Step) => complaints.some((m) => m.end === 'both' || m.end === dials[s.dial].end)
  return (
    orPromising(isOneOf(turns, dials)) ??
    orPromising(isThere) ??
    sound.filter((x) => isPromising(x) || x.steps.every(isThere))
  )
}

const isCompression = ({ role }: Adjuster) => role.endsWith('compression')

/**
 * To find out is no reason to turn a dial the other way than every cause of what is complained of asks for, nor the other
 * compression dial of that end where they ask for one of them; nor is it one that it stands at the stop that they ask for, and
 * was never ridden elsewhere.
 */
export function againstEveryCause(c: Climb): (x: Candidate) => boolean {
  const turns = causesOf(c, complaintsOf(c)).flatMap((x) => answersOf(x.kind, x.end, c.space))
  const { dials } = c.outlook()
  const moved = movedToday(c.h)
  const isPromising = promising(c)
  return (x) =>
    x.steps.some((s) => {
      const { adjuster, end } = dials[s.dial]
      const itself = turns.filter((t) => t.adjuster.id === adjuster.id)
      const kin = isCompression(adjuster)
        ? turns.filter((t) => t.end === end && isCompression(t.adjuster))
        : []
      const own = itself.length > 0 ? itself : kin
      const against = own.length > 0 && own.every((t) => t.direction !== Math.sign(s.to - s.from))
      const isSpent = () => !moved.has(adjuster.id) && oneStep(adjuster, s.from, own[0].direction) === null
      return against && (!isPromising(x) || isSpent())
    })
}
