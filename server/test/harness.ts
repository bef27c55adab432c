import { mkdtempSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { doorFrom, type Door } from '../access/door.ts'
import { buildApp } from '../app.ts'
import { bundleHere } from '../bundle/bundler.ts'
import { Porter } from '../bundle/porter.ts'
import { openStore, type Rewriter, type Store } from '../db/open.ts'
import { EventBus } from '../events.ts'
import { runIngest } from '../ingest/run.ts'
import { clearIncoming } from '../ingest/spool.ts'
import { copyData } from '../safekeeping/copyFile.ts'
import { Keeper } from '../safekeeping/keeper.ts'
import { putBack } from '../safekeeping/putBack.ts'
import { Running } from '../running.ts'

export const migrations = join(import.meta.dirname, '..', 'db', 'migrations')

/** A whole application on a real data file of its own, spoken to without a socket. */
export async function startApp(
  dir = mkdtempSync(join(tmpdir(), 'wild-spring-')),
  loggers: readonly string[] = [],
  door: Door = doorFrom('127.0.0.1', '', false),
  rewriter?: Rewriter,
  /** What opens the data, where it is no file of ours. */
  opener: (file: string) => Promise<Store> = (file) => openStore(file, migrations, rewriter),
) {
  const file = join(dir, 'test.sqlite')
  const incomingDir = join(dir, 'incoming')
  clearIncoming(incomingDir)
  const logged: unknown[] = []
  const requests: string[] = []
  let ticks = 0
  const events = new EventBus()
  // Moves on with every look, as a clock does.
  const now = () => new Date(Date.UTC(2031, 4, 2, 12) + ticks++).toISOString()
  const log = {
    error: (message: string, cause: unknown) => void logged.push(cause ?? message),
    request: (line: string) => void requests.push(line),
  }
  const keeper = new Keeper(file, join(dir, 'copies'), (from, to) => copyData(from, to, migrations), now, log)
  let built: ReturnType<typeof buildApp>
  let porter: Porter
  const running = await Running.start(async () => {
    const store = await opener(file)
    porter = new Porter({ store, incomingDir, migrations, bundler: bundleHere, now, version: 'test' })
    built = buildApp({
      store,
      events,
      ingest: runIngest,
      loggers,
      incomingDir,
      webDir: null,
      now,
      log,
      door,
      setupCode: 'ABCDE-12345-FGHJK',
      version: 'test',
      keeper,
      follower: null,
      porter,
      putBack: (copy) => putBack(copy, { keeper, running, migrations, now, log }),
    })
    return { store, fetch: built.fetch }
  })
  const send = async (method: string, path: string, body?: unknown, headers: Record<string, string> = {}) => {
    const raw = typeof body === 'string' || body instanceof Uint8Array
    const response = await running.fetch(
      new Request(`http://localhost/api/v1${path}`, {
        method,
        headers: { 'content-type': 'application/json', ...headers },
        ...(body === undefined ? {} : { body: raw ? (body as BodyInit) : JSON.stringify(body) }),
      }),
    )
    const type = response.headers.get('content-type') ?? ''
    return {
      status: response.status,
      headers: response.headers,
      body: type.includes('json') ? await response.json() : await response.arrayBuffer(),
    }
  }
  return {
    get app() {
      return built
    },
    get store() {
      return running.store
    },
    keeper,
    get porter() {
      return porter
    },
    events,
    dir,
    incomingDir,
    logged,
    requests,
    send,
    /** Time goes by. */
    skip: (ms: number) => void (ticks += ms),
    put: (path: string, body: unknown) => send('PUT', path, body),
    get: (path: string) => send('GET', path),
  }
}
export type TestApp = Awaited<ReturnType<typeof startApp>>
