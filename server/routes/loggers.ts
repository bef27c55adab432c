import { Hono } from 'hono'
import { endpoints } from '#contract/endpoints'
import { limits } from '#contract/limits'
import { LoggerIdentity, LoggerProblem } from '#contract/logger'
import type { Deps } from '../deps.ts'
import { mount } from '../mount.ts'
import { Refusal } from '../refusal.ts'

const identityMs = 1500
/** What may be asked of a device; nothing else goes through. */
const allowed =
  /^(v1\/(identity|state|live|hold|recording\/(start|stop)|recordings(\/[\w-]+)?)|stand-in(\/(world|hands|faults))?)$/

/**
 * Hands requests on to the loggers that this server was started with, and to no other address: the page itself may
 * only talk to its own server.
 */
export function loggerRoutes({ loggers }: Deps): Hono {
  const app = new Hono()
  mount(app, endpoints.listLoggers, () =>
    Promise.all(loggers.map(async (base, index) => ({ index, identity: await identityAt(base) }))),
  )
  app.all('/loggers/:index/*', async (c) => {
    const base = loggers[Number(c.req.param('index'))]
    const path = c.req.path.replace(/^.*?\/loggers\/\d+\//, '')
    if (!base || !allowed.test(path))
      throw new Refusal('record.not-found', 'There is no such logger, or it has no such address.')
    const { method } = c.req
    // A long recording may take its time once it has begun.
    const silent = new AbortController()
    const patience = setTimeout(() => silent.abort(), limits.deviceSilentSeconds * 1000)
    let answer: Response
    try {
      answer = await fetch(`${base}/${path}`, {
        method,
        body: method === 'GET' || method === 'DELETE' ? undefined : await c.req.text(),
        headers: { 'Content-Type': 'application/json' },
        signal: AbortSignal.any([c.req.raw.signal, silent.signal]),
        // Where it sends us is no address that this server was started with.
        redirect: 'error',
      })
    } catch {
      throw new Refusal('logger.unreachable', 'The logger does not answer; switch it on and come closer.')
    } finally {
      clearTimeout(patience)
    }
    if (answer.status >= 400) {
      const told = LoggerProblem.safeParse(await answer.json().catch(() => null))
      throw new Refusal(
        'logger.refused',
        told.success ? told.data.detail : `The logger answered with ${answer.status} and no reason.`,
        told.success ? { deviceCode: told.data.code } : {},
      )
    }
    const headers = new Headers({ 'Cache-Control': 'no-store', 'Content-Type': typeOf(path) })
    const length = answer.headers.get('content-length')
    if (length) headers.set('Content-Length', length)
    return new Response(answer.body && quietly(answer.body), { status: answer.status, headers })
  })
  return app
}

/** By what was asked for: a device's own word would be a page of ours if it said text/html. */
function typeOf(path: string): string {
  if (path === 'v1/live') return 'text/event-stream'
  return /^v1\/recordings\/./.test(path) ? 'text/csv' : 'application/json'
}

/** A stream that just ends when the other side goes away: a page that is left is no error. */
function quietly(body: ReadableStream<Uint8Array>): ReadableStream<Uint8Array> {
  const reader = body.getReader()
  return new ReadableStream({
    async pull(controller) {
      try {
        const { done, value } = await reader.read()
        if (done) controller.close()
        else controller.enqueue(value)
      } catch {
        controller.close()
      }
    },
    cancel: (reason) => reader.cancel(reason).catch(() => {}),
  })
}

async function identityAt(base: string): Promise<LoggerIdentity | null> {
  try {
    const answer = await fetch(`${base}/v1/identity`, {
      signal: AbortSignal.timeout(identityMs),
      redirect: 'error',
    })
    return LoggerIdentity.parse(await answer.json())
  } catch {
    return null
  }
}
