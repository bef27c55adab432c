import { useQuery } from '@tanstack/vue-query'
import { computed, toValue, type MaybeRefOrGetter } from 'vue'
import { knownPlaces, type KnownPlace } from '#core/lineage/facts'
import { cache, reads } from '../api/cache.ts'
import { useGarage } from '../stores/garage.ts'

/** Everything a bike has stood at, live; what waits in this browser is laid over. Null id: none is asked for. */
export function useBikeSetups(bikeId: MaybeRefOrGetter<string | null>) {
  const garage = useGarage()
  const { data, isError } = useQuery(
    computed(() => {
      const id = toValue(bikeId)
      return { ...reads.setups(id ?? ''), enabled: id !== null }
    }),
    cache,
  )
  const all = computed(() => {
    const held = data.value
    if (!held || held.bikeId !== toValue(bikeId)) return null
    const own = { ...held, kept: garage.kept.filter((k) => k.bikeId === held.bikeId) }
    const present = garage.currentSetup(held.bikeId)
    if (!present || held.setups.some((s) => s.id === present.id)) return own
    return { ...own, setups: [...held.setups, present] }
  })
  const places = computed<KnownPlace[]>(() =>
    all.value ? knownPlaces(all.value, garage.bike(all.value.bikeId)?.currentSetupId ?? null) : [],
  )
  return { all, places, failed: isError }
}
