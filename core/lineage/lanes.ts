import type { Fold } from './fold.ts'
import type { Place } from './places.ts'

/** Where a fold stands on the map: rows from the newest at the top, lanes from the trail to the present at the left. */
export interface Spot<P extends Place = Place> extends Fold<P> {
  row: number
  lane: number
}

/**
 * Trails that part, without two of them in one lane at one height. The trail that leads to what is on the bike keeps to
 * lane 0; from a parting, the side that leads furthest goes straight on.
 *
 * @param folds parents before children
 */
export function layLanes<P extends Place>(folds: readonly Fold<P>[]): Spot<P>[] {
  const rowOf = new Map(folds.map((f, i) => [f.place.id, folds.length - 1 - i]))
  const children = new Map<string | null, Fold<P>[]>()
  for (const f of folds) children.set(f.parentId, [...(children.get(f.parentId) ?? []), f])
  const trunk = new Set<string>()
  const byId = new Map(folds.map((f) => [f.place.id, f]))
  for (let at = folds.find((f) => f.place.now); at; at = at.parentId ? byId.get(at.parentId) : undefined)
    trunk.add(at.place.id)
  const size = new Map<string, number>()
  for (const f of [...folds].reverse()) {
    const own = (size.get(f.place.id) ?? 0) + 1
    size.set(f.place.id, own)
    if (f.parentId) size.set(f.parentId, (size.get(f.parentId) ?? 0) + own)
  }
  /** The child in whose lane the trail goes on. */
  const straight = (id: string): Fold<P> | undefined => {
    const all = children.get(id) ?? []
    return (
      all.find((c) => trunk.has(c.place.id)) ??
      // What is only wished for leads nowhere yet.
      [...all].sort(
        (a, b) =>
          Number(a.place.wanted) - Number(b.place.wanted) || size.get(b.place.id)! - size.get(a.place.id)!,
      )[0]
    )
  }
  const lane = new Map<string, number>()
  const busy: { from: number; to: number }[][] = []
  for (const f of folds) {
    if (lane.has(f.place.id)) continue
    const chain: Fold<P>[] = []
    for (let at: Fold<P> | undefined = f; at; at = straight(at.place.id)) {
      // Only the trunk may go where the present is: a parting from it begins a lane of its own.
      if (chain.length && trunk.has(at.place.id) && !trunk.has(f.place.id)) break
      chain.push(at)
    }
    const from = rowOf.get(chain.at(-1)!.place.id)!
    const to = f.parentId === null ? rowOf.get(f.place.id)! : rowOf.get(f.parentId)! - 1
    let at = trunk.has(f.place.id) ? 0 : 1
    if (trunk.size === 0 && f.parentId === null) at = 0
    while (busy[at]?.some((b) => b.from <= to && from <= b.to)) at++
    ;(busy[at] ??= []).push({ from, to })
    for (const c of chain) lane.set(c.place.id, at)
  }
  return folds.map((f) => ({ ...f, row: rowOf.get(f.place.id)!, lane: lane.get(f.place.id)! }))
}
