import type { End } from '#contract/common'
import type { DayBundle } from '#contract/endpoints'
import { diffSetups, type Move } from '../setup/diff.ts'
import { standingChanges } from '../setup/undo.ts'

/** A change as it stands on a lane. */
export interface LaneChange {
  setupId: string
  atMs: number
  /** null: at both ends. */
  end: End | null
  moves: Move[]
  /** It was taken back, or went back to what was ridden. */
  back: boolean
}

export interface LaneRun {
  runId: string
  atMs: number
  number: number
  kind: DayBundle['runs'][number]['kind']
  rating: number | null
}

/** What one rider did on a day, by the clock. */
export interface Lane {
  runs: LaneRun[]
  changes: LaneChange[]
}

/** Runs and changes of a day in their order. A reading turned nothing and is none. */
export function laneOf(b: DayBundle): Lane {
  const byId = new Map(b.setups.map((s) => [s.id, s]))
  const ratings = new Map(b.feels.map((f) => [f.runId, f.rating]))
  return {
    runs: b.runs.map((r, i) => ({
      runId: r.id,
      atMs: Date.parse(r.startedAt),
      number: i + 1,
      kind: r.kind,
      rating: r.kind === 'counted' ? (ratings.get(r.id) ?? null) : null,
    })),
    changes: standingChanges(b.setups, b.day.id).flatMap((s): LaneChange[] => {
      const before = s.parentId === null ? undefined : byId.get(s.parentId)
      const moves = before ? diffSetups(before, s, b.units) : []
      if (moves.length === 0) return []
      const ends = new Set(moves.map((m) => m.end))
      return [
        {
          setupId: s.id,
          atMs: Date.parse(s.madeAt),
          end: ends.size === 1 ? moves[0].end : null,
          moves,
          back: s.reason.source === 'revert',
        },
      ]
    }),
  }
}

/** What stands elsewhere than at the start of the day, each dial once. */
export function changedSinceStart(b: DayBundle): Move[] {
  const start = b.setups.find((s) => s.id === b.day.startSetupId)
  const now = b.setups.filter((s) => s.dayId === b.day.id && !s.wanted).at(-1) ?? start
  return start && now ? diffSetups(start, now, b.units) : []
}
