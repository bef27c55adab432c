import type { Setup } from '#contract/setup'
import { samePosition } from './diff.ts'

/** A number that a reading put right between two setups; nothing was turned. */
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
  const byId = new Map(setups.map((s) => [s.id, s]))
  const steps: [Setup, Setup][] = []
  let at = byId.get(toId)
  while (at && at.id !== fromId) {
    const before = at.parentId === null ? undefined : byId.get(at.parentId)
    // A chain that bites its own tail would never end.
    if (!before || steps.length > setups.length) return new Map()
    steps.unshift([before, at])
    at = before
  }
  const out = new Map<string, PutRight>()
  for (const [before, after] of steps) {
    if (after.reason.source !== 'reading') continue
    for (const p of after.positions) {
      const was = before.positions.find((x) => x.adjusterId === p.adjusterId)
      if (!was || Math.abs(was.value - p.value) < samePosition) continue
      const sofar = out.get(p.adjusterId)
      out.set(p.adjusterId, {
        written: sofar?.written ?? was.value,
        read: (sofar?.read ?? was.value) + p.value - was.value,
      })
    }
  }
  return out
}

/** A setup with its numbers as they were read on the way to a later one: where everything stood, not where it was written to. */
export function asReadLater(setups: readonly Setup[], setup: Setup, laterId: string): Setup {
  const right = readBetween(setups, setup.id, laterId)
  const by = (id: string) => (right.get(id)?.read ?? 0) - (right.get(id)?.written ?? 0)
  return { ...setup, positions: setup.positions.map((p) => ({ ...p, value: p.value + by(p.adjusterId) })) }
}
