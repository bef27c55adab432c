import type { End } from '#contract/common'
import type { SetupSpace } from '../adviser/dayHistory.ts'
import { partWords } from './lexicon.ts'

/** What the parts of an end are called, for hints and completion. */
export function partNames(space: SetupSpace, end: End): string[] {
  const seen = new Set<string>()
  const trade = partWords.flatMap(([names, roles]) => {
    const hit = roles.map((r) => space[end]?.adjusters.find((a) => a.role === r)).find((a) => a !== undefined)
    // A single rebound dial answers to "rebound" and to "lsr"; one name is enough.
    if (!hit || seen.has(hit.id)) return []
    seen.add(hit.id)
    return [names[0]]
  })
  const own = (space[end]?.adjusters ?? []).flatMap((a) =>
    a.kind === 'custom' ? [a.name.toLowerCase()] : [],
  )
  return [...trade, ...own]
}

/** The same in a sentence. */
export const partHint = (space: SetupSpace, end: End): string =>
  partNames(space, end).join(', ') || 'there is nothing to turn'
