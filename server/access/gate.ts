import { and, eq, isNull } from 'drizzle-orm'
import type { Context, MiddlewareHandler } from 'hono'
import { deleteCookie, getCookie, setCookie } from 'hono/cookie'
import type { Store } from '../db/open.ts'
import { tentRiders } from '../db/schema.ts'
import { reply } from '../problem.ts'
import { isOwnOrigin, type Door } from './door.ts'
import type { LetIn, Lock } from './lock.ts'
import { isFree, mayAsk } from './rules.ts'

/** The prefix ties the cookie to this very host and to https, where there is https. */
const cookieName = (door: Door) => (door.encrypted ? '__Host-wild-spring' : 'wild-spring')

/** As long as browsers keep any: when a device was not seen for too long is the server's to say. */
const cookieDays = 400

/** Hands the device its token: out of reach of scripts, sent by our own pages only. */
export function giveToken(c: Context, door: Door, { token }: LetIn): void {
  setCookie(c, cookieName(door), token, {
    httpOnly: true,
    sameSite: 'Strict',
    secure: door.encrypted,
    path: '/',
    maxAge: cookieDays * 86_400,
  })
}

export const takeToken = (c: Context, door: Door): void =>
  void deleteCookie(c, cookieName(door), { path: '/', secure: door.encrypted })

/** The device that asks; null: it is not signed in. */
export async function deviceOf(c: Context, door: Door, lock: Lock) {
  const token = getCookie(c, cookieName(door))
  return token === undefined ? null : lock.sessions.find(token)
}

/** A write that a signed-in browser sends must say that it comes from our page: a cookie alone proves nothing. */
function isOurPage(c: Context, door: Door): boolean {
  const origin = c.req.header('origin')
  if (origin !== undefined) return isOwnOrigin(door, origin, c.req.header('host'))
  return c.req.header('sec-fetch-site') === 'same-origin'
}

/** Asks whoever comes who they are, once anybody but this machine can come. Paths are those below `base`. */
export function gate(base: string, door: Door, lock: Lock, store: Store): MiddlewareHandler {
  return async (c, next) => {
    const path = c.req.path.slice(base.length)
    const { method } = c.req
    const state = await lock.state()
    if (state === 'open') {
      c.set('visitor', { role: 'owner', sessionId: null, tentId: null })
      return next()
    }
    if (isFree(method, path)) return next()
    if (state === 'unset')
      return reply(
        c,
        'access.unset',
        'Nobody has locked this door yet; open the page and set the owner’s passphrase.',
      )
    const device = await deviceOf(c, door, lock)
    if (!device) return reply(c, 'access.needed', 'Sign in first; what you wrote is kept on this device.')
    if (method !== 'GET' && !isOurPage(c, door))
      return reply(c, 'request.wrong-origin', 'Writes are taken from Wild Spring’s own pages only.')
    const denied = () =>
      reply(
        c,
        'access.denied',
        device.role === 'wall'
          ? 'This screen is signed in to look at its tent, and at nothing else.'
          : 'Only the owner removes that, or decides who comes in.',
      )
    if (!mayAsk(device.role, method, path)) return denied()
    if (device.role === 'wall' && !(await isOfTent(store, path, device.tentId))) return denied()
    c.set('visitor', { role: device.role, sessionId: device.id, tentId: device.tentId })
    return next()
  }
}

async function isOfTent({ db }: Store, path: string, tentId: string | null): Promise<boolean> {
  const [, what, id] = path.split('/')
  if (what === 'events') return true
  if (what === 'tents') return id === tentId
  const rows = await db
    .select({ tentId: tentRiders.tentId })
    .from(tentRiders)
    .where(and(eq(tentRiders.id, id), isNull(tentRiders.deletedAt)))
  return rows.some((r) => r.tentId === tentId)
}
