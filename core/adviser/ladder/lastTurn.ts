import type { Feel } from '#contract/run'
import { diffSetups, type Move } from '../../setup/diff.ts'
import type { HistoryRun } from '../dayHistory.ts'
import { fittedUnits, keyOfRun, setupOf } from '../history.ts'
import type { Climb } from './climb.ts'

/** What was turned between the last run on other settings and the runs on these. */
export interface LastTurn {
  before: HistoryRun
  last: HistoryRun
  /** What was said of the last run on these. */
  feel: Feel
  moves: Move[]
  /** Chance that these settings are the better ones, 0 to 1. */
  better: number
}

/** The last turn of the day, and how it went; null: nothing was turned, or nothing was said of what is on the bike now. */
export function lastTurn(c: Climb): LastTurn | null {
  const last = c.onNow[c.onNow.length - 1]
  const before = [...c.counted].reverse().find((r) => keyOfRun(c.h, r) !== c.nowKey)
  const from = before && setupOf(c.h, before.run.setupId)
  if (!last?.feel || !before || !from || !c.now) return null
  const moves = diffSetups(from, c.now, fittedUnits(c.space))
  const better = c.session().chanceOfBetter(keyOfRun(c.h, before) ?? '', c.nowKey)
  return { before, last, feel: last.feel, moves, better }
}
