import { openDB, type IDBPDatabase } from 'idb'

/** What was read last, kept on this device for when the server is out of reach. */
export interface Held {
  key: string
  answer: unknown
  /** ms */
  at: number
}

/** Days, what was worked out of them, and lists that are kept; older ones make room. */
const most = 160
/** A hand that turns makes many changes; one writing a second is enough. */
const pauseMs = 1000

let opened: Promise<IDBPDatabase | null> | null = null
const database = () => (opened ??= open().catch(() => null))
async function open(): Promise<IDBPDatabase> {
  return openDB('wild-spring-held', 1, {
    upgrade: (db) => void db.createObjectStore('answers', { keyPath: 'key' }).createIndex('at', 'at'),
  })
}

/** @returns null where nothing is kept, or the browser keeps nothing */
export async function recall(key: string): Promise<Held | null> {
  const db = await database()
  return ((await db?.get('answers', key).catch(() => undefined)) as Held | undefined) ?? null
}

const due = new Map<string, unknown>()
let timer: ReturnType<typeof setTimeout> | null = null

/** Keeps an answer, soon: a later one of the same key takes its place. */
export function keep(key: string, answer: unknown): void {
  due.set(key, answer)
  timer ??= setTimeout(() => {
    timer = null
    void write()
  }, pauseMs)
}

/** Forgets everything, as at signing out: the next one at this device is somebody else. */
export async function forgetHeld(): Promise<void> {
  due.clear()
  await (await database())?.clear('answers').catch(() => undefined)
}

async function write(): Promise<void> {
  const db = await database()
  const now = Date.now()
  const batch = [...due].map(([key, answer]): Held => ({ key, answer, at: now }))
  due.clear()
  if (!db) return
  try {
    const tx = db.transaction('answers', 'readwrite')
    for (const h of batch) void tx.store.put(h)
    let tooMany = (await tx.store.count()) - most
    for (let c = await tx.store.index('at').openCursor(); c && tooMany > 0; c = await c.continue(), tooMany--)
      await c.delete()
    await tx.done
  } catch {
    // Full: what waits to be sent needs the room more than what can be read again.
    await db.clear('answers').catch(() => undefined)
  }
}

// What is due goes before the page does.
if (typeof window !== 'undefined') window.addEventListener('pagehide', () => void write())
