import { onScopeDispose } from 'vue'
import { apiBase } from './client.ts'

/** Subscribes to live events for as long as the component lives; the browser reconnects by itself. */
export function useLive(handlers: {
  day?: (dayId: string) => void
  ingest?: (recordingId: string, share: number, doing: string) => void
}): void {
  const source = new EventSource(`${apiBase}/events`)
  if (handlers.day) source.addEventListener('day', (e) => handlers.day!(JSON.parse(e.data).dayId))
  if (handlers.ingest) {
    source.addEventListener('ingest', (e) => {
      const { recordingId, share, doing } = JSON.parse(e.data)
      handlers.ingest!(recordingId, share, doing)
    })
  }
  onScopeDispose(() => source.close())
}
