import { onScopeDispose, shallowRef, watch, type Ref, type ShallowRef } from 'vue'
import type { DayBundle } from '#contract/endpoints'
import type { Proposal } from '#contract/proposal'
import { cache, reads } from '../api/cache.ts'
import { basisOf, judgedBefore, judgeOnce, readyToJudge } from '../stores/day/judge.ts'
import { overlayDay } from '../api/overlay.ts'
import { useOutbox } from '../stores/outbox.ts'
import { useUnits } from './useUnits.ts'

export interface Headline {
  day: DayBundle
  /** What is next on it; null while it is worked out. */
  next: string | null
  proposal: Proposal | null
}

/**
 * Several days as they are held, with what is next on each, live: worked out one after the other off the page's thread, and
 * again only when something it rests on changed. A day that cannot be read is left without.
 *
 * @param ids the days, most wanted first
 */
export function useHeadlines(ids: Ref<readonly string[]>): ShallowRef<ReadonlyMap<string, Headline>> {
  const { units } = useUnits()
  const outbox = useOutbox()
  const said = shallowRef<ReadonlyMap<string, Headline>>(new Map())
  /** What each headline rests on. */
  const restsOn = new Map<string, string>()
  readyToJudge()
  let wanted = false
  let running = false
  let gone = false
  const tell = (id: string, h: Headline) => (said.value = new Map(said.value).set(id, h))

  /** The day as it is held; told at once, so that none waits for what is next on the others. */
  async function read(id: string): Promise<DayBundle> {
    // What waits in this browser counts: without signal it is all there is to go by.
    const day = overlayDay(await cache.fetchQuery(reads.day(id)), outbox.letters)
    const before = said.value.get(id)
    if (before?.day !== day && !gone)
      tell(id, { day, next: before?.next ?? null, proposal: before?.proposal ?? null })
    return day
  }
  const earlierOf = async (day: DayBundle) =>
    day.day.judgedAlone ? [] : await cache.fetchQuery(reads.earlier(day.day.id)).catch(() => [])
  /** What was worked out before, at once: no day that stands as it stood waits behind one that does not. */
  async function recallJudged(id: string): Promise<void> {
    if (restsOn.has(id)) return
    const day = await read(id)
    const before = await judgedBefore(day, () => earlierOf(day), units.value)
    if (!before || gone) return
    restsOn.set(id, basisOf(day, await earlierOf(day), units.value))
    tell(id, { day, next: before.proposal.headline, proposal: before.proposal })
  }
  async function judge(id: string): Promise<void> {
    const day = await read(id)
    const earlier = await earlierOf(day)
    const basis = basisOf(day, earlier, units.value)
    if (gone || restsOn.get(id) === basis) return
    const { proposal } = await judgeOnce(day, earlier, units.value)
    restsOn.set(id, basis)
    tell(id, { day, next: proposal.headline, proposal })
  }
  async function run(): Promise<void> {
    wanted = true
    if (running) return
    running = true
    while (wanted && !gone) {
      wanted = false
      // A row stands without; opening the day tells what is wrong with it.
      await Promise.all(ids.value.map((id) => read(id).catch(() => undefined)))
      await Promise.all(ids.value.map((id) => recallJudged(id).catch(() => undefined)))
      for (const id of ids.value) {
        if (gone) break
        await judge(id).catch(() => undefined)
      }
    }
    running = false
  }
  watch([() => ids.value.join(), units, () => outbox.letters], () => void run(), { immediate: true })
  const stop = cache.getQueryCache().subscribe((e) => {
    if (e.type !== 'updated' || (e.action.type !== 'success' && e.action.type !== 'invalidate')) return
    const [what, id] = e.query.queryKey as [string, string]
    if ((what === 'day' || what === 'earlier') && ids.value.includes(id)) void run()
  })
  onScopeDispose(() => {
    gone = true
    stop()
  })
  return said
}
