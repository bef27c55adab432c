import type { Position, Setup } from '#contract/setup'
import { samePosition } from './diff.ts'

/** A number that was read between two setups; nothing was turned. */
export interface PutRight {
  written: number
  read: number
}

/**
 * What readings put right on the way from one setup to a later one, by adjuster id, canonical.
 * @returns empty where the later one does not follow from the earlier
 */
export function readBetween(
  setups: readonly Setup[],
  fromId: string,
  toId: string,
): ReadonlyMap<string, PutRight> {
  const out = new Map<string, PutRight>()
  for (const [id, x] of readingsBetween(setups, fromId, toId))
    if (Math.abs(x.written - x.read) >= samePosition) out.set(id, x)
  return out
}

/**
 * What was read on the way from one setup to a later one, also where it was as written, by adjuster id, canonical.
 * @returns empty where the later one does not follow from the earlier
 */
export function readingsBetween(
  setups: readonly Setup[],
  fromId: string,
  toId: string,
): ReadonlyMap<string, PutRight> {
  const out = new Map<string, PutRight>()
  // Where each part was last said to stand; one that nobody was sure of meanwhile was turned by nobody.
  const said = new Map<string, Position>()
  for (const [before, after] of stepsBetween(setups, fromId, toId)) {
    for (const p of before.positions) said.set(p.adjusterId, p)
    if (after.reason.source !== 'reading') continue
    for (const p of after.positions) {
      const was = said.get(p.adjusterId)
      if (!was || !isReadAnew(was, p)) continue
      const sofar = out.get(p.adjusterId)
      out.set(p.adjusterId, {
        written: sofar?.written ?? was.value,
        read: (sofar?.read ?? was.value) + p.value - was.value,
      })
    }
  }
  return out
}

/** Each setup on the way with the one before it, oldest first; empty where there is no way. */
export function stepsBetween(setups: readonly Setup[], fromId: string, toId: string): [Setup, Setup][] {
  const byId = new Map(setups.map((s) => [s.id, s]))
  const steps: [Setup, Setup][] = []
  let at = byId.get(toId)
  while (at && at.id !== fromId) {
    const before = at.parentId === null ? undefined : byId.get(at.parentId)
    // A chain that bites its own tail would never end.
    if (!before || steps.length > setups.length) return []
    steps.unshift([before, at])
    at = before
  }
  return steps
}

const isReadAnew = (was: Position, now: Position) =>
  Math.abs(was.value - now.value) >= samePosition ||
  (now.known.how === 'read' && (was.known.how !== 'read' || was.known.at !== now.known.at))

/** A setup with its numbers as they were read on the way to a later one: where everything stood, not where it was written to. */
export function asReadLater(setups: readonly Setup[], setup: Setup, laterId: string): Setup {
  const right = readBetween(setups, setup.id, laterId)
  const by = (id: string) => (right.get(id)?.read ?? 0) - (right.get(id)?.written ?? 0)
  return { ...setup, positions: setup.positions.map((p) => ({ ...p, value: p.value + by(p.adjusterId) })) }
}
