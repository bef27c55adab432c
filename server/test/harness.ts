import { mkdtempSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { doorFrom, type Door } from '../access/door.ts'
import { buildApp } from '../app.ts'
import { openStore } from '../db/open.ts'
import { EventBus } from '../events.ts'
import { runIngest } from '../ingest/run.ts'
import { clearIncoming } from '../ingest/spool.ts'

export const migrations = join(import.meta.dirname, '..', 'db', 'migrations')

/** A whole application on a real data file of its own, spoken to without a socket. */
export async function startApp(
  dir = mkdtempSync(join(tmpdir(), 'wild-spring-')),
  loggers: readonly string[] = [],
  door: Door = doorFrom('127.0.0.1', '', false),
) {
  const store = await openStore(join(dir, 'test.sqlite'), migrations)
  const incomingDir = join(dir, 'incoming')
  clearIncoming(incomingDir)
  const logged: unknown[] = []
  let ticks = 0
  const events = new EventBus()
  const app = buildApp({
    store,
    events,
    ingest: runIngest,
    loggers,
    incomingDir,
    webDir: null,
    // Moves on with every look, as a clock does.
    now: () => new Date(Date.UTC(2031, 4, 2, 12) + ticks++).toISOString(),
    log: { error: (message, cause) => logged.push(cause ?? message) },
    door,
    setupCode: 'ABCDE-12345-FGHJK',
    version: 'test',
  })
  const send = async (method: string, path: string, body?: unknown, headers: Record<string, string> = {}) => {
    const raw = typeof body === 'string' || body instanceof Uint8Array
    const response = await app.request(`/api/v1${path}`, {
      method,
      headers: { 'content-type': 'application/json', ...headers },
      ...(body === undefined ? {} : { body: raw ? (body as BodyInit) : JSON.stringify(body) }),
    })
    const type = response.headers.get('content-type') ?? ''
    return {
      status: response.status,
      headers: response.headers,
      body: type.includes('json') ? await response.json() : await response.arrayBuffer(),
    }
  }
  return {
    app,
    store,
    events,
    dir,
    incomingDir,
    logged,
    send,
    /** Time goes by. */
    skip: (ms: number) => void (ticks += ms),
    put: (path: string, body: unknown) => send('PUT', path, body),
    get: (path: string) => send('GET', path),
  }
}
export type TestApp = Awaited<ReturnType<typeof startApp>>
