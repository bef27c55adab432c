import { openDB, type IDBPDatabase } from 'idb'
import { onVersion, versionOf, type Letter, type NewLetter } from './letters.ts'

/** Where letters wait. Every act is whole or not at all. */
export interface Shelf {
  all: () => Promise<Letter[]>
  /**
   * Adds a letter; with `replaces` it takes the place of those of its record that still wait, and goes on from where they
   * stood. In one act, since another tab may be sending them just now.
   */
  add: (letter: Omit<Letter, 'id'>, replaces: boolean) => Promise<{ kept: Letter; replaced: number[] }>
  put: (letters: readonly Letter[]) => Promise<void>
  remove: (ids: readonly number[]) => Promise<void>
  /** Takes or renews the right to send, for `ttlMs`; false while another tab holds it. */
  lease: (tab: string, nowMs: number, ttlMs: number) => Promise<boolean>
  /** Gives the right to send back, so that the next page need not wait for it. */
  release: (tab: string) => Promise<void>
  /** Whether what waits survives closing the page. */
  durable: boolean
}

export const freshLetter = ({ holdMs: _, ...letter }: NewLetter, at: string): Omit<Letter, 'id'> => ({
  ...letter,
  at,
  tries: 0,
  state: 'waiting',
  problem: null,
  attempted: [],
})

/** Letters of a record that may still be replaced. */
export const waitingOf = (letters: readonly Letter[], key: string) =>
  letters.filter((l) => l.key === key && l.state === 'waiting')

/** Remembered bodies of lost answers; older ones cannot be at the server any more. */
const mostAttempts = 8

/** A letter on the version of the first it replaces, begun from the same, remembering what they may have left at the server. */
export function goingOnFrom(before: readonly Letter[], letter: Omit<Letter, 'id'>): Omit<Letter, 'id'> {
  if (before.length === 0) return letter
  const version = versionOf(before[0].body)
  return {
    ...letter,
    body: version === null ? letter.body : onVersion(letter.body, version),
    opened: before[0].opened ?? letter.opened,
    attempted: before.flatMap((l) => l.attempted).slice(-mostAttempts),
  }
}

/** In memory only: where the browser keeps nothing, and in tests. */
export function memoryShelf(): Shelf {
  let next = 1
  const held = new Map<number, Letter>()
  let owner = { tab: '', until: 0 }
  return {
    durable: false,
    all: async () => [...held.values()].sort((a, b) => a.id - b.id),
    add: async (letter, replaces) => {
      const before = replaces ? waitingOf([...held.values()], letter.key) : []
      const kept = { ...goingOnFrom(before, letter), id: next++ }
      held.set(kept.id, kept)
      for (const l of before) held.delete(l.id)
      return { kept, replaced: before.map((l) => l.id) }
    },
    put: async (letters) => {
      for (const l of letters) if (held.has(l.id)) held.set(l.id, l)
    },
    remove: async (ids) => {
      for (const id of ids) held.delete(id)
    },
    lease: async (tab, nowMs, ttlMs) => {
      if (owner.tab !== tab && owner.until > nowMs) return false
      owner = { tab, until: nowMs + ttlMs }
      return true
    },
    release: async (tab) => {
      if (owner.tab === tab) owner = { tab: '', until: 0 }
    },
  }
}

/**
 * In IndexedDB, shared by all tabs of the page.
 * @throws DOMException when the browser keeps nothing here
 */
export async function databaseShelf(name = 'wild-spring-outbox'): Promise<Shelf> {
  const db: IDBPDatabase = await openDB(name, 1, {
    upgrade(d) {
      d.createObjectStore('letters', { keyPath: 'id', autoIncrement: true })
      d.createObjectStore('owner')
    },
  })
  return {
    durable: true,
    all: () => db.getAll('letters'),
    add: async (letter, replaces) => {
      const tx = db.transaction('letters', 'readwrite')
      const before = replaces ? waitingOf((await tx.store.getAll()) as Letter[], letter.key) : []
      const fresh = goingOnFrom(before, letter)
      const id = (await tx.store.add(fresh)) as number
      for (const l of before) void tx.store.delete(l.id)
      await tx.done
      return { kept: { ...fresh, id }, replaced: before.map((l) => l.id) }
    },
    put: async (letters) => {
      const tx = db.transaction('letters', 'readwrite')
      // A letter that was taken out meanwhile does not come back.
      for (const l of letters) if ((await tx.store.getKey(l.id)) !== undefined) void tx.store.put(l)
      await tx.done
    },
    remove: async (ids) => {
      const tx = db.transaction('letters', 'readwrite')
      for (const id of ids) void tx.store.delete(id)
      await tx.done
    },
    lease: async (tab, nowMs, ttlMs) => {
      const tx = db.transaction('owner', 'readwrite')
      const held = (await tx.store.get('sender')) as { tab: string; until: number } | undefined
      const free = !held || held.tab === tab || held.until <= nowMs
      if (free) void tx.store.put({ tab, until: nowMs + ttlMs }, 'sender')
      await tx.done
      return free
    },
    release: async (tab) => {
      const tx = db.transaction('owner', 'readwrite')
      const held = (await tx.store.get('sender')) as { tab: string } | undefined
      if (held?.tab === tab) void tx.store.delete('sender')
      await tx.done
    },
  }
}
