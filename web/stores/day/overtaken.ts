import { computed, type Ref } from 'vue'
import type { DayBundle } from '#contract/endpoints'
import type { Setup } from '#contract/setup'
import { diffSetups } from '#core/setup/diff'
import { rebased } from '#core/setup/rebase'
import { readAfresh, reads } from '../../api/cache.ts'
import { useOutbox } from '../outbox.ts'

/** Setups of a bike are sent one after the other. */
export const setupKey = (bikeId: string) => `setups:${bikeId}`

/** Turns that met a bike that was changed elsewhere meanwhile: put to the person. */
export function useOvertaken(
  bundle: Ref<DayBundle | null>,
  setupOf: (setupId: string | null) => Setup | null,
) {
  const outbox = useOutbox()
  /** Turns of this page that met a bike that was changed elsewhere meanwhile. */
  const overtaken = computed(() => {
    const b = bundle.value
    const letter = b && outbox.conflictOf(setupKey(b.bike.id))
    const mine = letter ? (letter.body as Setup) : null
    const theirs = (letter?.problem?.current ?? null) as Setup | null
    const seen = mine && setupOf(mine.parentId)
    return letter && mine && theirs && seen
      ? { letter, mine, theirs, moves: diffSetups(seen, mine, b!.units) }
      : null
  })
  /** Lays the turns of this page on what is on the bike now, or gives them up. */
  async function settleOvertaken(which: 'mine' | 'theirs'): Promise<void> {
    const o = overtaken.value
    if (!o) return
    await readAfresh(reads.day(bundle.value!.day.id))
    const row = outbox.letters.filter((l) => l.key === o.letter.key)
    if (which === 'theirs') return outbox.drop(row.map((l) => l.id))
    let onto = o.theirs
    for (const l of row) {
      const mine = l.body as Setup
      const seen =
        setupOf(mine.parentId) ?? (row.find((x) => (x.body as Setup).id === mine.parentId)?.body as Setup)
      const next: Setup = { ...mine, parentId: onto.id, positions: rebased(seen ?? onto, mine, onto) }
      await outbox.again(l.id, next)
      onto = next
    }
  }
  return { overtaken, settleOvertaken }
}
