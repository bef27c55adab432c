import { join, resolve } from 'node:path'
import { serve } from '@hono/node-server'
import { buildApp } from './app.ts'
import { openStore } from './db/open.ts'
import { EventBus } from './events.ts'
import { ingestInWorker } from './ingest/inWorker.ts'
import { clearIncoming } from './ingest/spool.ts'

/**
 * Starts the server. Settings from the environment:
 * WILD_SPRING_DATA  folder of the data file, default ./data
 * WILD_SPRING_PORT  default 4870; 0 takes a free one
 * WILD_SPRING_LOGGERS  addresses of loggers, separated by commas; default: where `npm run logger` starts them
 */
async function main(): Promise<void> {
  const host = process.env.WILD_SPRING_HOST ?? '127.0.0.1'
  if (!['127.0.0.1', 'localhost', '::1'].includes(host)) {
    throw new Error(
      'Wild Spring has no login yet, so it listens on this machine only; leave WILD_SPRING_HOST at 127.0.0.1.',
    )
  }
  const dataDir = resolve(process.env.WILD_SPRING_DATA ?? 'data')
  const here = import.meta.dirname
  const incomingDir = join(dataDir, 'incoming')
  const store = await openStore(join(dataDir, 'wild-spring.sqlite'), join(here, 'migrations'))
  clearIncoming(incomingDir)
  const app = buildApp({
    store,
    events: new EventBus(),
    ingest: ingestInWorker(new URL('./ingestWorker.js', import.meta.url)),
    incomingDir,
    loggers: loggerAddresses(process.env.WILD_SPRING_LOGGERS ?? usualLoggers),
    webDir: join(here, '..', 'web'),
    now: () => new Date().toISOString(),
    log: { error: (message, cause) => console.error(message, cause) },
    version: process.env.WILD_SPRING_VERSION ?? '0.1.0',
  })
  const server = serve(
    { fetch: app.fetch, hostname: host, port: Number(process.env.WILD_SPRING_PORT ?? 4870) },
    (info) => {
      console.log(`Wild Spring is at http://${host === '::1' ? '[::1]' : host}:${info.port}`)
    },
  )
  server.on('error', (e: NodeJS.ErrnoException) => {
    const port = process.env.WILD_SPRING_PORT ?? 4870
    console.error(
      e.code === 'EADDRINUSE'
        ? `Port ${port} is taken; end what runs there or choose another with WILD_SPRING_PORT.`
        : e.message,
    )
    process.exit(1)
  })
  const stop = () => {
    server.close()
    store.close()
    process.exit(0)
  }
  process.on('SIGINT', stop)
  process.on('SIGTERM', stop)
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

main().catch((e: unknown) => {
  console.error(e instanceof Error ? e.message : e)
  process.exit(1)
})
