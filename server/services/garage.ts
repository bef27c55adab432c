import { and, desc, eq, inArray, isNull } from 'drizzle-orm'
import type { Bike } from '#contract/bike'
import type { Garage } from '#contract/endpoints'
import type { Rider } from '#contract/rider'
import type { Trail } from '#contract/trail'
import type { SuspensionUnit } from '#contract/unit'
import { standing } from '#core/setup/standing'
import {
  baselines,
  bikes,
  gauges,
  kept,
  profiles,
  riders,
  services,
  setups,
  stock,
  trails,
  units,
} from '../db/schema.ts'
import type { Store } from '../db/open.ts'
import { Refusal } from '../refusal.ts'
import { countCorrections } from './recount.ts'
import { renewOnTrail } from './recordings/renewOnTrail.ts'
import { mustExist, saveRecord } from './records.ts'
import { wantedSetups } from './setups.ts'

/** Bikes with the live pointer instead of whatever their body was saved with. */
export const withPointer = (row: { body: Bike; currentSetupId: string | null }): Bike => ({
  ...row.body,
  currentSetupId: row.currentSetupId,
})

export async function readGarage(store: Store): Promise<Garage> {
  const { db } = store
  const [r, b, u, t, g, st, se, ba, k, p] = await Promise.all([
    db.select().from(riders).where(isNull(riders.deletedAt)),
    db.select().from(bikes).where(isNull(bikes.deletedAt)),
    db.select().from(units).where(isNull(units.deletedAt)),
    db.select().from(trails).where(isNull(trails.deletedAt)),
    db.select().from(gauges).where(isNull(gauges.deletedAt)),
    db.select().from(stock).where(isNull(stock.deletedAt)),
    db.select().from(services).where(isNull(services.deletedAt)).orderBy(desc(services.date)),
    db.select().from(baselines).where(isNull(baselines.deletedAt)),
    db.select().from(kept).where(isNull(kept.deletedAt)),
    db.select().from(profiles).where(isNull(profiles.deletedAt)),
  ])
  const pointers = b.map((x) => x.currentSetupId).filter((x) => x !== null)
  const current = pointers.length ? await db.select().from(setups).where(inArray(setups.id, pointers)) : []
  const all = u.map((x) => x.body)
  return {
    riders: r.map((x) => x.body),
    bikes: b.map(withPointer),
    units: all,
    trails: t.map((x) => x.body),
    currentSetups: current.map((x) => standing(x.body, all)),
    wantedSetups: await wantedSetups(store),
    gauges: g.map((x) => x.body),
    stock: st.map((x) => x.body),
    services: se.map((x) => x.body),
    baselines: ba.map((x) => x.body),
    kept: k.map((x) => x.body),
    profiles: p.map((x) => x.body),
  }
}

export const saveRider = (store: Store, rider: Rider) =>
  store.writes.run(() => saveRecord(store, riders, riders.id, rider.id, rider, { id: rider.id }))

export const saveUnit = (store: Store, unit: SuspensionUnit) =>
  store.writes.run(() =>
    saveRecord(store, units, units.id, unit.id, unit, { id: unit.id }, (held) =>
      countCorrections(store, held, unit),
    ),
  )

/** Where its sections lie decides the figures of all that was recorded on it: they are made again as their days are opened. */
export const saveTrail = (store: Store, trail: Trail) =>
  store.writes.run(() =>
    saveRecord(store, trails, trails.id, trail.id, trail, { id: trail.id }, async (held) =>
      groundOf(held) === groundOf(trail) ? [] : [renewOnTrail(store, trail.id)],
    ),
  )

/** What a recording's sections are laid by. */
const groundOf = ({ sections, gates }: Trail) =>
  JSON.stringify([sections.map(({ id, kind, lengthM }) => [id, kind, lengthM]), gates])

/** The pointer to the present setup is the server's: a bike form that was open meanwhile must not turn it back. */
export function saveBike(store: Store, bike: Bike): Promise<Bike> {
  return store.writes.run(async () => {
    await mustExist(store, riders, bike.riderId, 'riderId', 'rider')
    for (const [path, id, end] of [
      ['frontUnitId', bike.frontUnitId, 'front'],
      ['rearUnitId', bike.rearUnitId, 'rear'],
    ] as const) {
      if (id === null) continue
      const [unit] = await store.db.select().from(units).where(eq(units.id, id))
      if (!unit) throw new Refusal('reference.missing', 'The unit it refers to is not saved yet.', { path })
      if (unit.body.end !== end)
        throw new Refusal('request.invalid', `${unit.body.name} belongs at the ${unit.body.end}.`, { path })
    }
    const { id, riderId, frontUnitId, rearUnitId } = bike
    const saved = await saveRecord(
      store,
      bikes,
      bikes.id,
      id,
      { ...bike, currentSetupId: null },
      { id, riderId, frontUnitId, rearUnitId },
    )
    const [row] = await store.db
      .select({ currentSetupId: bikes.currentSetupId })
      .from(bikes)
      .where(eq(bikes.id, id))
    return { ...saved, currentSetupId: row.currentSetupId }
  })
}

/**
 * Removes a rider with the bikes, or brings both back: a bike never stays behind without its rider.
 * @throws Refusal 'record.not-found'
 */
export function setRiderRemoved(store: Store, id: string, at: string | null): Promise<void> {
  const { db } = store
  return store.writes.run(async () => {
    const [rider] = await db.select().from(riders).where(eq(riders.id, id))
    if (!rider) throw new Refusal('record.not-found', 'There is nothing with that id.')
    const mine = eq(bikes.riderId, id)
    // Only what went with the rider comes back with the rider.
    const together = at === null ? eq(bikes.deletedAt, rider.deletedAt ?? '') : isNull(bikes.deletedAt)
    await db.batch([
      db.update(riders).set({ deletedAt: at }).where(eq(riders.id, id)),
      db.update(bikes).set({ deletedAt: at }).where(and(mine, together)),
    ])
  })
}

/** Brings a bike back, and its rider with it. @throws Refusal 'record.not-found' */
export function restoreBike(store: Store, id: string): Promise<void> {
  const { db } = store
  return store.writes.run(async () => {
    const [bike] = await db.select().from(bikes).where(eq(bikes.id, id))
    if (!bike) throw new Refusal('record.not-found', 'There is nothing with that id.')
    await db.batch([
      db.update(bikes).set({ deletedAt: null }).where(eq(bikes.id, id)),
      db.update(riders).set({ deletedAt: null }).where(eq(riders.id, bike.riderId)),
    ])
  })
}
