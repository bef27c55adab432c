import type { SetupSpace } from '../adviser/dayHistory.ts'
import { endWords } from './lexicon.ts'
import { partNames } from './partNames.ts'

/** Words that could come next, for completion. */
export function completions(line: string, space: SetupSpace): string[] {
  const words = line.toLowerCase().split(/\s+/)
  const typed = words[words.length - 1]
  const before = words.slice(0, -1).filter(Boolean)
  const end = before.map((w) => endWords[w]).findLast((e) => e !== undefined)
  const offered =
    before.length === 0
      ? ['fork', 'shock', 'undo']
      : !end
        ? []
        : [...partNames(space, end), 'slower', 'faster', 'firmer', 'softer']
  return offered.filter((k) => k.startsWith(typed) && k !== typed)
}
