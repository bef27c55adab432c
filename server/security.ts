import type { MiddlewareHandler } from 'hono'
import { secureHeaders } from 'hono/secure-headers'
import { reply } from './problem.ts'

/** Strict headers: scripts, styles and data from here only; no inline script. */
export function headers(): MiddlewareHandler {
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
    },
    strictTransportSecurity: false,
  })
}

const localNames = new Set(['127.0.0.1', 'localhost', '[::1]'])

/**
 * Without a login the address is the lock: only requests to this machine's own name, and writes only from our own
 * pages. Stops other sites and re-bound names from reaching in through the browser.
 */
export function ownOriginOnly(): MiddlewareHandler {
  return async (c, next) => {
    const host = c.req.header('host')
    const name = host?.replace(/:\d+$/, '')
    if (name !== undefined && !localNames.has(name))
      return reply(c, 'request.wrong-origin', 'This server answers to 127.0.0.1 and localhost only.')
    const origin = c.req.header('origin')
    if (origin !== undefined && c.req.method !== 'GET' && origin !== `http://${host}`) {
      return reply(c, 'request.wrong-origin', 'Writes are taken from Wild Spring’s own pages only.')
    }
    return next()
  }
}
