import type { Proposal } from '#contract/proposal'
import { plain, reason } from '../cards.ts'
import { keyOfRun } from '../history.ts'
import type { Climb, Rung } from './climb.ts'
import { worseBelow } from './worse.ts'

/** So many others may be held against what was ridden here before it is ridden again: one lucky run would beat them all. */
const mostSince = 2

/**
 * Gone back to. Whether these are still the better ones is known when they were ridden again, after the others (A, B, A).
 * Where the others were the worse ones by what sends back, the next turn is made from here at once and held against the
 * runs that were ridden here; on tuning riders that saves a sixth of what is lost in eight runs (docs/benchmarks.md).
 *
 * @param advise the rest of the ladder
 */
export const ridingAgain =
  (advise: (c: Climb) => Proposal): Rung =>
  (c) => {
    const last = c.onNow[c.onNow.length - 1]
    // Where nothing more is turned today, nothing has to be made sure of.
    const isOver = c.h.purpose === 'race' || c.changes >= c.h.changeLimit
    if (c.goesOnFromHere || !last || last === c.counted[c.counted.length - 1] || isOver) return null
    if (othersWereWorse(c)) {
      const on = advise({ ...c, goesOnFromHere: true })
      if (on.kind === 'change' || on.kind === 'read') return heldAgainst(last.number, on)
    }
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

/** Whether all that was ridden since, and that is not much, is worse than these for what both were judged by. */
function othersWereWorse(c: Climb): boolean {
  const last = c.counted.lastIndexOf(c.onNow[c.onNow.length - 1])
  const since = new Set(c.counted.slice(last + 1).map((r) => keyOfRun(c.h, r) ?? ''))
  const session = c.session()
  return (
    since.size <= mostSince &&
    [...since].every(
      (key) => session.level(key).runs > 0 && session.chanceOfBetter(c.nowKey, key) < worseBelow,
    )
  )
}

const heldAgainst = (run: number, p: Proposal): Proposal =>
  p.kind === 'change'
    ? { ...p, speaksFor: [...p.speaksFor, reason(`Gone back to run ${run}: it is held against that one`)] }
    : p
