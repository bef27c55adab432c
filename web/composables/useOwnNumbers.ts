import { computed, ref, type ComputedRef, type WritableComputedRef } from 'vue'
import type { Bike } from '#contract/bike'
import type { End } from '#contract/common'
import type { Setup } from '#contract/setup'
import type { SuspensionUnit } from '#contract/unit'
import type { Lacking } from '#core/setup/ownNumbers'
import { useGarage } from '../stores/garage.ts'

/** Undefined: the bike that was last set up; null: invented numbers. */
const chosen = ref<string | null>()

/** The bike whose numbers the figures of the handbook open with, and those to choose from. */
export function useFigureBike(): {
  bikeId: WritableComputedRef<string | null>
  bikes: ComputedRef<{ value: string | null; text: string }[]>
} {
  const garage = useGarage()
  const standing = computed(() =>
    garage.bikes.flatMap((bike) => {
      const now = garage.currentSetup(bike.id)
      return now ? [{ bike, now }] : []
    }),
  )
  const last = computed(
    () =>
      standing.value.reduce<{ bike: Bike; now: Setup } | null>(
        (a, b) => (a && a.now.madeAt >= b.now.madeAt ? a : b),
        null,
      )?.bike.id ?? null,
  )
  const bikeId = computed({
    get: () => {
      if (chosen.value === null) return null
      return standing.value.some((x) => x.bike.id === chosen.value) ? chosen.value! : last.value
    },
    set: (id) => void (chosen.value = id),
  })
  const bikes = computed(() => [
    ...standing.value.map(({ bike }) => ({
      value: bike.id as string | null,
      text: `${bike.name}, ${garage.rider(bike.riderId)?.name ?? 'nobody'}`,
    })),
    { value: null, text: 'an invented bike' },
  ])
  return { bikeId, bikes }
}

/** What a figure found on the bike; `lacking` where it opens with invented numbers although a bike was chosen. */
export interface OwnNumbers<T> {
  own: T | null
  lacking: Lacking | null
}

/**
 * Numbers of the bike that was chosen, as they stand when the figure opens; another bike opens it anew.
 * @param take what the figure needs, or the first thing that nobody knows
 */
export function useOwnNumbers<T extends object>(
  take: (at: { bike: Bike; now: Setup; unitAt: (end: End) => SuspensionUnit | null }) => T | Lacking,
): OwnNumbers<T> {
  const garage = useGarage()
  const { bikeId } = useFigureBike()
  // Somebody who sets up another bike meanwhile does not open it anew under the hand.
  if (chosen.value === undefined && bikeId.value !== null) chosen.value = bikeId.value
  const bike = garage.bike(bikeId.value)
  const now = bike && garage.currentSetup(bike.id)
  if (!now) return { own: null, lacking: null }
  const unitAt = (end: End) => garage.unitsOf(bike).find((u) => u.end === end) ?? null
  const found = take({ bike, now, unitAt })
  return typeof found === 'string' ? { own: null, lacking: found } : { own: found, lacking: null }
}
