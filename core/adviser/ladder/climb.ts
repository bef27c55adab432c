import type { End } from '#contract/common'
import type { Cause, Proposal } from '#contract/proposal'
import type { FeelWord, Mark } from '#contract/run'
import type { Setup } from '#contract/setup'
import { changesMade } from '../../setup/undo.ts'
import type { Session } from '../../stats/session.ts'
import { outlookOf, type Outlook } from '../decide.ts'
import { diagnose } from '../diagnose.ts'
import type { DayHistory, HistoryRun, SetupSpace } from '../dayHistory.ts'
import { countedRuns, keyOfRun, sessionOf, settingsKey, setupOf } from '../history.ts'

/** What every rung of the ladder may look at; the dear parts are worked out once, when the first rung asks. */
export interface Climb {
  h: DayHistory
  space: SetupSpace
  counted: HistoryRun[]
  /** Counted runs on the settings that are on the bike now. */
  onNow: HistoryRun[]
  now: Setup | undefined
  nowKey: string
  /** Canonical position per adjuster id; what nobody has read is not in it. */
  positions: ReadonlyMap<string, number>
  /** Changes of the day. */
  changes: number
  causes: () => Cause[]
  session: () => Session
  outlook: () => Outlook
  /** An answer is being thought through: nothing further is asked. */
  imagined: boolean
  /** Gone back to what was clearly better: what comes next need not wait for another ride here. */
  goesOnFromHere: boolean
}

/** A rung holds the proposal, or passes it on: null by evidence only. */
export type Rung = (c: Climb) => Proposal | null

export function climbOf(h: DayHistory, space: SetupSpace, outlook?: () => Outlook): Climb {
  const counted = countedRuns(h)
  const now = setupOf(h, h.currentSetupId)
  const nowKey = now ? settingsKey(now) : ''
  return {
    h,
    space,
    counted,
    onNow: counted.filter((r) => keyOfRun(h, r) === nowKey),
    now,
    nowKey,
    positions: new Map(now?.positions.map((p) => [p.adjusterId, p.value] as const)),
    changes: changesMade(h.setups, h.dayId),
    causes: once(() => diagnose(h, space)),
    session: once(() => sessionOf(h)),
    outlook: once(outlook ?? (() => outlookOf(h, space))),
    imagined: false,
    goesOnFromHere: false,
  }
}

function once<T>(make: () => T): () => T {
  let made: { value: T } | null = null
  return () => (made ??= { value: make() }).value
}

/** A rung that asks for something else than a turn asks on this many runs of the same settings; then it lets go. */
const patienceRuns = 2
export const hasAskedEnough = (c: Climb) => c.onNow.length > patienceRuns

/** What was said of an end on the present settings, latest run first. */
export function saidOf(c: Climb, end: End): { run: HistoryRun; mark: Mark }[] {
  return [...c.onNow]
    .reverse()
    .flatMap((run) =>
      (run.feel?.marks ?? []).filter((m) => m.end === end || m.end === 'both').map((mark) => ({ run, mark })),
    )
}

/** The latest run on which one of these words was said of an end, on the present settings. */
export function heard(
  c: Climb,
  end: End,
  words: readonly FeelWord[],
): { run: HistoryRun; mark: Mark } | null {
  return saidOf(c, end).find(({ mark }) => words.includes(mark.word)) ?? null
}

/** Earlier days know where the best place of this dial is. */
export const isRemembered = (c: Climb, adjusterId: string): boolean =>
  c.h.memory?.dials.some((d) => d.adjusterId === adjusterId && d.place) ?? false
