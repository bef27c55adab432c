import { Hono } from 'hono'
import { endpoints } from '#contract/endpoints'
import type { Deps } from '../deps.ts'
import { days, runs } from '../db/schema.ts'
import { mount } from '../mount.ts'
import { Refusal } from '../refusal.ts'
import { dayOfRun, listDays, readDay, saveDay, saveFeel, saveProposal, saveRun } from '../services/days.ts'
import { setDeleted } from '../services/records.ts'
import { sameId } from './garage.ts'

/** Trail days with their runs, feel and proposals. */
export function dayRoutes({ store, now, events }: Deps): Hono {
  const app = new Hono()
  const changed = (dayId: string | null) => dayId && events.emit({ type: 'day', dayId })
  mount(app, endpoints.listDays, () => listDays(store))
  mount(app, endpoints.getDay, ({ params }) => readDay(store, params.id))
  mount(app, endpoints.putDay, async ({ params, body }) => {
    const saved = await saveDay(store, sameId(params.id, body))
    changed(saved.id)
    return saved
  })
  mount(
    app,
    endpoints.deleteDay,
    async ({ params }) => (await store.writes.run(() => setDeleted(store, days, params.id, now())), {}),
  )
  mount(
    app,
    endpoints.restoreDay,
    async ({ params }) => (await store.writes.run(() => setDeleted(store, days, params.id, null)), {}),
  )
  mount(app, endpoints.putRun, async ({ params, body }) => {
    const saved = await saveRun(store, sameId(params.id, body))
    changed(saved.dayId)
    return saved
  })
  for (const [endpoint, at] of [
    [endpoints.deleteRun, now],
    [endpoints.restoreRun, () => null],
  ] as const) {
    mount(app, endpoint, async ({ params }) => {
      await store.writes.run(() => setDeleted(store, runs, params.id, at()))
      changed(await dayOfRun(store, params.id))
      return {}
    })
  }
  mount(app, endpoints.putFeel, async ({ params, body }) => {
    if (body.runId !== params.id)
      throw new Refusal('request.invalid', 'The run in the address and in the body differ.', {
        path: 'runId',
      })
    const saved = await saveFeel(store, body)
    changed(await dayOfRun(store, body.runId))
    return saved
  })
  mount(app, endpoints.putProposal, ({ params, body }) => saveProposal(store, sameId(params.id, body)))
  return app
}
