import { connect } from 'node:net'
import type { AddressInfo } from 'node:net'
import type { Server } from 'node:http'
import { serve } from '@hono/node-server'
import { v7 as uuid } from 'uuid'
import { afterEach, describe, expect, it, vi } from 'vitest'
import { limits } from '#contract/limits'
import { closeDripping, watchful } from '../slowness.ts'
import { startApp, type TestApp } from './harness.ts'

let t: TestApp
let server: Server
/** As the product has it, five times as fast. */
const pace = { slowestBytes: limits.slowestBytes / 5, slowestSeconds: limits.slowestSeconds / 5 }
async function listen() {
  t = await startApp()
  server = serve({ fetch: t.app.fetch, hostname: '127.0.0.1', port: 0, serverOptions: watchful }) as Server
  closeDripping(server, pace)
  await new Promise<void>((resolve) => (server.listening ? resolve() : server.once('listening', resolve)))
  return (server.address() as AddressInfo).port
}
afterEach(async () => {
  vi.restoreAllMocks()
  server.closeAllConnections()
  await new Promise((resolve) => server.close(resolve))
  await t.store.close()
})

/** A connection that says `first`, then a byte now and then. @returns how long it was let, ms */
function drip(port: number, first: string, everyMs: number): Promise<number> {
  const began = performance.now()
  return new Promise((resolve) => {
    const socket = connect(port, '127.0.0.1')
    socket.write(first)
    const more = setInterval(() => socket.write('x'), everyMs)
    const done = () => (clearInterval(more), resolve(performance.now() - began))
    socket.on('error', () => undefined)
    socket.on('close', done)
    socket.resume()
  })
}

describe('connections', () => {
  const head = (length: number) =>
    `PUT /api/v1/uploads/${uuid()} HTTP/1.1\r\nHost: 127.0.0.1\r\nContent-Type: application/octet-stream\r\nContent-Length: ${length}\r\n\r\n`
  it('that drip a body are closed, and others go on meanwhile', async () => {
    const port = await listen()
    const dripping = [
      drip(port, head(1_000_000), 100),
      drip(port, head(1_000_000), 100),
      // One that has not even said what it wants.
      drip(port, 'GET /api/v1/health HTTP/1.1\r\nHost: ', 100),
    ]
    expect((await fetch(`http://127.0.0.1:${port}/api/v1/health`)).status).toBe(200)
    for (const ms of await Promise.all(dripping)) {
      expect(ms).toBeGreaterThan(pace.slowestSeconds * 900)
      expect(ms).toBeLessThan(pace.slowestSeconds * 2500)
    }
  }, 40_000)
  it('that are slow as a phone in the woods are let', async () => {
    const port = await listen()
    // 1 kB/s, longer than a dripping one is let.
    const bytes = 5_000
    const answer = new Promise<string>((resolve) => {
      const socket = connect(port, '127.0.0.1')
      socket.write(head(bytes))
      let sent = 0
      const more = setInterval(() => {
        socket.write(Buffer.alloc(500))
        sent += 500
        if (sent === bytes) clearInterval(more)
      }, 500)
      socket.once('data', (d) => resolve(d.toString()))
      socket.once('close', () => resolve('closed'))
    })
    expect(await answer).toContain('HTTP/1.1 200')
  }, 40_000)
  it('that ask to have their request told back are told nothing of it', async () => {
    const port = await listen()
    const answer = await new Promise<string>((resolve) => {
      const socket = connect(port, '127.0.0.1')
      let text = ''
      socket.on('data', (d) => (text += String(d)))
      socket.on('error', () => undefined)
      socket.on('close', () => resolve(text))
      socket.write(
        'TRACE /api/v1/health HTTP/1.1\r\nHost: 127.0.0.1\r\nX-Mine: only-mine\r\nConnection: close\r\n\r\n',
      )
    })
    expect(answer).toMatch(/^HTTP\/1\.1 [45]\d\d/)
    expect(answer).not.toContain('only-mine')
  })
  it('that rest between two requests are kept longer than a proxy keeps its side', async () => {
    const port = await listen()
    const request = 'GET /api/v1/health HTTP/1.1\r\nHost: 127.0.0.1\r\n\r\n'
    const socket = connect(port, '127.0.0.1')
    const answered = () => new Promise<string>((resolve) => socket.once('data', (d) => resolve(d.toString())))
    const closed = vi.fn()
    socket.on('close', closed)
    let answer = answered()
    socket.write(request)
    expect(await answer).toContain('HTTP/1.1 200')
    expect(await answer).toMatch(/keep-alive: timeout=6\d/i)
    // The platform's own rule is five seconds, and one of grace.
    await new Promise((resolve) => setTimeout(resolve, 7500))
    expect(closed).not.toHaveBeenCalled()
    answer = answered()
    socket.write(request)
    expect(await answer).toContain('HTTP/1.1 200')
    socket.destroy()
  }, 40_000)
})

