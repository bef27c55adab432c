import { once } from 'node:events'
import { readFileSync } from 'node:fs'
import type { Server } from 'node:http'
import { createServer as createTlsServer } from 'node:https'
import type { AddressInfo } from 'node:net'
import { join } from 'node:path'
import { pathToFileURL } from 'node:url'
import { serve } from '@hono/node-server'
import { personCode } from './access/codes.ts'
import { addressesOf, doorFrom } from './access/door.ts'
import { Lock } from './access/lock.ts'
import { buildApp } from './app.ts'
import { bundlerIn } from './bundle/bundlerProcess.ts'
import { Porter } from './bundle/porter.ts'
import { openStore, type Store } from './db/open.ts'
import { EventBus } from './events.ts'
import { ingestInWorker } from './ingest/inWorker.ts'
import { clearIncoming } from './ingest/spool.ts'
import { mustBeHere } from './libsql/mustBeHere.ts'
import { openLibsql } from './libsql/open.ts'
import { libsqlPlace } from './libsql/place.ts'
import { Running } from './running.ts'
import { Follower, unfollowed } from './safekeeping/follower.ts'
import { litestreamProgram } from './safekeeping/litestream.ts'
import { rewriterIn } from './safekeeping/rewriterProcess.ts'
import { placesOf, safeStart } from './safekeeping/safeStart.ts'
import { mendRecords } from './safekeeping/mend.ts'
import { putBack } from './safekeeping/putBack.ts'
import { closeDripping, watchful } from './slowness.ts'

/** What was started: where it answers, and the way to end it. */
export interface Serving {
  address: string
  /** Lets what is under way come to its end, then gives the data folder back. */
  stop: () => Promise<void>
}

/** How it is started. */
export interface Ordered {
  env: Record<string, string | undefined>
  /** From the command line. */
  words: readonly string[]
  /** Where its own built files lie: workers, migrations, and the page beside them. */
  builtDir: string
  say: (line: string) => void
}

/**
 * Starts the server. Settings from the environment:
 * WILD_SPRING_DATA  folder of the data file, default ./data
 * WILD_SPRING_COPIES  folder of its safe copies, default safe-copies in the folder of the data; better on another disk
 * WILD_SPRING_FOLLOW  folder on another disk for a copy that follows every save; default: none
 * WILD_SPRING_LIBSQL_URL  a libSQL server that keeps the data, as http://host:port; the folder then holds a copy to read from
 * WILD_SPRING_LIBSQL_TOKEN  what opens it, where it asks
 * WILD_SPRING_LITESTREAM  the program that makes it; default: that of its package
 * WILD_SPRING_PORT  default 4870; 0 takes a free one
 * WILD_SPRING_HOST  address to listen on, default 127.0.0.1; anything else asks everybody who they are
 * WILD_SPRING_ORIGIN  the address people type where a proxy stands in front, as https://tent.example
 * WILD_SPRING_TLS_CERT, WILD_SPRING_TLS_KEY  files of a certificate and its key, PEM
 * WILD_SPRING_LOG  `requests` (default): a line for each request, without anything of anybody; `errors`: only what went wrong
 * WILD_SPRING_LOGGERS  addresses of loggers, separated by commas; default: where `npm run logger` starts them
 * `--begin-empty` begins with nothing where the data file is gone and safe copies of it are there
 * `--take-off-the-lock` forgets passphrase and sign-ins: for whoever has this machine and lost both passphrase and code
 * @throws Error with one sentence and the way out, where it cannot start
 */
