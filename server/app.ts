import { serveStatic } from '@hono/node-server/serve-static'
import { Hono } from 'hono'
import { bodyLimit } from 'hono/body-limit'
import { compress } from 'hono/compress'
import { endpoints } from '#contract/endpoints'
import { limits } from '#contract/limits'
import { toldHeader } from '#contract/live'
import { gate } from './access/gate.ts'
import { Lock } from './access/lock.ts'
import { answersOnWall } from './access/onWall.ts'
import type { Deps } from './deps.ts'
import { apiPage } from './apiPage.ts'
import { mount } from './mount.ts'
import { openApiDocument } from './openapi.ts'
import { reply, toProblem } from './problem.ts'
import { requestLog } from './requestLog.ts'
import { accessRoutes } from './routes/access.ts'
import { bundleRoutes } from './routes/bundles.ts'
import { dataRoutes } from './routes/data.ts'
import { dayRoutes } from './routes/days.ts'
import { eventRoutes } from './routes/events.ts'
import { garageRoutes } from './routes/garage.ts'
import { loggerRoutes } from './routes/loggers.ts'
import { padRoutes } from './routes/pads.ts'
import { printRoutes } from './routes/print.ts'
import { plainFileRoutes } from './routes/plainFiles.ts'
import { recordingRoutes } from './routes/recordings.ts'
import { tentRoutes } from './routes/tents.ts'
import { setupRoutes } from './routes/setups.ts'
import { workshopRoutes } from './routes/workshop.ts'
import { PerRecord } from './services/recordings/reading.ts'
import { FigureRenewal } from './services/recordings/renewal.ts'
import { headers, notKept, ownOriginOnly } from './security.ts'

const apiBase = '/api/v1'

/** Builds the whole application; nothing listens yet. */
export function buildApp(deps: Deps): Hono {
  const { door } = deps
  const lock = new Lock(deps.store, deps.now, deps.log, door, deps.setupCode)
  const api = new Hono()
  // Before anything else: whoever may not come in costs nothing.
  api.use(notKept())
  api.use(gate(apiBase, door, lock, deps.store))
  const jsonLimit = bodyLimit({
    maxSize: limits.bodyBytes,
    onError: (c) => reply(c, 'request.too-large', `A request may be at most ${limits.bodyBytes / 1000} kB.`),
  })
  api.use((c, next) => {
    if (/\/(uploads|voices|arrivals)\/[^/]+$/.test(c.req.path) || c.req.method === 'GET') return next()
    // What says its length is believed by Node's parser; only what does not is counted while it comes.
    const length = c.req.header('transfer-encoding') === undefined && c.req.header('content-length')
    return length && Number(length) <= limits.bodyBytes ? next() : jsonLimit(c, next)
  })
  // A garage of forty riders is a quarter of a megabyte of names; a phone in the woods gets a tenth of it.
  api.use(compress({ threshold: 4096 }))
  api.use(answersOnWall())
  api.use(async (c, next) => {
    const { told } = deps.events
    await next()
    // Not c.header(): once there is an answer, that makes a new one around a stream.
    c.res.headers.set(toldHeader, String(told))
  })
  mount(api, endpoints.health, async () => {
    // Takes the right to write, and writes nothing: a file that cannot be written is not well.
    await deps.store.client.batch(['SELECT 1 FROM riders LIMIT 1'], 'write')
    return { ok: true, version: deps.version }
  })
  api.get('/openapi.json', (c) => c.json(openApiDocument(deps.version)))
  api.get('/docs', (c) => c.html(apiPage(deps.version)))
  api.route('/', accessRoutes(deps, lock))
  api.route('/', dataRoutes(deps))
  api.route('/', bundleRoutes(deps))
  api.route('/', garageRoutes(deps))
  const perRecord = new PerRecord()
  api.route('/', dayRoutes(deps, new FigureRenewal(deps, perRecord)))
  api.route('/', recordingRoutes(deps, perRecord))
  api.route('/', plainFileRoutes(deps))
  api.route('/', workshopRoutes(deps))
  api.route('/', setupRoutes(deps))
  api.route('/', tentRoutes(deps))
  api.route('/', printRoutes(deps))
  api.route('/', padRoutes(deps))
  api.route('/', eventRoutes(deps, lock))
  api.route('/', loggerRoutes(deps))
  api.all('*', (c) => reply(c, 'route.unknown', `There is nothing at ${c.req.path}.`))

  const app = new Hono()
  if (deps.log.request) app.use(requestLog(deps.log.request, deps.now))
  app.use(headers(door))
  app.use(ownOriginOnly(door))
  app.onError(toProblem(deps.log))
  app.route(apiBase, api)
  if (deps.webDir) {
    const root = deps.webDir
    app.use(async (c, next) => {
      await next()
      // Names under /assets/ carry a hash of their content. All else is looked at again each time: by it a device learns
      // that there is a newer page.
      const isFixed = c.req.path.startsWith('/assets/') && c.res.ok
      c.res.headers.set('Cache-Control', isFixed ? 'public, max-age=31536000, immutable' : 'no-cache')
    })
    app.use('*', serveStatic({ root, precompressed: true }))
    // A rider's phone gets a page of its own: small, and without a way to the rest.
    app.get('/pad/*', serveStatic({ root, path: 'pad.html', precompressed: true }))
    // A page of before an update asks for parts that are gone: told so, it can ask for the new page.
    app.get('*', (c, next) =>
      /\.[a-z0-9]+$/i.test(c.req.path)
        ? Promise.resolve(c.text('There is no such part of this version of the page.', 404))
        : next(),
    )
    // Every other address is a screen of the page.
    app.get('*', serveStatic({ root, path: 'index.html', precompressed: true }))
  }
  return app
}
