import { Hono } from 'hono'
import { endpoints } from '#contract/endpoints'
import type { Deps } from '../deps.ts'
import { bikes, riders, trails, units } from '../db/schema.ts'
import { mount } from '../mount.ts'
import { Refusal } from '../refusal.ts'
import { readGarage, saveBike, saveRider, saveTrail, saveUnit } from '../services/garage.ts'
import { setDeleted, type SoftTable } from '../services/records.ts'
import { saveSetup } from '../services/setups.ts'

/** Riders, bikes, units, trails and what is set on them. */
export function garageRoutes({ store, now, events }: Deps): Hono {
  const app = new Hono()
  mount(app, endpoints.getGarage, () => readGarage(store))
  mount(app, endpoints.putRider, ({ params, body }) => saveRider(store, sameId(params.id, body)))
  mount(app, endpoints.putUnit, ({ params, body }) => saveUnit(store, sameId(params.id, body)))
  mount(app, endpoints.putBike, ({ params, body }) => saveBike(store, sameId(params.id, body)))
  mount(app, endpoints.putTrail, ({ params, body }) => saveTrail(store, sameId(params.id, body)))
  mount(app, endpoints.putSetup, async ({ params, body }) => {
    const saved = await saveSetup(store, sameId(params.id, body))
    if (saved.dayId) events.emit({ type: 'day', dayId: saved.dayId })
    return saved
  })
  mountPutAway(app, { store, now }, [
    [endpoints.deleteRider, endpoints.restoreRider, riders],
    [endpoints.deleteUnit, endpoints.restoreUnit, units],
    [endpoints.deleteBike, endpoints.restoreBike, bikes],
    [endpoints.deleteTrail, endpoints.restoreTrail, trails],
  ])
  return app
}

type Removal = typeof endpoints.deleteRider
type Restoral = typeof endpoints.restoreRider

/** Putting away and bringing back, alike for every kind of record. */
export function mountPutAway(
  app: Hono,
  { store, now }: Pick<Deps, 'store' | 'now'>,
  kinds: readonly (readonly [Removal, Restoral, SoftTable])[],
): void {
  for (const [remove, restore, table] of kinds) {
    mount(
      app,
      remove,
      async ({ params }) => (await store.writes.run(() => setDeleted(store, table, params.id, now())), {}),
    )
    mount(
      app,
      restore,
      async ({ params }) => (await store.writes.run(() => setDeleted(store, table, params.id, null)), {}),
    )
  }
}

/** @throws Refusal 'request.invalid' when address and body name two records */
export function sameId<T extends { id: string }>(id: string, body: T): T {
  if (body.id !== id)
    throw new Refusal('request.invalid', 'The id in the address and in the body differ.', { path: 'id' })
  return body
}
