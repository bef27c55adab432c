import { computed, onScopeDispose, ref, shallowRef } from 'vue'
import type { DataState } from '#contract/data'
import { endpoints } from '#contract/endpoints'
import { call } from '../api/client.ts'
import { useNotices } from '../stores/notices.ts'

const lookEveryMs = 400
/** A server that did not answer the first time, as while a safe copy is put in place, is asked again after this. */
const askAgainMs = 2000

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
  /** Why nothing is seen yet. */
  const fault = ref('')
  async function first() {
    clearTimeout(timer)
    try {
      await load()
      if (busy.value) void watch()
    } catch (e) {
      fault.value = e instanceof Error ? e.message : String(e)
      if (!isGone) timer = setTimeout(() => void first(), askAgainMs)
    }
  }
  void first()
  return { state, fault, busy, act, look: () => notices.attempt(load) }
}
