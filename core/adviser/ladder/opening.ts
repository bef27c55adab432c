import type { Setup } from '#contract/setup'
import { diffSetups, type Move } from '../../setup/diff.ts'
import { costOfTurn, costRuns } from '../costs.ts'
import type { Candidate } from '../candidates.ts'
import { choice, movedToday, worth } from '../decide.ts'
import { fittedUnits, keyOfRun, setupOf } from '../history.ts'
import type { Climb } from './climb.ts'
import { worseBelow } from './worse.ts'

/** A unit is opened first only where a gain is likelier than a loss. */
const betterFrom = 0.5

/**
 * Changes without those that open a unit (spacers, another spring) for no good reason: never again for what was fitted
 * today, rated worse and taken out; and to find out, instead of for a gain that is expected, only once every dial that a
 * hand turns and that is worth a run was moved today. A click that told nothing is turned back in a second; a fork that was opened for nothing
 * cost the morning.
 *
 * @param all most useful first
 */
export function withoutNeedlessOpening(c: Climb, all: readonly Candidate[]): Candidate[] {
  const { dials } = c.outlook()
  const opened = (x: Candidate) => x.steps.filter((s) => costOfTurn(dials[s.dial].adjuster) > costRuns.turn)
  let worse: Move[] | null = null
  const again = (x: Candidate) =>
    opened(x).some((s) => {
      worse ??= worseToday(c)
      return worse.some(
        (m) =>
          m.adjuster.id === dials[s.dial].adjuster.id &&
          Math.sign(m.to - m.from) === Math.sign(s.to - s.from) &&
          Math.sign(m.to - m.from) * (s.to - m.to) >= 0,
      )
    })
  const left = all.filter((x) => !again(x))
  const byHand = left.filter((x) => opened(x).length === 0)
  const isExpected = (x: Candidate) => x.gain > 0 && x.better > betterFrom
  const moved = movedToday(c.h)
  const untried = (x: Candidate) => x.steps.some((s) => !moved.has(dials[s.dial].adjuster.id))
  return byHand.some((x) => worth(x) >= choice.leastWorth && untried(x))
    ? left.filter((x) => opened(x).length === 0 || isExpected(x))
    : left
}

/** Parts that stood otherwise in two settings of today, but for the air that goes with them: each towards the worse side. */
function worseToday(c: Climb): Move[] {
  const session = c.session()
  const units = fittedUnits(c.space)
  const ridden = new Map<string, Setup>()
  for (const r of c.counted) {
    const key = keyOfRun(c.h, r)
    const setup = setupOf(c.h, r.run.setupId)
    if (key !== null && setup && session.level(key).runs > 0) ridden.set(key, setup)
  }
  const all = [...ridden]
  return all.flatMap(([a, before], i) =>
    all.slice(i + 1).flatMap(([b, after]) => {
      const move = fittedBetween(before, after, units)
      if (!move) return []
      const better = session.chanceOfBetter(a, b)
      if (better < worseBelow) return [move]
      return better > 1 - worseBelow ? [{ ...move, from: move.to, to: move.from }] : []
    }),
  )
}

/** The spacer or spring that was changed, with nothing else moved but the air of its end. */
function fittedBetween(before: Setup, after: Setup, units: Parameters<typeof diffSetups>[2]): Move | null {
  const moves = diffSetups(before, after, units)
  const fitted = moves.filter((m) => costOfTurn(m.adjuster) > costRuns.turn)
  if (fitted.length !== 1) return null
  const [part] = fitted
  const alone = moves.every((m) => m === part || (m.end === part.end && m.adjuster.role === 'main-pressure'))
  return alone ? part : null
}