export async function startServing({ env, words, builtDir, say }: Ordered): Promise<Serving> {
  const host = env.WILD_SPRING_HOST ?? '127.0.0.1'
  const tls = certificate(env)
  const door = doorFrom(host, env.WILD_SPRING_ORIGIN ?? '', tls !== null)
  const now = () => new Date().toISOString()
  const log = {
    error: (message: string, cause: unknown) => console.error(message, ...(cause ? [cause] : [])),
    ...(env.WILD_SPRING_LOG === 'errors' ? {} : { request: say }),
  }
  const migrations = join(builtDir, 'migrations')
  const places = placesOf(env)
  const follower = places.followDir
    ? new Follower(
        join(builtDir, 'follower.js'),
        {
          program: litestreamProgram(env.WILD_SPRING_LITESTREAM),
          file: places.file,
          folder: places.followDir,
        },
        log,
      )
    : null
  const libsql = libsqlPlace(env)
  const { keeper, isNew, release } = await safeStart(places, migrations, {
    copierEntry: join(builtDir, 'copier.js'),
    beginEmpty: words.includes('--begin-empty'),
    keptHere: libsql === null,
    now,
    log,
  })
  const { file, incomingDir } = places
  clearIncoming(incomingDir)
  const setupCode = personCode(15)
  const version = env.WILD_SPRING_VERSION ?? '0.1.0'
  const bundler = bundlerIn(join(builtDir, 'bundler.js'))
  const build = (store: Store) =>
    buildApp({
      store,
      events: new EventBus(),
      ingest: ingestInWorker(pathToFileURL(join(builtDir, 'ingestWorker.js'))),
      incomingDir,
      loggers: loggerAddresses(env.WILD_SPRING_LOGGERS ?? usualLoggers),
      webDir: join(builtDir, '..', 'web'),
      now,
      log,
      door,
      setupCode,
      version,
      keeper,
      follower,
      porter: new Porter({ store, incomingDir, migrations, bundler, now, version }),
      putBack: async (copy) => {
        mustBeHere(running.store, 'Nothing was put back')
        const became = await unfollowed(follower, () =>
          putBack(copy, { keeper, running, migrations, now, log }),
        )
        // Whoever listens, listens to what is no more: they come back and read anew.
        setTimeout(() => server.closeAllConnections(), 500)
        return became
      },
    })
  const running = await Running.start(async () => {
    const store = libsql
      ? await openLibsql(libsql, file, migrations, () => keeper.make('before-update'))
      : await openStore(file, migrations, rewriterIn(join(builtDir, 'rewriter.js')))
    const copies = keeper.list().map((c) => ({ path: keeper.pathOf(c.name), at: c.at }))
    const found = await mendRecords(store, copies, now())
    if (found > 0)
      say(
        `${found} damaged ${found === 1 ? 'record was' : 'records were'} mended or left out; the page “What is kept” says which.`,
      )
    return { store, fetch: build(store).fetch }
  })
  if (words.includes('--take-off-the-lock')) {
    await new Lock(running.store, now, log, door, '').takeOff()
    say('The lock is off: passphrase, recovery code and every sign-in are forgotten.')
  }
  const unset = (await new Lock(running.store, now, log, door, '').state()) === 'unset'
  const server = serve({
    fetch: running.fetch,
    hostname: host,
    port: Number(env.WILD_SPRING_PORT ?? 4870),
    ...(tls
      ? { createServer: createTlsServer, serverOptions: { ...tls, ...watchful } }
      : { serverOptions: watchful }),
  }) as Server
  closeDripping(server)
  try {
    await once(server, 'listening')
  } catch (e) {
    await running.stop()
    release()
    if ((e as NodeJS.ErrnoException).code !== 'EADDRINUSE') throw e
    throw new Error(
      `Port ${env.WILD_SPRING_PORT ?? 4870} is taken; end what runs there or choose another with WILD_SPRING_PORT.`,
      { cause: e },
    )
  }
  // No handle left for one caller is no reason to leave all others alone.
  server.on('error', (e) => log.error('the door', e))
  const { port } = server.address() as AddressInfo
  const own = host === '0.0.0.0' || host === '::' ? '127.0.0.1' : host
  const address = `${tls ? 'https' : 'http'}://${own.includes(':') ? `[${own}]` : own}:${port}`
  door.addresses.push(...addressesOf(door, host, port))
  say(`Wild Spring is at ${address}`)
  if (libsql) say(`The data are kept by the libSQL server at ${libsql.url}`)
  for (const other of door.addresses) say(`Other devices find it at ${other}`)
  if (door.beyond && !door.encrypted)
    say('What travels is not encrypted; docs/guide/lock.md says how it can be.')
  if (unset) say(`Nobody has locked this door yet. Open the page; the code is ${setupCode}`)
  follower?.start()
  const stopKeeping = keeper.everyHour(isNew)
  const stop = async () => {
    stopKeeping()
    server.close()
    await running.stop(() => follower?.stop() ?? Promise.resolve())
    // Whoever listens to live events would hold it open for ever.
    server.closeAllConnections()
    release()
  }
  let stopped: Promise<void> | undefined
  return { address, stop: () => (stopped ??= stop()) }
}

/** The certificate to speak TLS with; null: none is named. @throws Error where only one of the two files is, or cannot be read */
function certificate(env: Ordered['env']): { cert: Buffer; key: Buffer } | null {
  const { WILD_SPRING_TLS_CERT: cert = '', WILD_SPRING_TLS_KEY: key = '' } = env
  if (cert === '' && key === '') return null
  if (cert === '' || key === '')
    throw new Error('TLS needs two files: WILD_SPRING_TLS_CERT and WILD_SPRING_TLS_KEY.')
  return { cert: readFileSync(cert), key: readFileSync(key) }
}

const usualLoggers = 'http://127.0.0.1:4871,http://127.0.0.1:4872'

function loggerAddresses(list: string): string[] {
  return list
    .split(',')
    .map((a) => a.trim().replace(/\/$/, ''))
    .filter((a) => a !== '')
    .map((a) => {
      if (!/^https?:\/\/[^/]+$/.test(a))
        throw new Error(
          `WILD_SPRING_LOGGERS: "${a}" is no address; write http://host:port, separated by commas.`,
        )
      return a
    })
}
