import type { End } from '#contract/common'
import type { Setup } from '#contract/setup'
import { isComplaint } from '../../causes/words.ts'
import { familyOf, positionWords } from '../../adjusters/words.ts'
import { diffSetups, moveWords, samePosition, type Move } from '../../setup/diff.ts'
import { readBetween, type PutRight } from '../../setup/readBetween.ts'
import { firstRunCard, plain, reason, untangleCard } from '../cards.ts'
import type { HistoryRun } from '../dayHistory.ts'
import { fittedUnits, keyOfRun, settingsKey, setupOf } from '../history.ts'
import { findTangle } from '../tangle.ts'
import type { Climb, Rung } from './climb.ts'
import { happyRating } from './settle.ts'
import { partName, readPart, type Part } from './readPart.ts'

/** Nothing ridden yet: the baseline first. */
export const firstRun: Rung = ({ h, counted }) =>
  counted.length === 0 ? firstRunCard(h.runs.some((r) => r.run.kind === 'warm-up')) : null

/** The last run that counts has no feel yet; a warm-up or a flat tyre after it says nothing of it. */
export const tellTheFeel: Rung = ({ counted }) => {
  const lastCounted = counted[counted.length - 1]
  if (isOnlyPraised(lastCounted))
    return plain(
      'tell-the-feel',
      `Run ${lastCounted.number}: give it a number as well`,
      'Praise of one thing says little of the rest. A rating from 1 to 10 can be held against the next run.',
      'Nothing can be judged before it is said.',
    )
  if (hasFeel(lastCounted)) return null
  return plain(
    'tell-the-feel',
    `Run ${lastCounted.number}: say how it felt`,
    'Feel first, then data. A rating and one word are enough.',
    'Nothing can be judged before it is said.',
  )
}

/** From this chance on a mess has come out better than what was before it. */
const clearlyBetter = 0.8

/**
 * Several things moved that do not belong together: nobody can say which did it. Ridden, liked better and not complained
 * of, it is a new baseline all the same: nobody goes back from that.
 */
export const untangle: Rung = (c) => {
  const tangle = findTangle(c.h, c.space)
  if (!tangle || isBetterNow(c, tangle.before)) return null
  return untangleCard(
    tangle.moves.map((m) => moveWords(m, c.space.units)),
    tangle.before,
    c.causes(),
  )
}

function isBetterNow(c: Climb, before: HistoryRun): boolean {
  const last = c.onNow[c.onNow.length - 1]
  if (!last?.feel || last.feel.marks.some((m) => isComplaint(m.word))) return false
  const rating = last.feel.rating ?? 0
  const isBest = c.counted.every((r) => keyOfRun(c.h, r) === c.nowKey || (r.feel?.rating ?? 0) < rating)
  return (
    rating >= happyRating &&
    isBest &&
    c.session().chanceOfBetter(keyOfRun(c.h, before) ?? '', c.nowKey) >= clearlyBetter
  )
}

/** What is on the bike was not ridden yet: no further turn before that. */
export const rideIt: Rung = (c) => {
  if (c.onNow.length > 0) return null
  const last = lastRidden(c)
  // Gone back and turned from there: that is what it is held against.
  const before = turnedFrom(c) ?? last
  const from = before && setupOf(c.h, before.run.setupId)
  const moves = from && c.now ? diffSetups(from, c.now, fittedUnits(c.space)) : []
  const lost = moves.length === 0 ? lostSince(c, from ?? null) : []
  if (lost.length > 0)
    return readPart(
      c,
      lost,
      lost.map((p) => reason(`Nobody is sure of the ${partName(p)} any more; nothing was turned`)),
    )
  const against = before && before !== last ? ` against run ${before.number}` : ''
  const right = from && c.now ? readBetween(c.h.setups, from.id, c.now.id) : new Map<string, PutRight>()
  const newOf = (m: Move) => {
    const put = right.get(m.adjuster.id)
    if (!put || Math.abs(put.read - m.to) >= samePosition)
      return `New${against}: ${moveWords(m, c.space.units)}`
    const at = (v: number) => positionWords(m.adjuster, v, c.space.units)
    return `Found, nothing turned: ${partName(m)} at ${at(put.read)}, written as ${at(put.written)}`
  }
  const springs = [...new Set(moves.filter((m) => familyOf(m.adjuster) === 'spring').map((m) => m.end))]
  return {
    ...plain(
      'ride-it',
      'Ride it before anything else is turned',
      `${springs.map(reboundFollows).join('')}Same section, same line, the speed of the run before. Then say whether it is better, worse, or the same.`,
      '',
    ),
    speaksFor: moves.map((m) => reason(newOf(m), before?.run.id ?? null)),
    // The causes were those of other settings.
    causes: [],
  }
}

const reboundFollows = (end: End) =>
  `The ${end} rebound works against the spring that was changed: push it down at the kerb first; if it hops or creeps, one click of rebound belongs to the same change. `

/** Parts that were known on an earlier setup and are not any more. */
const lostSince = (c: Climb, from: Setup | null): Part[] =>
  fittedUnits(c.space).flatMap((u) =>
    u.adjusters
      .filter((a) => from?.positions.some((p) => p.adjusterId === a.id) && !c.positions.has(a.id))
      .map((adjuster) => ({ end: u.end, adjuster })),
  )

/** The last run on the settings that these were turned from. */
function turnedFrom({ h, counted, now }: Climb): HistoryRun | null {
  const parent = now?.parentId ? setupOf(h, now.parentId) : undefined
  const key = parent && settingsKey(parent)
  return counted.findLast((r) => keyOfRun(h, r) === key) ?? null
}

function lastRidden({ h, now }: Climb): HistoryRun | null {
  return [...h.runs].reverse().find((r) => r.run.kind !== 'void' && r.run.setupId !== now?.id) ?? null
}

/** Nothing complained of, no number, and held against no other run. */
const isOnlyPraised = ({ feel }: HistoryRun) =>
  feel !== null &&
  feel.rating === null &&
  feel.marks.length > 0 &&
  feel.verdicts.length === 0 &&
  feel.marks.every((m) => !isComplaint(m.word))

function hasFeel(r: HistoryRun): boolean {
  return r.feel !== null && (r.feel.rating !== null || r.feel.marks.length > 0)
}
