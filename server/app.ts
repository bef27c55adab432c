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
import { accessRoutes } from './routes/access.ts'
import { dayRoutes } from './routes/days.ts'
import { eventRoutes } from './routes/events.ts'
import { garageRoutes } from './routes/garage.ts'
import { loggerRoutes } from './routes/loggers.ts'
import { padRoutes } from './routes/pads.ts'
import { printRoutes } from './routes/print.ts'
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
  api.use((c, next) => (/\/(uploads|voices)\/[^/]+$/.test(c.req.path) ? next() : jsonLimit(c, next)))
  // A garage of forty riders is a quarter of a megabyte of names; a phone in the woods gets a tenth of it.
  api.use(compress({ threshold: 4096 }))
  api.use(answersOnWall())
  api.use(async (c, next) => {
    const { told } = deps.events
    await next()
    c.header(toldHeader, String(told))
  })
  mount(api, endpoints.health, async () => ({ ok: true, version: deps.version }))
  api.get('/openapi.json', (c) => c.json(openApiDocument(deps.version)))
  api.get('/docs', (c) => c.html(apiPage(deps.version)))
  api.route('/', accessRoutes(deps, lock))
  api.route('/', garageRoutes(deps))
  const perRecord = new PerRecord()
  api.route('/', dayRoutes(deps, new FigureRenewal(deps, perRecord)))
  api.route('/', recordingRoutes(deps, perRecord))
  api.route('/', workshopRoutes(deps))
  api.route('/', setupRoutes(deps))
  api.route('/', tentRoutes(deps))
  api.route('/', printRoutes(deps))
  api.route('/', padRoutes(deps))
  api.route('/', eventRoutes(deps, lock))
  api.route('/', loggerRoutes(deps))
  api.all('*', (c) => reply(c, 'route.unknown', `There is nothing at ${c.req.path}.`))

  const app = new Hono()
  app.use(headers(door))
  app.use(ownOriginOnly(door))
  app.onError(toProblem(deps.log))
  app.route(apiBase, api)
  if (deps.webDir) {
    const root = deps.webDir
    app.use('/assets/*', async (c, next) => {
      await next()
      // File names carry a hash of their content.
      c.header('Cache-Control', 'public, max-age=31536000, immutable')
    })
    app.use('/worker.js', async (c, next) => {
      await next()
      // Looked at again each time: by it a device learns that there is a newer page.
      c.header('Cache-Control', 'no-cache')
    })
    app.use('*', serveStatic({ root, precompressed: true }))
    // A rider's phone gets a page of its own: small, and without a way to the rest.
    app.get('/pad/*', serveStatic({ root, path: 'pad.html', precompressed: true }))
    // Every other address is a screen of the page.
    app.get('*', serveStatic({ root, path: 'index.html', precompressed: true }))
  }
  return app
}
