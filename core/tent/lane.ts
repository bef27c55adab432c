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

/**
 * What was turned since the start and stands by, each dial once: from where it would stand without, to where it stands now.
 * A reading that corrected a number turned nothing.
 */
export function changedSinceStart(b: DayBundle): Move[] {
  const now = b.setups.filter((s) => s.dayId === b.day.id && !s.wanted).at(-1)
  const at = new Map(now?.positions.map((p) => [p.adjusterId, p.value]))
  const net = new Map<string, { move: Move; by: number }>()
  for (const { moves } of laneOf(b).changes)
    for (const move of moves) {
      const by = (net.get(move.adjuster.id)?.by ?? 0) + move.to - move.from
      net.set(move.adjuster.id, { move, by })
    }
  return [...net.values()].flatMap(({ move, by }) => {
    const to = at.get(move.adjuster.id)
    // Unread since: how far it was turned is no longer known.
    return to === undefined || Math.abs(by) < 1e-6 ? [] : [{ ...move, from: to - by, to }]
  })
}
