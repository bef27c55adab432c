import { connect, type Socket } from 'node:net'

/** A request whose lines come one by one and never end; destroying the socket, or a server that closes it, ends it. */
export function slowConnection(base: string): Socket {
  const { hostname, port, host } = new URL(base)
  const socket = connect(Number(port), hostname)
  socket.on('error', () => undefined)
  socket.write(`PUT /api/v1/riders/x HTTP/1.1\r\nHost: ${host}\r\n`)
  const more = setInterval(() => void socket.write('X-More: 1\r\n'), 900)
  socket.on('close', () => clearInterval(more))
  return socket
}
