import { eq } from 'drizzle-orm'
import { v7 as uuid } from 'uuid'
import type { Role, Session } from '#contract/access'
import type { Store } from '../db/open.ts'
import { sessions } from '../db/schema.ts'
import { hashOf, randomToken } from './codes.ts'

type Kept = typeof sessions.$inferSelect

/** A device that is not seen for this long is asked again. */
const sessionDays = 30
const dayMs = 86_400_000
/** How exactly "last seen" is kept. */
const seenMs = 600_000

const later = (iso: string, ms: number) => new Date(Date.parse(iso) + ms).toISOString()

/** Devices that are signed in. Held in memory too: one process owns the data file, and every request asks. */
export class Sessions {
  private byHash: Map<string, Kept> | null = null
  private listeners = new Set<() => void>()

  constructor(
    private readonly store: Store,
    private readonly now: () => string,
  ) {}

  private async all(): Promise<Map<string, Kept>> {
    this.byHash ??= new Map((await this.store.db.select().from(sessions)).map((s) => [s.hash, s]))
    return this.byHash
  }

  /** The device of a token, while its time runs. */
  async find(token: string): Promise<Kept | null> {
    const held = (await this.all()).get(hashOf(token))
    const now = this.now()
    if (!held || held.expiresAt <= now) return null
    if (Date.parse(now) - Date.parse(held.lastSeenAt) > seenMs) {
      held.lastSeenAt = now
      held.expiresAt = later(now, sessionDays * dayMs)
      const { hash, lastSeenAt, expiresAt } = held
      await this.store.writes.run(() =>
        this.store.db.update(sessions).set({ lastSeenAt, expiresAt }).where(eq(sessions.hash, hash)),
      )
    }
    return held
  }

  /** Signs a device in. @returns its token, told once */
  async open(role: Role, device: string, tentId: string | null): Promise<string> {
    const token = randomToken() + randomToken()
    const now = this.now()
    const kept: Kept = {
      hash: hashOf(token),
      id: uuid(),
      role,
      tentId,
      device,
      createdAt: now,
      lastSeenAt: now,
      expiresAt: later(now, sessionDays * dayMs),
    }
    const all = await this.all()
    await this.store.writes.run(() => this.store.db.insert(sessions).values(kept))
    all.set(kept.hash, kept)
    return token
  }

  /** Signs out whoever `which` names; their next request is refused, and a live stream ends. */
  async end(which: (s: Kept) => boolean): Promise<void> {
    const all = await this.all()
    const gone = [...all.values()].filter(which)
    for (const s of gone) {
      await this.store.writes.run(() => this.store.db.delete(sessions).where(eq(sessions.hash, s.hash)))
      all.delete(s.hash)
    }
    if (gone.length) for (const l of this.listeners) l()
  }

  /** Told when somebody was signed out. @returns the way to stop */
  onEnded(listener: () => void): () => void {
    this.listeners.add(listener)
    return () => this.listeners.delete(listener)
  }

  /** Whether a device is signed in still; null stands for an open door. */
  isIn(id: string | null): boolean {
    return (
      id === null || [...(this.byHash?.values() ?? [])].some((s) => s.id === id && s.expiresAt > this.now())
    )
  }

  async list(hereId: string | null): Promise<Session[]> {
    const now = this.now()
    return [...(await this.all()).values()]
      .filter((s) => s.expiresAt > now)
      .map(({ hash: _, ...s }) => ({ ...s, here: s.id === hereId }))
      .sort((a, b) => b.lastSeenAt.localeCompare(a.lastSeenAt))
  }
}
