import { createReadStream, statSync } from 'node:fs'
import { Readable } from 'node:stream'
import { Hono } from 'hono'
import { Id } from '#contract/common'
import { endpoints } from '#contract/endpoints'
import { limits } from '#contract/limits'
import type { Upload } from '#contract/recording'
import { takeBack } from '../bundle/takeBack.ts'
import type { Deps } from '../deps.ts'
import { forgetUnnamed, spool, type Most } from '../ingest/spool.ts'
import { checked, mount } from '../mount.ts'
import { bodyOf } from './bodyOf.ts'

const bundle: Most = { bytes: limits.bundleBytes, what: 'A bundle', way: 'take a rider or a bike at a time' }

/** Data out of the house and in; the owner's alone. */
export function bundleRoutes({ store, events, porter, incomingDir }: Deps): Hono {
  const app = new Hono()
  const allStale = () => {
    for (const what of ['garage', 'days', 'day', 'setups', 'benches', 'tents', 'tent', 'letterhead'] as const)
      events.emit({ type: 'stale', what, id: null })
  }
  mount(app, endpoints.makeBundle, ({ params, body }) => porter.make(params.id, body))
  mount(app, endpoints.cancelBundle, async () => {
    porter.cancel()
    return {}
  })
  app.get('/data/bundles/:id', (c) => {
    const { path, made } = porter.fetch(checked(Id, c.req.param('id')))
    c.header('Content-Type', 'application/zip')
    c.header('Content-Length', String(statSync(path).size))
    c.header('Content-Disposition', `attachment; filename="${made.fileName}"`)
    return c.body(Readable.toWeb(createReadStream(path)) as ReadableStream)
  })
  app.put('/data/arrivals/:id', async (c) => {
    const id = checked(Id, c.req.param('id'))
    await forgetUnnamed(incomingDir, Date.now())
    const kept = await spool(await bodyOf(c.req, bundle), incomingDir, id, c.req.raw.signal, bundle)
    const upload: Upload = { id, ...kept }
    return c.json(upload)
  })
  mount(app, endpoints.lookAtBundle, ({ params }) => porter.look(params.id))
  mount(app, endpoints.takeBundle, async ({ params, body }) => {
    const done = await porter.take(params.id, body)
    allStale()
    return done
  })
  mount(app, endpoints.dropBundle, async ({ params }) => {
    await porter.drop(params.id)
    return {}
  })
  mount(app, endpoints.takeBack, async ({ params }) => {
    await takeBack(store, params.id)
    allStale()
    return {}
  })
  return app
}
