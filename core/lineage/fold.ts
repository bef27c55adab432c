import type { Place } from './places.ts'

/** A place that is shown, and what was folded away around it. */
export interface Fold<P extends Place = Place> {
  place: P
  /** The nearest shown place it came from; null: none. */
  parentId: string | null
  /** Places passed on the way from there, in order. */
  between: P[]
  /** Places tried from here (or from what lies between) that led to nothing shown. */
  aside: P[]
}

/**
 * A tree of places with only some of them shown: a chain of the others becomes a stretch of trail, a branch that leads to
 * nothing shown is counted where it left. Every place is in exactly one fold, as itself, between or aside.
 *
 * @param places parents before children
 * @returns in the order of `places`; the first place is always shown
 */
export function foldPlaces<P extends Place>(places: readonly P[], shown: (p: P) => boolean): Fold<P>[] {
  if (places.length === 0) return []
  const byId = new Map(places.map((p) => [p.id, p]))
  const leads = new Set<string>()
  const isShown = new Set(
    places.filter((p, i) => i === 0 || p.parentId === null || shown(p)).map((p) => p.id),
  )
  for (const id of isShown)
    for (let at = byId.get(id); at && !leads.has(at.id); at = at.parentId ? byId.get(at.parentId) : undefined)
      leads.add(at.id)
  const folds = new Map<string, Fold<P>>()
  const aside: P[] = []
  for (const p of places) {
    if (!isShown.has(p.id)) {
      if (!leads.has(p.id)) aside.push(p)
      continue
    }
    const between: P[] = []
    let at = p.parentId ? byId.get(p.parentId) : undefined
    for (; at && !isShown.has(at.id); at = at.parentId ? byId.get(at.parentId) : undefined)
      between.unshift(at)
    folds.set(p.id, { place: p, parentId: at?.id ?? null, between, aside: [] })
  }
  // A stretch that two shown places came along belongs to the first of them.
  const taken = new Set<string>()
  for (const f of folds.values()) {
    f.between = f.between.filter((p) => !taken.has(p.id))
    for (const p of f.between) taken.add(p.id)
  }
  for (const p of aside) {
    let at: P | undefined = p
    while (at && !isShown.has(at.id)) at = at.parentId ? byId.get(at.parentId) : undefined
    if (at) folds.get(at.id)!.aside.push(p)
  }
  return [...folds.values()]
}
