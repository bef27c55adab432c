import type { DayBundle } from '#contract/endpoints'
import type { Run } from '#contract/run'
import type { Setup } from '#contract/setup'
import { adjusterName } from '#core/adjusters/words'
import type { GoBack } from '#core/command/goBack'
import { diffSetups, type Move } from '#core/setup/diff'

/** The counted run with the highest rating of the day, the latest of equals; null while nothing is rated. */
export function bestRun(b: DayBundle): Run | null {
  const rated = b.runs.flatMap((run) => {
    const rating = b.feels.find((f) => f.runId === run.id)?.rating ?? null
    return run.kind === 'counted' && rating !== null ? [{ run, rating }] : []
  })
  const top = Math.max(...rated.map((r) => r.rating))
  return rated.findLast((r) => r.rating === top)?.run ?? null
}

/** The first counted run of the day: all that came after is held against it. */
const baselineRun = (b: DayBundle): Run | undefined => b.runs.find((run) => run.kind === 'counted')

/** The turns to what was ridden on a run, or in a sentence why there are none to make. */
export type WayBack = { number: number; setup: Setup; moves: Move[] } | { fault: string }

/** From what is on the bike to what was on it on an earlier run; nothing that nobody has read is turned. */
export function wayBack(b: DayBundle, now: Setup, to: GoBack): WayBack {
  const run = to === 'best' ? bestRun(b) : to === 'baseline' ? baselineRun(b) : b.runs[to - 1]
  if (!run) return { fault: noRun(b, to) }
  const number = b.runs.indexOf(run) + 1
  const setup = b.setups.find((s) => s.id === run.setupId)
  if (!setup) return { fault: `What was on the bike on run ${number} is not known here.` }
  if (setup.frontUnitId !== now.frontUnitId || setup.rearUnitId !== now.rearUnitId)
    return { fault: `On run ${number} another fork or shock was on the bike.` }
  const unread = setup.positions.find((p) => !now.positions.some((q) => q.adjusterId === p.adjusterId))
  const part = b.units.flatMap((u) => u.adjusters).find((a) => a.id === unread?.adjusterId)
  if (unread && part)
    return {
      fault: `Nobody has read where ${unread.end} ${adjusterName(part).toLowerCase()} stands; count or read it first.`,
    }
  const moves = diffSetups(now, setup, b.units)
  return moves.length
    ? { number, setup, moves }
    : { fault: `What was ridden on run ${number} is on the bike now.` }
}

function noRun(b: DayBundle, to: GoBack): string {
  if (b.runs.length === 0) return 'No run was logged today.'
  if (to === 'best') return 'No counted run is rated yet.'
  if (to === 'baseline') return 'No run counts yet, so there is no baseline to go back to.'
  return `There is no run ${to} today; ${b.runs.length === 1 ? 'there is one' : `they go from 1 to ${b.runs.length}`}.`
}
