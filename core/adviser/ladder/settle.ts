import { adjusterName } from '../../adjusters/words.ts'
import { isComplaint } from '../../causes/words.ts'
import { noticeable as leastNoticeable } from '../../stats/verdict.ts'
import { forAndAgainst, plain, reason, repeatCard } from '../cards.ts'
import type { Candidate } from '../candidates.ts'
import { choice, movedToday } from '../decide.ts'
import { dialsOf } from '../dials.ts'
import { keyOfRun } from '../history.ts'
import type { Climb, Rung } from './climb.ts'
import { helpedForSure } from './lastTurn.ts'
import { usefulOf } from './useful.ts'

/** Nothing reachable is likely to be clearly better, and the rider says so too. */
export const settled: Rung = (c) => (c.outlook().settled && standsWell(c) ? settledCard(c) : null)

/** Only the second run is missing. */
export const almostSettled: Rung = (c) => {
  const s = c.outlook()
  const near =
    s.dials.length > 0 &&
    s.allRead &&
    s.runsHere < choice.settleRuns &&
    s.doubt < choice.settleDoubt &&
    s.candidates.every((x) => x.clearlyBetter < choice.settleCandidate)
  if (!near || !standsWell(c)) return null
  return repeatCard(
    'One more run on the same settings, same line and speed: if it feels the same, it is settled.',
    [reason(`Chance that something clearly better is left: ${Math.round(100 * s.doubt)} %.`)],
    c.causes(),
  )
}

/** Rated well twice and nothing complained of: only disturbed for a gain that would be felt. */
export const leaveIt: Rung = (c) => {
  const s = c.outlook()
  if (isAtTheTop(c))
    return {
      ...plain(
        'leave-it',
        'Leave it alone',
        `There is hardly a better number to give. ${thenSettled(c)}`,
        'A complaint in the same place on two runs.',
      ),
      speaksFor: [reason(`Rated ${c.onNow[c.onNow.length - 1].feel!.rating} of ${topOfScale}`)],
      causes: c.causes(),
    }
  const best: Candidate | undefined = usefulOf(c)[0]
  if (!isHappy(c) || (best && best.gain >= (c.onNow.length >= 2 ? s.noticeable : worthDisturbing)))
    return null
  const [top] = c.causes()
  return {
    ...plain(
      'leave-it',
      'Leave it alone',
      `Rated well, and nothing speaks clearly against it. ${thenSettled(c)}`,
      'A complaint in the same place on two runs.',
    ),
    causes: c.causes(),
    speaksFor: top?.kind === 'none' ? forAndAgainst(top).speaksFor : [],
  }
}

/** What follows from a bike that is liked: where nobody knows how it stands it cannot be found again. */
const thenSettled = (c: Climb) =>
  c.outlook().allRead
    ? 'Ride it again; if it feels the same, call it settled.'
    : 'Before it is called settled, read where its parts stand: what nobody has counted cannot be found again.'

const topOfScale = 10
/** From here on a rider is content. */
export const happyRating = 8
/** A happy rider is only disturbed for more than this, rating points. */
export const worthDisturbing = 0.25
/** Words of praise, or this share of the dials moved, before "happy" is believed. */
const lookedAtShare = 0.5
/** Liked runs on the same settings that make one complaint among them a slip. */
const forgivenAfter = 4
/** More is left than this with even chances: a wordless day goes on. */
const leaveDoubt = 0.5

export const hasComplaint = (r: Climb['onNow'][number]) =>
  r.feel?.marks.some((m) => isComplaint(m.word)) ?? false

/** On the last run, or on any here: but for a slip, once among so many runs that were liked without a word of complaint. */
function isComplainedOf({ onNow }: Climb): boolean {
  const last = onNow[onNow.length - 1]
  const complained = onNow.filter(hasComplaint)
  if (complained.length === 0) return false
  const liked = onNow.filter((r) => !hasComplaint(r) && (r.feel?.rating ?? 0) >= happyRating)
  return hasComplaint(last) || complained.length > 1 || liked.length < forgivenAfter
}

/** The end of the scale is a word of its own: what is left above it nobody would notice. */
function isAtTheTop(c: Climb): boolean {
  const last = c.onNow[c.onNow.length - 1]
  const rating = last?.feel?.rating ?? null
  return rating !== null && !hasComplaint(last) && topOfScale - rating <= leastNoticeable
}

/** A middling rating without words is no happiness; it is a run on which nothing was said. */
function isHappy(c: Climb): boolean {
  const last = c.onNow[c.onNow.length - 1]
  const rating = last?.feel?.rating ?? null
  if (!last || isComplainedOf(c) || rating === null || rating < happyRating) return false
  const s = c.outlook()
  const praised = c.onNow.some((r) => (r.feel?.marks.length ?? 0) > 0)
  // A rider who never says anything is believed only after every dial was tried elsewhere and little is left.
  const said = c.counted.some((r) => (r.feel?.marks.length ?? 0) > 0)
  const moved = movedToday(c.h).size
  const dials = dialsOf(c.space).length
  return said
    ? praised || isRelieved(c) || moved >= lookedAtShare * dials
    : moved >= dials && s.doubt < leaveDoubt
}

/** What was last complained of on other settings is not complained of here, and these are clearly the better ones. */
function isRelieved(c: Climb): boolean {
  const complained = c.counted.findLast((r) => hasComplaint(r) && keyOfRun(c.h, r) !== c.nowKey)
  const before = complained && keyOfRun(c.h, complained)
  return !!before && c.session().chanceOfBetter(before, c.nowKey) >= helpedForSure
}

/**
 * No complaint stands on the last run here, and the rating is as good as this rider's own best of the day. On a day
 * without a word, every dial has been looked at.
 */
function standsWell(c: Climb): boolean {
  const last = c.onNow[c.onNow.length - 1]
  if (!last || hasComplaint(last) || typeof last.feel?.rating !== 'number') return false
  const session = c.session()
  const here = session.level(c.nowKey)
  const best = Math.max(
    ...session.setups
      .map((s) => session.level(s))
      .filter((l) => l.runs > 0)
      .map((l) => l.mean),
  )
  if (here.mean < best - c.outlook().noticeable) return false
  const said = c.counted.some((r) => (r.feel?.marks.length ?? 0) > 0)
  const moved = movedToday(c.h)
  return (
    said ||
    (c.outlook().doubt < choice.silentDoubt && c.outlook().dials.every((d) => moved.has(d.adjuster.id)))
  )
}

function settledCard(c: Climb): ReturnType<Rung> {
  const s = c.outlook()
  const likeliest = s.candidates.reduce<Candidate | null>(
    (b, x) => (b === null || x.clearlyBetter > b.clearlyBetter ? x : b),
    null,
  )
  const dial = likeliest && s.dials[likeliest.steps[0].dial]
  const moved = movedToday(c.h)
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
    causes: c.causes(),
  }
}
