import type { MiddlewareHandler } from 'hono'
import { matchedRoutes } from 'hono/route'

/**
 * A line for each request: when, what kind of address, how it went, how long it took. Nothing of anybody: no id, no name, no
 * query, no address of a device.
 * @param now UTC, ISO 8601
 */
export function requestLog(write: (line: string) => void, now: () => string): MiddlewareHandler {
  return async (c, next) => {
    const began = performance.now()
    await next()
    const ms = Math.round(performance.now() - began)
    // The pattern of the address, as it is mounted; what matched none, or is a file of the page, is told as that.
    const pattern = matchedRoutes(c).findLast((r) => !r.path.includes('*'))?.path
    const what = pattern ?? (c.req.path.startsWith('/api/') ? '/api/ (no such address)' : 'page')
    write(`${now()} ${c.req.method} ${what} ${c.res.status} ${ms} ms`)
  }
}