describe('who is meant', () => {
  it('a request that names nobody is not answered, in whatever version of the protocol', async () => {
    const port = await listen()
    const ask = (lines: string) =>
      new Promise<string>((resolve) => {
        const socket = connect(port, '127.0.0.1')
        let said = ''
        socket.on('data', (d) => (said += d.toString()))
        socket.on('error', () => undefined)
        socket.on('close', () => resolve(said))
        socket.write(`${lines}\r\n\r\n`)
      })
    expect(await ask('GET /api/v1/garage HTTP/1.0')).toMatch(/^HTTP\/1\.1 4\d\d/)
    expect(await ask('GET /api/v1/garage HTTP/1.1\r\nConnection: close')).toMatch(/^HTTP\/1\.1 4\d\d/)
    expect(await ask('GET /api/v1/garage HTTP/1.0\r\nHost: 127.0.0.1')).toMatch(/^HTTP\/1\.1 200/)
  }, 20_000)
})

describe('live windows', () => {
  it('are so many and no more; one that closes makes room', async () => {
    const port = await listen()
    const cancel = new AbortController()
    const held: Response[] = []
    // Held on to: an answer that nobody looks at is closed by whoever collects it.
    const open = async (signal = cancel.signal) =>
      held[held.push(await fetch(`http://127.0.0.1:${port}/api/v1/events`, { signal })) - 1].status
    const one = new AbortController()
    expect(await open(one.signal)).toBe(200)
    for (let i = 1; i < limits.liveStreams; i++) expect(await open()).toBe(200)
    expect(await open()).toBe(503)
    one.abort()
    await vi.waitFor(async () => expect(await open()).toBe(200), { timeout: 5000 })
    cancel.abort()
  }, 30_000)
  it('that read nothing are cut off, and fill no memory', async () => {
    const port = await listen()
    const closed = new Promise<void>((resolve) => {
      const socket = connect(port, '127.0.0.1')
      socket.write('GET /api/v1/events HTTP/1.1\r\nHost: 127.0.0.1\r\n\r\n')
      socket.once('data', () => socket.pause())
      socket.on('error', () => undefined)
      socket.on('close', () => resolve())
    })
    await new Promise((r) => setTimeout(r, 100))
    const rest = 'x'.repeat(100_000)
    for (let i = 0; i < 1000; i++) {
      t.events.emit({ type: 'ingest', recordingId: uuid(), share: 0, doing: rest })
      if (i % 50 === 0) await new Promise((r) => setTimeout(r, 5))
    }
    // Whoever sleeps learns of it when it looks again; the server has let go of it by then.
    await vi.waitFor(
      async () => {
        const count = await new Promise<number>((resolve) => server.getConnections((_, n) => resolve(n)))
        expect(count).toBe(0)
      },
      { timeout: 8000 },
    )
    void closed
  }, 20_000)
})
