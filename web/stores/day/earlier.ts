import { useQuery } from '@tanstack/vue-query'
import { computed, type Ref } from 'vue'
import type { DayBundle } from '#contract/endpoints'
import { cache, reads } from '../../api/cache.ts'

/** The days that a day starts from. */
export function useEarlier(id: Ref<string | null>, bundle: Ref<DayBundle | null>) {
  const { data: before, status: beforeStatus } = useQuery(
    computed(() => ({
      ...reads.earlier(id.value ?? ''),
      enabled: bundle.value !== null && !bundle.value.day.judgedAlone,
      shallow: true,
    })),
    cache,
  )
  const none: readonly DayBundle[] = []
  /** Days this one starts from; none when it is judged on its own, or when they cannot be had. */
  const earlier = computed<readonly DayBundle[] | null>(() => {
    if (bundle.value?.day.judgedAlone) return none
    return beforeStatus.value === 'pending' ? null : (before.value ?? none)
  })
  const earlierFailed = computed(() => !bundle.value?.day.judgedAlone && beforeStatus.value === 'error')
  return { earlier, earlierFailed }
}
