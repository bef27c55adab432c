import type { IncomingMessage, Server } from 'node:http'
import { limits } from '#contract/limits'

/** For the making of the server: how often it looks at who has not even said what they want. */
export const watchful = { connectionsCheckingInterval: 1000 }

/**
 * Closes connections that drip: a few bytes now and then hold a place as long as they like. What is whole, or comes in at
 * a phone's worst pace, is left alone; so is whoever listens to live events.
 */
export function closeDripping(
  server: Server,
  { slowestBytes, slowestSeconds }: Pick<typeof limits, 'slowestBytes' | 'slowestSeconds'> = limits,
): void {
  // Headers are a kilobyte or two: they come at once or not at all.
  server.headersTimeout = slowestSeconds * 1000
  // A large file over a poor line takes its time; its pace is watched instead.
  server.requestTimeout = 0
  server.maxConnections = limits.connections
  server.keepAliveTimeout = limits.idleSeconds * 1000
  server.on('request', (request: IncomingMessage) => {
    const { socket } = request
    let before = socket.bytesRead
    const watch = setInterval(() => {
      if (request.complete || socket.destroyed) return clearInterval(watch)
      // A body that we read slowly ourselves is not the sender's fault.
      if (socket.bytesRead - before < slowestBytes && !socket.isPaused()) socket.destroy()
      before = socket.bytesRead
    }, slowestSeconds * 1000)
    watch.unref()
    request.once('close', () => clearInterval(watch))
  })
}
