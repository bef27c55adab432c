import { computed, watch } from 'vue'
import { useDay } from '../stores/day.ts'
import { useNotices } from '../stores/notices.ts'

/** The day that a page of its own is about: loaded when another one is open, null until it is here. */
export function useDayPage(id: () => string) {
  const day = useDay()
  const notices = useNotices()
  const reload = () => notices.attempt(() => day.load(id()))
  watch(id, (wanted) => day.bundle?.day.id === wanted || reload(), { immediate: true })
  const bundle = computed(() => (day.bundle?.day.id === id() ? day.bundle : null))
  return { day, notices, bundle, reload }
}
