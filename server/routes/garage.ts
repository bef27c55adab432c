import { Hono } from 'hono'
import { endpoints } from '#contract/endpoints'
import type { LiveEvent } from '#contract/live'
import type { Deps } from '../deps.ts'
import { bikes, trails, units } from '../db/schema.ts'
import { mount } from '../mount.ts'
import { Refusal } from '../refusal.ts'
import {
  readGarage,
  restoreBike,
  saveBike,
  saveRider,
  saveTrail,
  saveUnit,
  setRiderRemoved,
} from '../services/garage.ts'
import { readShelf } from '../services/shelf.ts'
import { setDeleted, type SoftTable } from '../services/records.ts'
import { saveSetup, setUnturnedRemoved } from '../services/setups.ts'

/** Riders, bikes, units, trails and what is set on them. */
export function garageRoutes(deps: Deps): Hono {
  const { store, now, events } = deps
  const app = new Hono()
  const stale = () => events.emit({ type: 'stale', what: 'garage', id: null })
  /** A rider, bike, unit or trail stands in the bundles of its days too. */
  const told = async <T>(work: Promise<T>): Promise<T> => {
    const result = await work
    stale()
    events.emit({ type: 'stale', what: 'day', id: null })
    return result
  }
  mount(app, endpoints.getGarage, () => readGarage(store))
  mount(app, endpoints.getShelf, () => readShelf(store))
  mount(app, endpoints.putRider, ({ params, body }) => told(saveRider(store, sameId(params.id, body))))
  mount(app, endpoints.putUnit, ({ params, body }) => told(saveUnit(store, sameId(params.id, body))))
  mount(app, endpoints.putBike, ({ params, body }) => told(saveBike(store, sameId(params.id, body))))
  mount(app, endpoints.putTrail, ({ params, body }) => told(saveTrail(store, sameId(params.id, body))))
  mount(app, endpoints.putSetup, async ({ params, body }) => {
    const setup = await saveSetup(store, sameId(params.id, body))
    events.emit({ type: 'setup', setup })
    return setup
  })
  for (const [endpoint, at] of [
    [endpoints.deleteSetup, now],
    [endpoints.restoreSetup, () => null],
  ] as const)
    mount(app, endpoint, async ({ params }) => {
      await setUnturnedRemoved(store, params.id, at())
      stale()
      return {}
    })
  for (const [endpoint, act] of [
    [endpoints.deleteRider, (id: string) => setRiderRemoved(store, id, now())],
    [endpoints.restoreRider, (id: string) => setRiderRemoved(store, id, null)],
    [endpoints.restoreBike, (id: string) => restoreBike(store, id)],
  ] as const)
    mount(app, endpoint, async ({ params }) => {
      await told(act(params.id))
      return {}
    })
  mountRemoval(app, deps, endpoints.deleteBike, bikes, now)
  mountPutAway(app, deps, [
    [endpoints.deleteUnit, endpoints.restoreUnit, units],
    [endpoints.deleteTrail, endpoints.restoreTrail, trails],
  ])
  return app
}

type Removal = typeof endpoints.deleteRider
type Restoral = typeof endpoints.restoreRider
type Removing = Pick<Deps, 'store' | 'now' | 'events'>

type StaleThing = Extract<LiveEvent, { type: 'stale' }>['what']

/** Removing and bringing back, alike for every kind of record. @param stale what has to be read again afterwards */
export function mountPutAway(
  app: Hono,
  deps: Removing,
  kinds: readonly (readonly [Removal, Restoral, SoftTable])[],
  stale: readonly StaleThing[] = ['garage'],
): void {
  for (const [remove, restore, table] of kinds) {
    mountRemoval(app, deps, remove, table, deps.now, stale)
    mountRemoval(app, deps, restore, table, () => null, stale)
  }
}

function mountRemoval(
  app: Hono,
  { store, events }: Removing,
  endpoint: Removal | Restoral,
  table: SoftTable,
  at: () => string | null,
  stale: readonly StaleThing[] = ['garage'],
): void {
  mount(app, endpoint, async ({ params }) => {
    await store.writes.run(() => setDeleted(store, table, params.id, at()))
    for (const what of stale) events.emit({ type: 'stale', what, id: null })
    return {}
  })
}

/** @throws Refusal 'request.invalid' when address and body name two records */
export function sameId<T extends { id: string }>(id: string, body: T): T {
  if (body.id !== id)
    throw new Refusal('request.invalid', 'The id in the address and in the body differ.', { path: 'id' })
  return body
}
