import { defineStore } from 'pinia'
import { computed, shallowRef } from 'vue'
import type { Bike } from '#contract/bike'
import { endpoints, type Garage } from '#contract/endpoints'
import type { Rider } from '#contract/rider'
import type { Setup } from '#contract/setup'
import type { Trail } from '#contract/trail'
import type { SuspensionUnit } from '#contract/unit'
import type { Baseline } from '#contract/baseline'
import type { Gauge, ServiceEntry, StockItem } from '#contract/care'
import { call } from '../api/client.ts'

const empty: Garage = {
  riders: [],
  bikes: [],
  units: [],
  trails: [],
  currentSetups: [],
  gauges: [],
  stock: [],
  services: [],
  baselines: [],
}

/** Riders, bikes, units and trails as the server holds them. */
export const useGarage = defineStore('garage', () => {
  const held = shallowRef<Garage>(empty)
  const loaded = shallowRef(false)

  async function load(): Promise<void> {
    held.value = await call(endpoints.getGarage, {})
    loaded.value = true
  }
  const find = <T extends { id: string }>(list: readonly T[], id: string | null) =>
    list.find((x) => x.id === id)
  async function saved<T>(save: Promise<T>): Promise<T> {
    const result = await save
    await load()
    return result
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
    rider: (id: string | null) => find(held.value.riders, id),
    bike: (id: string | null) => find(held.value.bikes, id),
    unit: (id: string | null) => find(held.value.units, id),
    trail: (id: string | null) => find(held.value.trails, id),
    gauge: (id: string | null) => find(held.value.gauges, id),
    servicesOf: (bikeId: string) => held.value.services.filter((s) => s.bikeId === bikeId),
    baselinesOf: (bikeId: string) => held.value.baselines.filter((b) => b.bikeId === bikeId),
    currentSetup: (bikeId: string): Setup | undefined =>
      held.value.currentSetups.find((s) => s.bikeId === bikeId),
    unitsOf: (bike: Bike): SuspensionUnit[] =>
      [bike.frontUnitId, bike.rearUnitId].flatMap((id) => find(held.value.units, id) ?? []),
    saveRider: (r: Rider) => saved(call(endpoints.putRider, { id: r.id }, r)),
    saveBike: (b: Bike) => saved(call(endpoints.putBike, { id: b.id }, b)),
    saveUnit: (u: SuspensionUnit) => saved(call(endpoints.putUnit, { id: u.id }, u)),
    saveTrail: (t: Trail) => saved(call(endpoints.putTrail, { id: t.id }, t)),
    saveGauge: (g: Gauge) => saved(call(endpoints.putGauge, { id: g.id }, g)),
    saveStockItem: (s: StockItem) => saved(call(endpoints.putStockItem, { id: s.id }, s)),
    saveService: (s: ServiceEntry) => saved(call(endpoints.putService, { id: s.id }, s)),
    saveBaseline: (b: Baseline) => saved(call(endpoints.putBaseline, { id: b.id }, b)),
    saveSetup: (s: Setup) => saved(call(endpoints.putSetup, { id: s.id }, s)),
  }
})
