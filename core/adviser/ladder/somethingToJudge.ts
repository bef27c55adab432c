import type { End } from '#contract/common'
import { familyOf } from '../../adjusters/words.ts'
import { diffSetups, moveWords } from '../../setup/diff.ts'
import { firstRunCard, plain, reason, untangleCard } from '../cards.ts'
import type { HistoryRun } from '../dayHistory.ts'
import { fittedUnits, setupOf } from '../history.ts'
import { findTangle } from '../tangle.ts'
import type { Climb, Rung } from './climb.ts'

/** Nothing ridden yet: the baseline first. */
export const firstRun: Rung = ({ h, counted }) =>
  counted.length === 0 ? firstRunCard(h.runs.some((r) => r.run.kind === 'warm-up')) : null

/** The last run has no feel yet. */
export const tellTheFeel: Rung = ({ h, counted }) => {
  const last = h.runs[h.runs.length - 1]
  const lastCounted = counted[counted.length - 1]
  if (lastCounted !== last || hasFeel(lastCounted)) return null
  return plain(
    'tell-the-feel',
    `Run ${lastCounted.number}: say how it felt`,
    'Feel first, then data. A rating and one word are enough.',
    'Nothing can be judged before it is said.',
  )
}

/** Several things moved that do not belong together: nobody can say which did it. */
export const untangle: Rung = ({ h, space, causes }) => {
  const tangle = findTangle(h, space)
  return (
    tangle &&
    untangleCard(
      tangle.moves.map((m) => moveWords(m, space.units)),
      tangle.before,
      causes(),
    )
  )
}

/** What is on the bike was not ridden yet, or not since others were: no further turn before that. */
export const rideIt: Rung = (c) => {
  if (c.onNow.length > 0) return rideAgain(c)
  const before = lastRidden(c)
  const from = before && setupOf(c.h, before.run.setupId)
  const moves = from && c.now ? diffSetups(from, c.now, fittedUnits(c.space)) : []
  const moved = moves.map((m) => moveWords(m, c.space.units))
  const springs = [...new Set(moves.filter((m) => familyOf(m.adjuster) === 'spring').map((m) => m.end))]
  return {
    ...plain(
      'ride-it',
      'Ride it before anything else is turned',
      `${springs.map(reboundFollows).join('')}Same section, same line, the speed of the run before. Then say whether it is better, worse, or the same.`,
      '',
    ),
    speaksFor: moved.map((words) => reason(`New: ${words}`, before?.run.id ?? null)),
    // The causes were those of other settings.
    causes: [],
  }
}

/** Gone back to: whether these are still the better ones is known when they were ridden again, after the others (A, B, A). */
function rideAgain(c: Climb): ReturnType<Rung> {
  const last = c.onNow[c.onNow.length - 1]
  // Where nothing more is turned today, nothing has to be made sure of.
  const isOver = c.h.purpose === 'race' || c.changes >= c.h.changeLimit
  if (last === c.counted[c.counted.length - 1] || isOver) return null
  return {
    ...plain(
      'ride-it',
      'Ride these once more before anything else is turned',
      'Same section, same line, the speed of the run before. Then say whether it is better, worse, or the same.',
      'If they no longer feel better, the track or the day has changed.',
    ),
    speaksFor: [reason(`Other settings were ridden since run ${last.number}`, last.run.id)],
    // The causes were those of other settings.
    causes: [],
  }
}

const reboundFollows = (end: End) =>
  `The ${end} rebound works against the spring that was changed: push it down at the kerb first; if it hops or creeps, one click of rebound belongs to the same change. `

function lastRidden({ h, now }: Climb): HistoryRun | null {
  return [...h.runs].reverse().find((r) => r.run.kind !== 'void' && r.run.setupId !== now?.id) ?? null
}

function hasFeel(r: HistoryRun): boolean {
  return r.feel !== null && (r.feel.rating !== null || r.feel.marks.length > 0)
}
