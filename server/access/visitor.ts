import { getConnInfo } from '@hono/node-server/conninfo'
import type { Context } from 'hono'
import type { Role } from '#contract/access'
import type { Door } from './door.ts'

/** Who asks. */
export interface Visitor {
  role: Role
  /** null: nobody was asked, the door is open. */
  sessionId: string | null
  /** What a wall looks at. */
  tentId: string | null
}

declare module 'hono' {
  interface ContextVariableMap {
    visitor: Visitor
  }
}

/** Where a request comes from. What a proxy says is believed only where one was named and speaks from this machine. */
export function cameFrom(c: Context, door: Door): string {
  let peer: string
  try {
    peer = getConnInfo(c).remote.address ?? 'unknown'
  } catch {
    // Spoken to without a socket.
    peer = 'unknown'
  }
  const told = c.req.header('x-forwarded-for')
  const onThisMachine = /^(::ffff:)?127\.|^::1$/.test(peer)
  if (door.origin !== null && onThisMachine && told) return told.split(',').at(-1)!.trim().slice(0, 60)
  return peer
}
