import type { MiddlewareHandler } from 'hono'
import type { LiveEvent } from '#contract/live'

/** Fields that somebody wrote for those they trust. */
const forNobody = new Set(['note', 'text', 'idNote'])
/** What is not for those who walk by: what was put off, what a phone said, who has a link. */
const emptied = new Set(['notes', 'plans', 'reports', 'pads'])
/** The log of the weather is for all, with what was noted there. */
const asItIs = new Set(['hours'])

/** An answer as everybody may read it. Keys are looked at at any depth: a field that is added later is covered too. */
export function onWall(value: unknown): unknown {
  if (Array.isArray(value)) return value.map(onWall)
  if (value === null || typeof value !== 'object') return value
  return Object.fromEntries(Object.entries(value).map(([key, v]) => [key, field(key, v)]))
}

function field(key: string, value: unknown): unknown {
  if (asItIs.has(key)) return value
  if (emptied.has(key)) return []
  if (forNobody.has(key)) return value === null ? null : ''
  // A run that does not count has a reason; which one is nobody's business.
  if (key === 'voidReason') return value === null ? null : 'not counted'
  return onWall(value)
}

/** What a wall is told of an event: that something changed, not what was written. null: nothing. */
export function liveOnWall(e: LiveEvent): LiveEvent | null {
  switch (e.type) {
    case 'run':
    case 'feel':
      return { type: 'stale', what: 'day', id: e.dayId }
    case 'proposal':
      return { type: 'stale', what: 'day', id: e.proposal.dayId }
    case 'day':
      return { type: 'stale', what: 'day', id: e.day.id }
    case 'setup':
      return e.setup.wanted ? null : { type: 'stale', what: 'day', id: null }
    case 'stale':
      return e.what === 'tent' || e.what === 'day' ? e : null
    case 'forgotten':
      return e
    case 'bench':
    case 'ingest':
      return null
  }
}

/** Every JSON answer to a wall loses what is not for everybody. */
export function answersOnWall(): MiddlewareHandler {
  return async (c, next) => {
    await next()
    // A free address has no visitor.
    const visitor = c.get('visitor') as { role: string } | undefined
    if (visitor?.role !== 'wall' || c.res.status !== 200) return
    if (!c.res.headers.get('content-type')?.startsWith('application/json')) return
    const body = JSON.stringify(onWall(await c.res.json()))
    const headers = new Headers(c.res.headers)
    headers.set('Content-Length', String(Buffer.byteLength(body)))
    c.res = new Response(body, { status: 200, headers })
  }
}
