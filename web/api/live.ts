import { onScopeDispose } from 'vue'
import { LiveEvent } from '#contract/live'
import { apiBase } from './client.ts'
import { answered, unanswered } from './reach.ts'

export interface LiveHandlers {
  /** The number of the last event told so far; comes before `event` and `here`. */
  told?: (number: number) => void
  event?: (e: LiveEvent) => void
  /** The stream is there, or there again: something may have been missed before. */
  here?: () => void
}

// One stream per window, and only while it is seen: a browser opens few connections to one server, and a handful of
// forgotten tabs would take them all.
const listeners = new Set<LiveHandlers>()
let source: EventSource | null = null

function sync(): void {
  const wanted = listeners.size > 0 && document.visibilityState === 'visible'
  if (wanted && !source) open()
  else if (!wanted && source) {
    source.close()
    source = null
  }
}

function open(): void {
  source = new EventSource(`${apiBase}/events`)
  // The browser tries again by itself.
  source.addEventListener('error', () => source?.readyState === EventSource.CONNECTING && unanswered())
  source.addEventListener('hello', (e) => {
    answered()
    for (const l of listeners) {
      l.told?.(Number(e.lastEventId))
      l.here?.()
    }
  })
  for (const type of liveTypes)
    source.addEventListener(type, (e) => {
      const told = LiveEvent.safeParse(JSON.parse(e.data))
      // A newer server may tell what this page does not know yet.
      if (!told.success) return
      for (const l of listeners) {
        // How far a file is read changes nothing that is kept.
        if (type !== 'ingest') l.told?.(Number(e.lastEventId))
        l.event?.(told.data)
      }
    })
}

const liveTypes = LiveEvent.options.map((o) => o.shape.type.value)

document.addEventListener('visibilitychange', sync)

/** Subscribes to live events; the browser reconnects by itself. @returns the way to stop */
export function listen(handlers: LiveHandlers): () => void {
  listeners.add(handlers)
  sync()
  return () => {
    listeners.delete(handlers)
    sync()
  }
}
/** The same, for as long as the component lives. */
export function useLive(handlers: LiveHandlers): void {
  onScopeDispose(listen(handlers))
}
