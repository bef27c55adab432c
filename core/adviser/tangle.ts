import type { Setup } from '#contract/setup'
import { adjusterRange } from '../adjusters/range.ts'
import { familyOf } from '../adjusters/words.ts'
import { diffSetups, type Move } from '../setup/diff.ts'
import type { DayHistory, HistoryRun, SetupSpace } from './dayHistory.ts'
import { countedRuns, fittedUnits, setupOf } from './history.ts'

/** Several adjusters moved between two ridden setups, so that nobody can say which did it. */
export interface Tangle {
  before: HistoryRun
  moves: Move[]
}

/** Pairs that belong together count as one change: the same end's spring with its spacer or its rebound. */
function belongTogether(moves: readonly Move[]): boolean {
  if (moves.length !== 2 || moves[0].end !== moves[1].end) return false
  const families = moves
    .map((m) => familyOf(m.adjuster))
    .sort()
    .join('+')
  return (
    families === 'spring+spring' || families === 'rebound+spring' || families === 'compression+compression'
  )
}

/**
 * Rebound of both ends, and compression with it, all the same way and a click each: what heat or cold asks for.
 */
function followWeather(moves: readonly Move[]): boolean {
  const [first] = moves
  const rebounds = new Set(moves.filter((m) => familyOf(m.adjuster) === 'rebound').map((m) => m.end))
  if (rebounds.size < 2) return false
  return moves.every(
    (m) =>
      ['rebound', 'compression'].includes(familyOf(m.adjuster)) &&
      Math.sign(m.to - m.from) === Math.sign(first.to - first.from) &&
      Math.abs(m.to - m.from) <= adjusterRange(m.adjuster).step + 1e-6,
  )
}

/** The last step between two ridden setups, if it moved adjusters that do not belong together. */
export function findTangle(h: DayHistory, space: SetupSpace): Tangle | null {
  const now = setupOf(h, h.currentSetupId)
  const ridden = h.runs.filter((r) => r.run.kind !== 'void')
  // A run that was only a warm-up was not judged, so a change after it starts from an unknown place too.
  const before = [...ridden].reverse().find((r) => r.run.setupId !== h.currentSetupId)
  const from = before && setupOf(h, before.run.setupId)
  if (!now || !before || !from || now.reason.source === 'revert' || now.reason.source === 'carried')
    return null
  const moves = diffSetups(from, now, fittedUnits(space))
  if (moves.length < 2) return null
  // Who says why two things go together has made one change of them.
  const meant = now.reason.text.trim() !== '' || belongTogether(moves) || followWeather(moves)
  if (now.reason.linked && meant) return null
  if (isOneChangeFromRidden(h, space, now)) return null
  return { before, moves }
}

/**
 * Taken back and the next one turned: two dials have moved since the last run, but one since settings that were ridden
 * before, and those are what it is judged against.
 */
function isOneChangeFromRidden(h: DayHistory, space: SetupSpace, now: Setup): boolean {
  return countedRuns(h).some((r) => {
    const from = setupOf(h, r.run.setupId)
    const moves = from && from.id !== now.id ? diffSetups(from, now, fittedUnits(space)) : null
    return moves !== null && (moves.length === 1 || (now.reason.linked && belongTogether(moves)))
  })
}
