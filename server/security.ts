import type { MiddlewareHandler } from 'hono'
import { secureHeaders } from 'hono/secure-headers'
import { isOwnOrigin, meansUs, type Door } from './access/door.ts'
import { reply } from './problem.ts'

/** Strict headers: scripts, styles and data from here only; no inline script. */
export function headers(door: Door): MiddlewareHandler {
  return secureHeaders({
    contentSecurityPolicy: {
      defaultSrc: ["'self'"],
      scriptSrc: ["'self'"],
      styleSrc: ["'self'", "'unsafe-inline'"],
      imgSrc: ["'self'", 'data:', 'blob:'],
      fontSrc: ["'self'", 'data:'],
      workerSrc: ["'self'", 'blob:'],
      objectSrc: ["'none'"],
      frameAncestors: ["'none'"],
      baseUri: ["'self'"],
      formAction: ["'self'"],
      mediaSrc: ["'self'", 'blob:'],
    },
    // A browser that was told so never asks by plain http again: only where there is something else.
    strictTransportSecurity: door.encrypted ? 'max-age=15552000' : false,
    // The phone's page may ask for the microphone; nothing else is ever asked for.
    permissionsPolicy: { microphone: ['self'], camera: [], geolocation: [] },
  })
}

/** Answers are of this moment and for whoever asked; only what says otherwise is kept on the way. */
export function notKept(): MiddlewareHandler {
  return async (c, next) => {
    await next()
    const { headers } = c.res
    if (!headers.has('Cache-Control')) headers.set('Cache-Control', 'no-store')
  }
}

/**
 * Only requests that mean this server, and writes only from our own pages. Stops other sites and re-bound names from
 * reaching in through the browser. On this machine alone that is the whole lock.
 */
export function ownOriginOnly(door: Door): MiddlewareHandler {
  return async (c, next) => {
    // Over a socket whoever names nobody does not mean us either.
    const host =
      c.req.header('host') ?? ((c.env as { incoming?: unknown } | undefined)?.incoming ? '' : undefined)
    if (host !== undefined && !meansUs(door, host))
      return reply(
        c,
        'request.wrong-origin',
        door.beyond
          ? 'This server does not go by that name; WILD_SPRING_ORIGIN says the address that people type.'
          : 'This server answers to 127.0.0.1 and localhost only.',
      )
    // A proxy in front of a server without a lock would let in whoever reaches the proxy.
    if (!door.beyond && forwarded.some((name) => c.req.header(name) !== undefined))
      return reply(
        c,
        'request.wrong-origin',
        'This comes through a proxy, and the door has no lock; start with WILD_SPRING_ORIGIN (docs/guide/lock.md).',
      )
    const origin = c.req.header('origin')
    if (origin !== undefined && c.req.method !== 'GET' && !isOwnOrigin(door, origin, host))
      return reply(c, 'request.wrong-origin', 'Writes are taken from Wild Spring’s own pages only.')
    return next()
  }
}

const forwarded = ['x-forwarded-for', 'x-real-ip', 'forwarded', 'via']
