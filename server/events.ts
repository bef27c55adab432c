import type { LiveEvent } from '#contract/live'

export type { LiveEvent }

/** In-process fan-out to open event streams. */
export class EventBus {
  private listeners = new Set<(e: LiveEvent, told: number) => void>()
  private last: number

  /** @param start larger than any number told before, by an earlier process too: microseconds since 1970 */
  constructor(start = Date.now() * 1000) {
    this.last = start
  }

  /** The number of the last event: an answer begun now holds everything told up to it. */
  get told(): number {
    return this.last
  }

  emit(e: LiveEvent): void {
    this.last++
    for (const l of this.listeners) l(e, this.last)
  }

  on(listener: (e: LiveEvent, told: number) => void): () => void {
    this.listeners.add(listener)
    return () => this.listeners.delete(listener)
  }
}
