/** So many at once, then so many a minute, for each key. */
export class Limiter {
  private held = new Map<string, { left: number; atMs: number }>()

  constructor(
    private readonly burst: number,
    private readonly perMinute: number,
    private readonly mostKeys = 2000,
  ) {}

  /** Takes one. @returns 0, or the seconds to wait before there is one */
  take(key: string, nowMs: number): number {
    const left = this.left(key, nowMs)
    if (left < 1) return Math.max(1, Math.ceil(((1 - left) * 60) / this.perMinute - 1e-6))
    this.held.delete(key)
    this.held.set(key, { left: left - 1, atMs: nowMs })
    // The one that was quiet longest goes first; it has the most left.
    if (this.held.size > this.mostKeys) this.held.delete(this.held.keys().next().value!)
    return 0
  }

  /** Gives one back: the try was a good one. */
  giveBack(key: string): void {
    const h = this.held.get(key)
    if (h) h.left = Math.min(this.burst, h.left + 1)
  }

  private left(key: string, nowMs: number): number {
    const h = this.held.get(key)
    if (!h) return this.burst
    return Math.min(this.burst, h.left + (Math.max(0, nowMs - h.atMs) / 60_000) * this.perMinute)
  }
}
