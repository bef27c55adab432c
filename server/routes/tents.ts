import { Hono } from 'hono'
import { endpoints } from '#contract/endpoints'
import type { Deps } from '../deps.ts'
import { tentHours, tentNotes, tentRiders, tents } from '../db/schema.ts'
import { mount } from '../mount.ts'
import { daysIn, tentHolding } from '../services/tentLog.ts'
import {
  listTents,
  readTent,
  saveTent,
  saveTentHour,
  saveTentNote,
  saveTentRider,
  tentOf,
} from '../services/tents.ts'
import { mountPutAway, sameId } from './garage.ts'

/** Several riders looked after together. */
export function tentRoutes(deps: Deps): Hono {
  const { store, events } = deps
  const app = new Hono()
  const stale = (tentId: string) => events.emit({ type: 'stale', what: 'tent', id: tentId })
  const dayStale = (id: string) => events.emit({ type: 'stale', what: 'day', id })
  const told = async <T extends { tentId: string }>(work: Promise<T>): Promise<T> => {
    const saved = await work
    stale(saved.tentId)
    return saved
  }
  mount(app, endpoints.listTents, () => listTents(store))
  mount(app, endpoints.getTent, ({ params }) => readTent(store, params.id))
  mount(app, endpoints.putTent, async ({ params, body }) => {
    const saved = await saveTent(store, sameId(params.id, body))
    events.emit({ type: 'stale', what: 'tents', id: null })
    stale(saved.id)
    return saved
  })
  mount(app, endpoints.putTentRider, async ({ params, body }) => {
    const before = await tentOf(store, params.id)
    const held = await tentHolding(store, params.id)
    const saved = await told(saveTentRider(store, sameId(params.id, body)))
    // The tent that the rider left; the log of the other holds for the day from now on.
    if (before !== null && before !== saved.tentId) stale(before)
    if (held !== saved.tentId) dayStale(saved.id)
    return saved
  })
  mount(app, endpoints.putTentHour, async ({ params, body }) => {
    const saved = await told(saveTentHour(store, sameId(params.id, body)))
    for (const dayId of await daysIn(store, saved.tentId)) dayStale(dayId)
    return saved
  })
  mount(app, endpoints.putTentNote, ({ params, body }) => told(saveTentNote(store, sameId(params.id, body))))
  // With these the log goes from its days, or comes back.
  mountPutAway(
    app,
    deps,
    [
      [endpoints.deleteTent, endpoints.restoreTent, tents],
      [endpoints.deleteTentRider, endpoints.restoreTentRider, tentRiders],
      [endpoints.deleteTentHour, endpoints.restoreTentHour, tentHours],
    ],
    ['tents', 'tent', 'day'],
  )
  mountPutAway(
    app,
    deps,
    [[endpoints.deleteTentNote, endpoints.restoreTentNote, tentNotes]],
    ['tents', 'tent'],
  )
  return app
}
