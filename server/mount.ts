import type { Context, Hono } from 'hono'
import type { z } from 'zod'
import type { Endpoint } from '#contract/endpoints'
import { Refusal } from './refusal.ts'
import { isWhole } from './whole.ts'

/** What is asked of an endpoint. */
class Asked<P, B> {
  constructor(
    readonly params: P,
    readonly body: B,
    /** For cookies and who asks, nothing else. */
    readonly c: Context,
  ) {}

  /** Ends when whoever asked goes away. Made when it is wanted: few want it, and every save would pay for it. */
  get signal(): AbortSignal {
    return this.c.req.raw.signal
  }
}

/** Hangs a contract endpoint into the app: input and reply both pass through their schemas. */
export function mount<P extends z.ZodType, B extends z.ZodType, R extends z.ZodType>(
  app: Hono,
  endpoint: Endpoint<P, B, R>,
  handle: (asked: Asked<z.output<P>, z.output<B>>) => Promise<z.input<R>>,
): void {
  const hasBody = endpoint.body.def.type !== 'undefined'
  app.on(endpoint.method.toUpperCase(), endpoint.path, async (c) => {
    const params = checked(endpoint.params, c.req.param())
    const body = hasBody ? checked(endpoint.body, await json(c.req)) : (undefined as z.output<B>)
    // A reply that does not fit its schema is our fault and must not leave the house.
    const reply = JSON.stringify(endpoint.reply.parse(await handle(new Asked(params, body, c))))
    // With its length known, a small answer is never sent through the compressor.
    return c.body(reply, 200, {
      'Content-Type': 'application/json',
      'Content-Length': String(Buffer.byteLength(reply)),
    })
  })
}

async function json(req: { json: () => Promise<unknown> }): Promise<unknown> {
  const value = await req.json().catch(() => {
    throw new Refusal('request.not-json', 'The body must be JSON.')
  })
  if (!isWhole(value))
    throw new Refusal('request.invalid', 'A name or note holds half a letter; type it anew.')
  return value
}

/** @throws Refusal 'request.invalid' naming the field and what is accepted */
export function checked<S extends z.ZodType>(schema: S, value: unknown): z.output<S> {
  const result = schema.safeParse(value)
  if (result.success) return result.data
  const issue = result.error.issues[0]
  const path = issue.path.join('.')
  throw new Refusal(
    'request.invalid',
    path ? `${path}: ${issue.message}` : issue.message,
    path ? { path } : {},
  )
}
