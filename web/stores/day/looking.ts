import { computed, ref, watch, type Ref } from 'vue'
import type { DayBundle } from '#contract/endpoints'
import type { Run } from '#contract/run'

/**
 * Which run is looked at: the one chosen, else the last. It stays when another device logs one: a finger on its way
 * lands on the run it was meant for.
 */
export function useLooking(bundle: Ref<DayBundle | null>) {
  const selectedRunId = ref<string | null>(null)
  const last = computed(() => bundle.value?.runs.at(-1) ?? null)
  const selectedRun = computed<Run | null>(
    () => bundle.value?.runs.find((r) => r.id === selectedRunId.value) ?? last.value,
  )
  // The last run when the page opens is held from then on.
  watch(
    () => (selectedRunId.value === null ? (last.value?.id ?? null) : null),
    (id) => {
      if (id !== null) selectedRunId.value = id
    },
    { immediate: true, flush: 'sync' },
  )
  /** Logged elsewhere while another run was looked at; offered, not shown. */
  const arrivedId = ref<string | null>(null)
  watch(
    () => [bundle.value?.day.id, last.value?.id, selectedRunId.value] as const,
    ([day, id, looked], [dayBefore, before]) => {
      if (day !== dayBefore) arrivedId.value = null
      else if (id !== undefined && id !== before) arrivedId.value = id
      if (arrivedId.value === looked) arrivedId.value = null
    },
    { flush: 'sync' },
  )
  const arrived = computed(() => bundle.value?.runs.find((r) => r.id === arrivedId.value) ?? null)
  return { selectedRunId, selectedRun, arrived }
}
