import { Hono } from 'hono'
import { endpoints } from '#contract/endpoints'
import { kept, profiles } from '../db/schema.ts'
import type { Deps } from '../deps.ts'
import { mount } from '../mount.ts'
import { readBikeFigures } from '../services/bikeFigures.ts'
import { readBikeSetups, saveKept, saveProfile } from '../services/bikeSetups.ts'
import { saveNoted } from '../services/noted.ts'
import { mountPutAway, sameId } from './garage.ts'

/** Everything a bike has stood at, and what is kept of it. */
export function setupRoutes(deps: Deps): Hono {
  const { store, events, now } = deps
  const app = new Hono()
  mount(app, endpoints.getBikeSetups, ({ params }) => readBikeSetups(store, params.id))
  mount(app, endpoints.getBikeFigures, ({ params }) => readBikeFigures(store, params.id))
  mount(app, endpoints.putNoted, async ({ params, body }) => {
    await saveNoted(store, params.id, body, now())
    events.emit({ type: 'stale', what: 'setups', id: params.id })
    events.emit({ type: 'stale', what: 'garage', id: null })
    return {}
  })
  mount(app, endpoints.putKept, async ({ params, body }) => {
    const saved = await saveKept(store, sameId(params.id, body))
    events.emit({ type: 'stale', what: 'setups', id: saved.bikeId })
    // Its name stands in the garage's list, too.
    events.emit({ type: 'stale', what: 'garage', id: null })
    return saved
  })
  mount(app, endpoints.putProfile, async ({ params, body }) => {
    const saved = await saveProfile(store, sameId(params.id, body))
    events.emit({ type: 'stale', what: 'garage', id: null })
    return saved
  })
  mountPutAway(app, deps, [
    [endpoints.deleteKept, endpoints.restoreKept, kept],
    [endpoints.deleteProfile, endpoints.restoreProfile, profiles],
  ])
  return app
}
