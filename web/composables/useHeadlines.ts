import { ref, watch, type Ref } from 'vue'
import { cache, reads } from '../api/cache.ts'
import { judgeOnce } from '../stores/day/judge.ts'
import { useUnits } from './useUnits.ts'

/**
 * What is next on several days, one after the other, off the page's thread. A day that cannot be read is left without.
 *
 * @param ids the days, most wanted first
 */
export function useHeadlines(ids: Ref<readonly string[]>): Ref<ReadonlyMap<string, string>> {
  const { units } = useUnits()
  const said = ref<ReadonlyMap<string, string>>(new Map())
  let round = 0
  watch(
    () => ids.value.join(),
    async () => {
      const mine = ++round
      for (const id of ids.value) {
        try {
          const bundle = await cache.fetchQuery(reads.day(id))
          const earlier = bundle.day.judgedAlone ? [] : await cache.fetchQuery(reads.earlier(id))
          if (mine !== round) return
          const { proposal } = await judgeOnce(bundle, earlier, units.value)
          if (mine !== round) return
          said.value = new Map(said.value).set(id, proposal.headline)
        } catch {
          // The row stands without; opening the day tells what is wrong with it.
        }
      }
    },
    { immediate: true },
  )
  return said
}
