import { ref, watch, type Ref } from 'vue'

/** True from the first time it opens: a form is fetched when somebody calls it, and then stays as it was left. */
export function useCalled(open: Ref<boolean>): Ref<boolean> {
  const called = ref(open.value)
  watch(open, (is) => is && (called.value = true), { flush: 'sync' })
  return called
}
