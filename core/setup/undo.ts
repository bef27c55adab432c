import type { Setup } from '#contract/setup'

/** Changes of a day that still stand, oldest first: a change that was taken back is not among them, nor is its undoing. */
export function standingChanges(setups: readonly Setup[], dayId: string): Setup[] {
  const stack: Setup[] = []
  for (const s of setups) {
    if (s.dayId !== dayId || s.parentId === null || s.wanted) continue
    if (s.reason.source === 'undo') {
      const at = stack.findIndex((x) => x.id === s.reason.undoes)
      if (at >= 0) stack.splice(at)
    } else if (s.reason.source !== 'reading' && s.reason.source !== 'baseline') stack.push(s)
  }
  return stack
}

/** How many changes the day has seen; taking one back is none, and neither is reading where something stands. */
export const changesMade = (setups: readonly Setup[], dayId: string): number =>
  standingChanges(setups, dayId).length

/** The change that an undo would take back, and the settings before it; null when nothing of the day stands any more. */
export function undoable(setups: readonly Setup[], dayId: string): { change: Setup; before: Setup } | null {
  const change = standingChanges(setups, dayId).at(-1)
  const before = change && setups.find((s) => s.id === change.parentId)
  return change && before ? { change, before } : null
}
