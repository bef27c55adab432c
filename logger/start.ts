import { serve } from '@hono/node-server'
import { loggerApp } from './app.ts'
import { StandInLogger } from './device.ts'

/**
 * Starts both stand-in loggers, on this machine only. Settings from the environment:
 * WILD_SPRING_LOGGER_PORT  of the pressure logger, default 4871; the travel logger takes the next one; 0 takes free ones
 * WILD_SPRING_LOGGER_PACE  how many times faster than life they ride, default 10
 */
const first = Number(process.env.WILD_SPRING_LOGGER_PORT ?? 4871)
const pace = Number(process.env.WILD_SPRING_LOGGER_PACE ?? 10)
if (!(pace > 0 && pace <= 1000)) {
  console.error('WILD_SPRING_LOGGER_PACE must be above 0 and at most 1000.')
  process.exit(1)
}
const kinds = ['chamber-pressure', 'travel'] as const
const servers = kinds.map((kind, i) => {
  const device = new StandInLogger(kind, () => performance.now(), pace)
  const port = first === 0 ? 0 : first + i
  const server = serve({ fetch: loggerApp(device).fetch, hostname: '127.0.0.1', port }, (info) => {
    console.log(`${device.identity().name} is at http://127.0.0.1:${info.port}`)
  })
  server.on('error', (e: NodeJS.ErrnoException) => {
    console.error(
      e.code === 'EADDRINUSE'
        ? `Port ${port} is taken; end what runs there or choose another with WILD_SPRING_LOGGER_PORT.`
        : e.message,
    )
    process.exit(1)
  })
  return server
})
const stop = () => {
  for (const s of servers) s.close()
  process.exit(0)
}
process.on('SIGINT', stop)
process.on('SIGTERM', stop)
