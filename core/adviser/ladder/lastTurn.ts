import type { Feel } from '#contract/run'
import { diffSetups, type Move } from '../../setup/diff.ts'
import { comparable } from '../comparable.ts'
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

/** It was said to be worse than the run before it, under like conditions, and is rated no higher. */
export function wasWorse(c: Climb, { before, last, feel }: LastTurn): boolean {
  const said = feel.verdicts.find((v) => v.againstRunId === before.run.id)
  return (
    said !== undefined &&
    said.value < 0 &&
    (feel.rating ?? 0) <= (before.feel?.rating ?? 10) &&
    comparable(c.h, last, before).equal
  )
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
