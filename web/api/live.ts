import { onScopeDispose } from 'vue'
import { apiBase } from './client.ts'

export interface LiveHandlers {
  day?: (dayId: string) => void
  ingest?: (recordingId: string, share: number, doing: string) => void
  /** The stream is back after a pause: something may have been missed. */
  back?: () => void
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
    if (greeted) for (const l of listeners) l.back?.()
    greeted = true
  })
  source.addEventListener('day', (e) => {
    const { dayId } = JSON.parse(e.data)
    for (const l of listeners) l.day?.(dayId)
  })
  source.addEventListener('ingest', (e) => {
    const { recordingId, share, doing } = JSON.parse(e.data)
    for (const l of listeners) l.ingest?.(recordingId, share, doing)
  })
}

document.addEventListener('visibilitychange', sync)

/** Subscribes to live events for as long as the component lives; the browser reconnects by itself. */
export function useLive(handlers: LiveHandlers): void {
  listeners.add(handlers)
  sync()
  onScopeDispose(() => {
    listeners.delete(handlers)
    sync()
  })
}
