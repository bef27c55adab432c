import { connect, type Socket } from 'node:net'

/*
 * A process of its own that only listens: screens that are told of everything, and connections whose request never ends.
 * `tsx bench/audience.ts <base> <screens> <slow>`; says “here” when all screens are told.
 */
const [base, screens, slow] = process.argv.slice(2)
const { hostname, port, host } = new URL(base)

function open(lines: string): Socket {
  const socket = connect(Number(port), hostname)
  socket.on('error', () => undefined)
  socket.write(lines)
  return socket
}

/** The server closes it after a while; then the next one comes. */
function drip(): void {
  const socket = open(`PUT /api/v1/riders/x HTTP/1.1\r\nHost: ${host}\r\n`)
  const more = setInterval(() => void socket.write('X-More: 1\r\n'), 900)
  socket.on('close', () => {
    clearInterval(more)
    setTimeout(drip, 200)
  })
}

for (let i = 0; i < Number(slow); i++) drip()
const told = Array.from({ length: Number(screens) }, () => {
  const socket = open(`GET /api/v1/events HTTP/1.1\r\nHost: ${host}\r\n\r\n`)
  return new Promise<void>((resolve) => void socket.once('data', () => (socket.resume(), resolve())))
})
await Promise.all(told)
console.log('here')
