import { computed, ref, watch, type Ref } from 'vue'
import type { Position } from '#contract/setup'
import { keepDraft, readDraft } from '../support/drafts.ts'

/** A part read off a bike, not saved yet. */
interface ReadOff {
  value: number
  /** When it was read, ISO 8601. */
  at: string
  /** What was known of the part then; null = it was unread. */
  was: Mark | null
}
type Mark = Pick<Position, 'value'> & { at: string | null }

const markOf = (p: Position | undefined): Mark | null => (p ? { value: p.value, at: p.known.at } : null)

/**
 * What is being read off a bike, by adjuster id; kept on this device until it is saved. A part that was turned or read
 * elsewhere after it was read here has a later word than this one, which is then left out.
 */
export function useReadOff(open: Ref<boolean>, of: () => { bikeId: string; positions: readonly Position[] }) {
  const all = ref<Record<string, ReadOff>>({})
  const key = () => `read-off:${of().bikeId}`
  // Immediate: the form may be made already open.
  watch(open, (is) => is && (all.value = readDraft<Record<string, ReadOff>>(key()) ?? {}), {
    immediate: true,
  })
  const present = (adjusterId: string) => of().positions.find((p) => p.adjusterId === adjusterId)
  const stands = ([id, r]: [string, ReadOff]) => JSON.stringify(r.was) === JSON.stringify(markOf(present(id)))
  const read = computed(() => new Map(Object.entries(all.value).filter(stands)))
  const overtaken = computed(() =>
    Object.entries(all.value).flatMap(([id, r]) => (stands([id, r]) ? [] : [{ id, ...r }])),
  )
  function put(next: Record<string, ReadOff>) {
    all.value = next
    keepDraft(key(), Object.keys(next).length > 0 ? next : null)
  }
  const choose = (id: string, value: number) =>
    put({ ...all.value, [id]: { value, at: new Date().toISOString(), was: markOf(present(id)) } })
  const takeBack = (id: string) =>
    put(Object.fromEntries(Object.entries(all.value).filter(([other]) => other !== id)))
  const clear = () => put({})
  return { read, overtaken, choose, takeBack, clear }
}
