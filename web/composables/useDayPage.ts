import { computed, ref, watch } from 'vue'
import { useDay } from '../stores/day.ts'
import { useNotices } from '../stores/notices.ts'

/** The day that a page of its own is about: loaded when another one is open, null until it is here; `failed` when it does not come. */
export function useDayPage(id: () => string) {
  const day = useDay()
  const notices = useNotices()
  const failed = ref(false)
  async function reload() {
    const wanted = id()
    const isHere = await notices.attempt(() => day.load(wanted))
    if (wanted === id()) failed.value = !isHere
  }
  watch(id, (wanted) => day.bundle?.day.id === wanted || reload(), { immediate: true })
  const bundle = computed(() => (day.bundle?.day.id === id() ? day.bundle : null))
  return { day, notices, bundle, reload, failed }
}
