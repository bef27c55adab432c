import { computed, onScopeDispose, ref, shallowRef } from 'vue'
import type { DataState } from '#contract/data'
import { endpoints } from '#contract/endpoints'
import { call } from '../api/client.ts'
import { useNotices } from '../stores/notices.ts'

const lookEveryMs = 400

/** What is kept and its safe copies, looked at again while one is being made. */
export function useData() {
  const notices = useNotices()
  const state = shallowRef<DataState | null>(null)
  const asked = ref(0)
  const busy = computed(() => asked.value > 0 || Boolean(state.value?.work ?? state.value?.carrying))
  const load = async () => void (state.value = await call(endpoints.getData, {}))
  let timer: ReturnType<typeof setTimeout> | undefined
  let isGone = false
  async function watch() {
    clearTimeout(timer)
    await load().catch(() => undefined)
    if (!isGone && busy.value) timer = setTimeout(() => void watch(), lookEveryMs)
  }
  onScopeDispose(() => {
    isGone = true
    clearTimeout(timer)
  })
  /** Does something that takes its time; what it is doing stands in `state.work` meanwhile. @returns whether it went through */
  async function act(work: () => Promise<unknown>): Promise<boolean> {
    asked.value++
    const done = notices.attempt(work)
    void watch()
    const went = await done
    asked.value--
    await watch()
    return went
  }
  void notices.attempt(load).then(() => (busy.value ? watch() : undefined))
  return { state, busy, act, look: () => notices.attempt(load) }
}
