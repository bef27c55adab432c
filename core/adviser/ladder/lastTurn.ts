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

/** From this chance on a turn helped for sure enough not to be taken back after one ride. */
export const helpedForSure = 0.8
/** Rated so much lower a turn was the worse for it, whatever was not said, rating points. */
const clearlyLower = 1.5

/** Said to be worse than the run before it and rated no higher, or, with nothing said, rated clearly lower; under like conditions. */
export function wasWorse(c: Climb, { before, last, feel }: LastTurn): boolean {
  const said = feel.verdicts.find((v) => v.againstRunId === before.run.id)
  const [was, is] = [before.feel?.rating ?? null, feel.rating]
  const lower = was === null || is === null ? null : was - is
  const isWorse = said ? said.value < 0 && (lower ?? 0) >= 0 : lower !== null && lower >= clearlyLower
  return isWorse && comparable(c.h, last, before).equal
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
