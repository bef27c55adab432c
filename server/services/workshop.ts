import { and, desc, eq, isNull } from 'drizzle-orm'
import type { Baseline } from '#contract/baseline'
import type { Bench } from '#contract/bench'
import type { Gauge, ServiceEntry, StockItem } from '#contract/care'
import type { Store } from '../db/open.ts'
import { baselines, benches, bikes, gauges, services, setups, stock, units } from '../db/schema.ts'
import { Refusal } from '../refusal.ts'
import { mustExist, saveRecord } from './records.ts'

export const saveGauge = (store: Store, gauge: Gauge) =>
  store.writes.run(() => saveRecord(store, gauges, gauges.id, gauge.id, gauge, { id: gauge.id }))

export const saveStockItem = (store: Store, item: StockItem) =>
  store.writes.run(async () => {
    if (item.kind === 'spacer' && item.unitId) await mustExist(store, units, item.unitId, 'unitId', 'unit')
    return saveRecord(store, stock, stock.id, item.id, item, { id: item.id })
  })

export const saveService = (store: Store, entry: ServiceEntry) =>
  store.writes.run(async () => {
    await mustExist(store, bikes, entry.bikeId, 'bikeId', 'bike')
    if (entry.unitId) await mustExist(store, units, entry.unitId, 'unitId', 'unit')
    const { id, bikeId, date } = entry
    return saveRecord(store, services, services.id, id, entry, { id, bikeId, date })
  })

export const saveBaseline = (store: Store, baseline: Baseline) =>
  store.writes.run(async () => {
    await mustExist(store, bikes, baseline.bikeId, 'bikeId', 'bike')
    const { id, bikeId } = baseline
    return saveRecord(store, baselines, baselines.id, id, baseline, { id, bikeId })
  })

/** @throws Refusal 'reference.missing' when the setup it ended in is not kept for its bike */
export const saveBench = (store: Store, bench: Bench) =>
  store.writes.run(async () => {
    await mustExist(store, bikes, bench.bikeId, 'bikeId', 'bike')
    if (bench.finishedSetupId) {
      const [setup] = await store.db.select().from(setups).where(eq(setups.id, bench.finishedSetupId))
      if (setup?.bikeId !== bench.bikeId)
        throw new Refusal('reference.missing', 'That setup is not kept for this bike.', {
          path: 'finishedSetupId',
        })
    }
    const { id, bikeId, startedAt } = bench
    return saveRecord(store, benches, benches.id, id, bench, { id, bikeId, startedAt })
  })

export async function listBenches({ db }: Store, bikeId: string): Promise<Bench[]> {
  const rows = await db
    .select()
    .from(benches)
    .where(and(eq(benches.bikeId, bikeId), isNull(benches.deletedAt)))
    .orderBy(desc(benches.startedAt))
  return rows.map((r) => r.body)
}
