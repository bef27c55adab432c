import { createReadStream, statSync } from 'node:fs'
import { Readable } from 'node:stream'
import { Hono } from 'hono'
import { CopyName } from '#contract/data'
import { endpoints } from '#contract/endpoints'
import type { Deps } from '../deps.ts'
import { checked, mount } from '../mount.ts'
import { Refusal } from '../refusal.ts'
import { makeNameless } from '../services/anonymous.ts'
import { erasureReach, eraseRider } from '../services/erasure.ts'
import { unfollowed } from '../safekeeping/follower.ts'
import { readDataState } from '../services/dataState.ts'
import { freeRoom } from '../services/room.ts'

/** What is kept and its safe copies; the owner's alone. */
export function dataRoutes({ store, events, keeper, porter, putBack, follower }: Deps): Hono {
  const app = new Hono()
  mount(app, endpoints.getData, () => readDataState(store, keeper, porter, follower))
  mount(app, endpoints.makeCopy, () => keeper.make('by-hand'))
  mount(app, endpoints.cancelCopy, async () => {
    keeper.cancel()
    return {}
  })
  mount(app, endpoints.removeCopy, async ({ params }) => {
    keeper.remove(params.name)
    return {}
  })
  mount(app, endpoints.putBack, ({ params }) => putBack(keeper.pathOf(params.name)))
  mount(app, endpoints.freeRoom, async ({ body }) => {
    const freed = await unfollowed(follower, () => freeRoom(store, body.removed))
    events.emit({ type: 'stale', what: 'garage', id: null })
    return freed
  })
  mount(app, endpoints.getErasure, ({ params }) =>
    erasureReach(store, params.id, keeper.traces().length + (follower ? 1 : 0)),
  )
  mount(app, endpoints.eraseRider, async ({ params, body }) => {
    // Who reads the data file in one moment would keep its earlier forms.
    keeper.cancel()
    await porter.forget()
    // Told last: who is erased, though traces are left, is gone from every page and from the copies all the same.
    let left: Refusal | null = null
    await unfollowed(follower, async () => {
      const forgetting = body.daysStay
        ? makeNameless(store, params.id, body)
        : eraseRider(store, params.id, body)
      await forgetting.catch((e: unknown) => {
        if (!(e instanceof Refusal && e.code === 'storage.busy')) throw e
        left = e
      })
      if (body.alsoCopies) follower?.forget()
    })
    events.emit({ type: 'forgotten' })
    for (const what of ['garage', 'days', 'day', 'setups', 'benches', 'tents', 'tent'] as const)
      events.emit({ type: 'stale', what, id: null })
    if (body.alsoCopies) keeper.forget()
    if (left) throw left as Refusal
    if (body.alsoCopies) await keeper.make('by-hand')
    return {}
  })
  app.get('/data/copies/:name', (c) => {
    const name = checked(CopyName, c.req.param('name'))
    const path = keeper.pathOf(name)
    c.header('Content-Type', 'application/vnd.sqlite3')
    c.header('Content-Length', String(statSync(path).size))
    c.header('Content-Disposition', `attachment; filename="${name}"`)
    return c.body(Readable.toWeb(createReadStream(path)) as ReadableStream)
  })
  return app
}
