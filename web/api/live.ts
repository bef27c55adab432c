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

/** A stream that was refused is asked for again after this: a server that was busy hears nobody's silence. */
const retryMs = 5000
const refusedListeners = new Set<() => void>()
/** Told when the server refuses the stream: signed out elsewhere, or too busy. */
export const whenRefused = (listener: () => void): void => void refusedListeners.add(listener)

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
  const mine = source
  source.addEventListener('error', () => {
    // Cut off, the browser tries again by itself; refused, it never does.
    if (mine.readyState !== EventSource.CLOSED) return unanswered()
    if (source !== mine) return
    source = null
    for (const l of refusedListeners) l()
    setTimeout(sync, retryMs)
  })
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
