import { onScopeDispose } from 'vue'
import { LiveEvent } from '#contract/live'
import { apiBase } from './client.ts'

export interface LiveHandlers {
  event?: (e: LiveEvent) => void
  /** The stream is back after a pause: something may have been missed. */
  back?: () => void
  /** The stream says its first word: what was read before it may have missed something. */
  begun?: () => void
}

// One stream per window, and only while it is seen: a browser opens few connections to one server, and a handful of
// forgotten tabs would take them all.
const listeners = new Set<LiveHandlers>()
let source: EventSource | null = null
let greeted = false

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
  source.addEventListener('hello', () => {
    for (const l of listeners)
      if (greeted) l.back?.()
      else l.begun?.()
    greeted = true
  })
  for (const type of liveTypes)
    source.addEventListener(type, (e) => {
      const told = LiveEvent.safeParse(JSON.parse(e.data))
      // A newer server may tell what this page does not know yet.
      if (told.success) for (const l of listeners) l.event?.(told.data)
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
