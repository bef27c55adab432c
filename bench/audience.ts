import { connect } from 'node:net'
import { slowConnection } from './slowConnection.ts'

/*
 * A process of its own that only listens: screens that are told of everything, and connections whose request never ends.
 * `tsx bench/audience.ts <base> <screens> <slow>`; says “here” when all screens are told, and goes when its input ends.
 */
const [base, screens, slow] = process.argv.slice(2)
const { hostname, port, host } = new URL(base)

/** The server closes it after a while; then the next one comes. */
const drip = (): void => void slowConnection(base).on('close', () => setTimeout(drip, 200))

/** Resolves when it is told for the first time. */
function screen(): Promise<void> {
  const socket = connect(Number(port), hostname)
  socket.on('error', () => undefined)
  socket.write(`GET /api/v1/events HTTP/1.1\r\nHost: ${host}\r\n\r\n`)
  return new Promise((resolve) => void socket.once('data', () => (socket.resume(), resolve())))
}

process.stdin.on('end', () => process.exit()).resume()
for (let i = 0; i < Number(slow); i++) drip()
await Promise.all(Array.from({ length: Number(screens) }, screen))
console.log('here')
