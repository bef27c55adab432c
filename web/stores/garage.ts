import { useQuery } from '@tanstack/vue-query'
import { defineStore } from 'pinia'
import { computed, ref } from 'vue'
import type { Baseline } from '#contract/baseline'
import type { Bike } from '#contract/bike'
import type { Gauge, ServiceEntry, StockItem } from '#contract/care'
import type { Garage } from '#contract/endpoints'
import type { Profile } from '#contract/profile'
import type { Rider } from '#contract/rider'
import type { Setup } from '#contract/setup'
import type { Trail } from '#contract/trail'
import type { SuspensionUnit } from '#contract/unit'
import { cache, readAfresh, reads } from '../api/cache.ts'
import type { LetterKind } from '../api/letters.ts'
import { stillAssumed } from '../support/assumed.ts'
import { overlayGarage } from '../api/overlay.ts'
import { useOutbox } from './outbox.ts'

const empty: Garage = {
  riders: [],
  bikes: [],
  units: [],
  trails: [],
  currentSetups: [],
  wantedSetups: [],
  gauges: [],
  stock: [],
  services: [],
  baselines: [],
  kept: [],
  profiles: [],
}

/** Riders, bikes, units and trails: as the server holds them, with what waits in this browser laid over. */
export const useGarage = defineStore('garage', () => {
  const outbox = useOutbox()
  const asked = ref(false)
  const { data } = useQuery({ ...reads.garage(), enabled: asked, shallow: true }, cache)
  const held = computed(() => overlayGarage(data.value ?? empty, outbox.letters))
  const loaded = computed(() => data.value !== undefined)

  /** Reads it afresh and keeps it live from then on. @throws ApiError */
  async function load(): Promise<void> {
    asked.value = true
    await readAfresh(reads.garage())
  }
  const find = <T extends { id: string }>(list: readonly T[], id: string | null) =>
    list.find((x) => x.id === id)
  /** @returns the record as it stands now, saved or waiting here */
  async function save<T extends { id: string }>(kind: LetterKind, record: T, opened?: T): Promise<T> {
    const done = await outbox.save(kind, record, opened)
    return done.state === 'saved' ? done.saved : record
  }
  return {
    loaded,
    load,
    riders: computed(() => held.value.riders),
    bikes: computed(() => held.value.bikes),
    units: computed(() => held.value.units),
    trails: computed(() => held.value.trails),
    gauges: computed(() => held.value.gauges),
    stock: computed(() => held.value.stock),
    services: computed(() => held.value.services),
    baselines: computed(() => held.value.baselines),
    kept: computed(() => held.value.kept),
    profiles: computed(() => held.value.profiles),
    rider: (id: string | null) => find(held.value.riders, id),
    bike: (id: string | null) => find(held.value.bikes, id),
    unit: (id: string | null) => find(held.value.units, id),
    trail: (id: string | null) => find(held.value.trails, id),
    gauge: (id: string | null) => find(held.value.gauges, id),
    servicesOf: (bikeId: string) => held.value.services.filter((s) => s.bikeId === bikeId),
    baselinesOf: (bikeId: string) => held.value.baselines.filter((b) => b.bikeId === bikeId),
    currentSetup: (bikeId: string): Setup | undefined =>
      held.value.currentSetups.find((s) => s.bikeId === bikeId),
    wantedOf: (bikeId: string): Setup[] => held.value.wantedSetups.filter((s) => s.bikeId === bikeId),
    unitsOf: (bike: Bike): SuspensionUnit[] =>
      [bike.frontUnitId, bike.rearUnitId].flatMap((id) => find(held.value.units, id) ?? []),
    saveRider: (r: Rider, opened?: Rider) =>
      save('rider', stillAssumed(find(held.value.riders, r.id), r), opened),
    saveBike: (b: Bike, opened?: Bike) => save('bike', stillAssumed(find(held.value.bikes, b.id), b), opened),
    saveUnit: (u: SuspensionUnit, opened?: SuspensionUnit) =>
      save('unit', stillAssumed(find(held.value.units, u.id), u), opened),
    saveTrail: (t: Trail, opened?: Trail) => save('trail', t, opened),
    saveGauge: (g: Gauge, opened?: Gauge) => save('gauge', g, opened),
    saveStockItem: (s: StockItem, opened?: StockItem) => save('stock', s, opened),
    saveService: (s: ServiceEntry, opened?: ServiceEntry) => save('service', s, opened),
    saveProfile: (p: Profile, opened?: Profile) => save('profile', p, opened),
    saveBaseline: (b: Baseline, opened?: Baseline) => save('baseline', b, opened),
    /** @throws ApiError 'setup.not-present' with what is on the bike, when it was changed meanwhile */
    saveSetup: (s: Setup) => save('setup', s),
  }
})
