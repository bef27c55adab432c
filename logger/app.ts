import { Hono, type Context } from 'hono'
import { streamSSE } from 'hono/streaming'
import type { z } from 'zod'
import {
  HoldRequest,
  loggerCodes,
  LoggerFaults,
  StandInHands,
  StandInWorld,
  type LoggerCode,
  type LoggerProblem,
} from '#contract/logger'
import { InputError } from '#core/errors'
import { DeviceError, type StandInLogger } from './device.ts'

const liveHz = 10

/** The open logger protocol over HTTP, for one device. Described in docs/file-formats.md. */
export function loggerApp(device: StandInLogger): Hono {
  const app = new Hono()
  const problem = (c: Context, code: LoggerCode, detail: string) => {
    const { status, title } = loggerCodes[code]
    const body: LoggerProblem = { type: `urn:wild-spring:problem:${code}`, title, status, detail, code }
    return c.json(body, status, { 'Content-Type': 'application/problem+json' })
  }
  app.onError((e, c) => {
    if (e instanceof DeviceError) return problem(c, e.code, e.message)
    if (e instanceof InputError) return problem(c, 'logger.request-invalid', e.message)
    console.error(e)
    return problem(c, 'logger.internal', 'The device could not do this; nothing was changed.')
  })
  app.notFound((c) => problem(c, 'logger.no-address', `There is nothing at ${c.req.path}.`))

  async function body<S extends z.ZodType>(c: Context, schema: S): Promise<z.output<S>> {
    const parsed = schema.safeParse(await c.req.json().catch(() => null))
    if (parsed.success) return parsed.data
    const [issue] = parsed.error.issues
    throw new DeviceError('logger.request-invalid', `${issue.path.join('.') || 'body'}: ${issue.message}`)
  }

  app.get('/v1/identity', (c) => c.json(device.identity()))
  app.get('/v1/state', (c) => c.json(device.state()))
  app.get('/v1/live', (c) =>
    streamSSE(c, async (stream) => {
      while (!stream.aborted) {
        const sample = device.live()
        if (sample) await stream.writeSSE({ event: 'sample', data: JSON.stringify(sample) })
        await stream.sleep(1000 / liveHz)
      }
    }),
  )
  app.post('/v1/hold', async (c) => c.json(device.hold((await body(c, HoldRequest)).seconds)))
  app.post('/v1/recording/start', (c) => c.json({ id: device.start() }))
  app.post('/v1/recording/stop', (c) => c.json(device.stop()))
  app.get('/v1/recordings', (c) => c.json(device.list()))
  app.get('/v1/recordings/:id', (c) => {
    const bytes = new TextEncoder().encode(device.file(c.req.param('id')))
    return c.body(bytes, 200, {
      'Content-Type': 'text/csv; charset=utf-8',
      'Content-Length': String(bytes.length),
    })
  })
  app.delete('/v1/recordings/:id', (c) => {
    device.remove(c.req.param('id'))
    return c.json({})
  })

  // What no real device has: its bike, its trail, its hands and its faults.
  app.get('/stand-in', (c) => c.json({ faults: device.faults, hands: device.hands, pace: device.pace }))
  app.put('/stand-in/world', async (c) => {
    device.mount(await body(c, StandInWorld))
    return c.json(device.identity())
  })
  app.put('/stand-in/hands', async (c) => {
    device.setHands(await body(c, StandInHands))
    return c.json({})
  })
  app.put('/stand-in/faults', async (c) => {
    device.faults = await body(c, LoggerFaults)
    return c.json(device.faults)
  })
  return app
}
