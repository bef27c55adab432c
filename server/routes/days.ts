import { Hono } from 'hono'
import { endpoints } from '#contract/endpoints'
import type { Deps } from '../deps.ts'
import { days, runs } from '../db/schema.ts'
import { mount } from '../mount.ts'
import { Refusal } from '../refusal.ts'
import {
  dayOfRun,
  listDays,
  readDay,
  readEarlierDays,
  saveDay,
  saveFeel,
  saveProposal,
  saveRun,
} from '../services/days.ts'
import type { FigureRenewal } from '../services/recordings/renewal.ts'
import { setDeleted } from '../services/records.ts'
import { sameId } from './garage.ts'

/** Trail days with their runs, feel and proposals. */
export function dayRoutes({ store, now, events }: Deps, renewal: FigureRenewal): Hono {
  const app = new Hono()
  const staleDay = (id: string | null) => events.emit({ type: 'stale', what: 'day', id })
  const staleDays = () => events.emit({ type: 'stale', what: 'days', id: null })
  mount(app, endpoints.listDays, () => listDays(store))
  mount(app, endpoints.getDay, async ({ params }) => {
    const day = await readDay(store, params.id)
    for (const r of day.recordings) if (r.figures === 'renewing') void renewal.ask(r.id)
    return day
  })
  mount(app, endpoints.getEarlierDays, ({ params }) => readEarlierDays(store, params.id))
  mount(app, endpoints.putDay, async ({ params, body }) => {
    const day = await saveDay(store, sameId(params.id, body))
    events.emit({ type: 'day', day })
    staleDays()
    // A new day makes the one before it a past one.
    if (day.version === 1) staleDay(null)
    return day
  })
  for (const [endpoint, at] of [
    [endpoints.deleteDay, now],
    [endpoints.restoreDay, () => null],
  ] as const)
    mount(app, endpoint, async ({ params }) => {
      await store.writes.run(() => setDeleted(store, days, params.id, at()))
      staleDays()
      staleDay(null)
      return {}
    })
  mount(app, endpoints.putRun, async ({ params, body }) => {
    const run = await saveRun(store, sameId(params.id, body))
    events.emit({ type: 'run', dayId: run.dayId, run })
    staleDays()
    return run
  })
  for (const [endpoint, at] of [
    [endpoints.deleteRun, now],
    [endpoints.restoreRun, () => null],
  ] as const) {
    mount(app, endpoint, async ({ params }) => {
      await store.writes.run(() => setDeleted(store, runs, params.id, at()))
      staleDay(await dayOfRun(store, params.id))
      staleDays()
      return {}
    })
  }
  mount(app, endpoints.putFeel, async ({ params, body }) => {
    if (body.runId !== params.id)
      throw new Refusal('request.invalid', 'The run in the address and in the body differ.', {
        path: 'runId',
      })
    const { feel, dayId } = await saveFeel(store, body)
    events.emit({ type: 'feel', dayId, feel })
    return feel
  })
  mount(app, endpoints.putProposal, async ({ params, body }) => {
    const proposal = await saveProposal(store, sameId(params.id, body))
    events.emit({ type: 'proposal', proposal })
    return proposal
  })
  return app
}
