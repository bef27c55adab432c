import type { LiveEvent } from '#contract/live'

export type { LiveEvent }

/** In-process fan-out to open event streams. */
export class EventBus {
  private listeners = new Set<(e: LiveEvent) => void>()

  emit(e: LiveEvent): void {
    for (const l of this.listeners) l(e)
  }

  on(listener: (e: LiveEvent) => void): () => void {
    this.listeners.add(listener)
    return () => this.listeners.delete(listener)
  }
}
