import type { HttpBindings } from '@hono/node-server'
import { Hono, type Context } from 'hono'
import { streamSSE } from 'hono/streaming'
import { limits } from '#contract/limits'
import type { LiveEvent } from '#contract/live'
import type { Lock } from '../access/lock.ts'
import { liveOnWall } from '../access/onWall.ts'
import type { Deps } from '../deps.ts'
import { reply } from '../problem.ts'

const heartbeatMs = 25_000
/** What is told within this time goes out together: fifty screens that are told of each save one by one take longer than saving. */
const gatherMs = 10

/** Server-sent events: days that changed, imports that move on. */
export function eventRoutes({ events }: Deps, lock: Lock): Hono {
  const app = new Hono()
  let open = 0
  // One text for all who are told the same.
  let newest = { told: -1, text: '' }
  const textOf = (e: LiveEvent, told: number): string => {
    if (newest.told !== told) newest = { told, text: message(e.type, told, JSON.stringify(e)) }
    return newest.text
  }
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
      let waiting: string[] = []
      const send = async () => {
        const texts = waiting
        waiting = []
        unread += texts.length
        await stream.write(texts.join(''))
        unread -= texts.length
      }
      const tell = (text: string) => {
        if (waiting.push(text) === 1) setTimeout(() => void send(), gatherMs)
        // Many things told in one moment are no reader that does not read.
        if (unread > 0 && unread + waiting.length > limits.unreadEvents) hangUp(c, cut)
      }
      const stop = events.on((e, told) => {
        const said = role === 'wall' ? liveOnWall(e) : e
        // Its number goes out all the same: an answer that holds it is not overtaken.
        tell(said === e ? textOf(e, told) : message(said?.type ?? 'beat', told, JSON.stringify(said ?? {})))
      })
      stream.onAbort(cut)
      const stopAsking = lock.sessions.onEnded(() => lock.sessions.isIn(sessionId) || hangUp(c, cut))
      try {
        await stream.write(message('hello', events.told, '{}'))
        while (!stream.aborted) {
          const on = await Promise.race([stream.sleep(heartbeatMs).then(() => true), ended.then(() => false)])
          if (!on || !lock.sessions.isIn(sessionId)) break
          tell(message('beat', null, '{}'))
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

/** One message of a stream of events. @param data JSON, which has no line ends */
const message = (event: string, id: number | null, data: string): string =>
  `event: ${event}\ndata: ${data}\n${id === null ? '' : `id: ${id}\n`}\n`

/** A stream that waits for its reader does not close by itself. */
function hangUp(c: Context, cut: () => void): void {
  cut()
  ;(c.env as Partial<HttpBindings> | undefined)?.outgoing?.destroy()
}
