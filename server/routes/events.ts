import { Hono } from 'hono'
import { streamSSE } from 'hono/streaming'
import type { Deps } from '../deps.ts'

const heartbeatMs = 25_000

/** Server-sent events: days that changed, imports that move on. */
export function eventRoutes({ events }: Deps): Hono {
  const app = new Hono()
  app.get('/events', (c) =>
    streamSSE(c, async (stream) => {
      const stop = events.on(
        (e, told) => void stream.writeSSE({ event: e.type, id: String(told), data: JSON.stringify(e) }),
      )
      stream.onAbort(stop)
      await stream.writeSSE({ event: 'hello', id: String(events.told), data: '{}' })
      while (!stream.aborted) {
        await stream.sleep(heartbeatMs)
        if (!stream.aborted) await stream.writeSSE({ event: 'beat', data: '{}' })
      }
      stop()
    }),
  )
  return app
}
