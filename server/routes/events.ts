import type { HttpBindings } from '@hono/node-server'
import { Hono, type Context } from 'hono'
import { streamSSE, type SSEMessage } from 'hono/streaming'
import { limits } from '#contract/limits'
import type { Lock } from '../access/lock.ts'
import { liveOnWall } from '../access/onWall.ts'
import type { Deps } from '../deps.ts'
import { reply } from '../problem.ts'

const heartbeatMs = 25_000

/** Server-sent events: days that changed, imports that move on. */
export function eventRoutes({ events }: Deps, lock: Lock): Hono {
  const app = new Hono()
  let open = 0
  app.get('/events', (c) => {
    if (open >= limits.liveStreams)
      return reply(c, 'live.too-many', `At most ${limits.liveStreams} windows are told live; close some.`)
    open++
    const { role, sessionId } = c.get('visitor')
    return streamSSE(c, async (stream) => {
      let cut = () => {}
      const ended = new Promise<void>((resolve) => (cut = resolve))
      // Whoever does not read must not fill our memory: cut off, it comes back and reads what it missed.
      let unread = 0
      const write = async (message: SSEMessage) => {
        if (++unread > limits.unreadEvents) return hangUp(c, cut)
        await stream.writeSSE(message)
        unread--
      }
      const stop = events.on((e, told) => {
        const said = role === 'wall' ? liveOnWall(e) : e
        // Its number goes out all the same: an answer that holds it is not overtaken.
        void write(
          said
            ? { event: said.type, id: String(told), data: JSON.stringify(said) }
            : { event: 'beat', id: String(told), data: '{}' },
        )
      })
      stream.onAbort(cut)
      const stopAsking = lock.sessions.onEnded(() => lock.sessions.isIn(sessionId) || hangUp(c, cut))
      try {
        await write({ event: 'hello', id: String(events.told), data: '{}' })
        while (!stream.aborted) {
          const on = await Promise.race([stream.sleep(heartbeatMs).then(() => true), ended.then(() => false)])
          if (!on || !lock.sessions.isIn(sessionId)) break
          void write({ event: 'beat', data: '{}' })
        }
      } finally {
        open--
        stop()
        stopAsking()
      }
    })
  })
  return app
}

/** A stream that waits for its reader does not close by itself. */
function hangUp(c: Context, cut: () => void): void {
  cut()
  ;(c.env as Partial<HttpBindings> | undefined)?.outgoing?.destroy()
}
