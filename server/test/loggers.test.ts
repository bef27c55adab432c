import { createServer, type Server } from 'node:http'
import type { AddressInfo } from 'node:net'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { startApp, type TestApp } from './harness.ts'

const identity = {
  protocol: 'wild-spring-logger/1',
  name: 'Bench logger',
  serial: 'B-1',
  kind: 'travel',
  standIn: false,
  channels: [
    { key: 'front_raw', role: 'front-travel', unit: 'raw', end: 'front', rateHz: 500, low: 0, high: 4095 },
  ],
}
let device: Server
let t: TestApp
const asked: string[] = []
beforeAll(async () => {
  device = createServer((req, res) => {
    asked.push(`${req.method} ${req.url}`)
    if (req.url === '/v1/identity') return res.end(JSON.stringify(identity))
    if (req.url === '/v1/recordings/r1') return res.end('time_ms,front_raw\n1,2\n')
    if (req.url === '/v1/state') {
      // A page that would run as ours.
      res.setHeader('content-type', 'text/html')
      return res.end('<script>alert(1)</script>')
    }
    if (req.url === '/v1/recordings') {
      res.statusCode = 302
      res.setHeader('location', `http://127.0.0.1:${(device.address() as AddressInfo).port}/elsewhere`)
      return res.end()
    }
    // Takes the command and never says a word.
    if (req.url === '/v1/hold') return
    res.statusCode = 409
    res.end(
      JSON.stringify({
        type: 'urn:wild-spring:problem:logger.battery-low',
        title: 'The battery is too low',
        status: 409,
        detail: 'The battery is at 4 %.',
        code: 'logger.battery-low',
      }),
    )
  })
  await new Promise<void>((resolve) => device.listen(0, '127.0.0.1', resolve))
  const { port } = device.address() as AddressInfo
  t = await startApp(undefined, [`http://127.0.0.1:${port}`, 'http://127.0.0.1:9'])
})
afterAll(() => {
  device.close()
  void t.store.close()
})

describe('loggers at hand', () => {
  it('are asked who they are; one that does not answer is said to be there but silent', async () => {
    expect((await t.get('/loggers')).body).toEqual([
      { index: 0, identity },
      { index: 1, identity: null },
    ])
  })
  it('are reached through the server, bytes and refusals alike', async () => {
    const file = (await t.get('/loggers/0/v1/recordings/r1')).body
    expect(new TextDecoder().decode(file as ArrayBuffer)).toBe('time_ms,front_raw\n1,2\n')
    const refused = await t.send('POST', '/loggers/0/v1/recording/start')
    expect(refused).toMatchObject({
      status: 409,
      body: {
        code: 'logger.refused',
        deviceCode: 'logger.battery-low',
        detail: 'The battery is at 4 %.',
      },
    })
    expect((await t.get('/loggers/1/v1/state')).body).toMatchObject({ code: 'logger.unreachable' })
  })
  it.each([
    '/loggers/7/v1/state',
    '/loggers/0/admin',
    '/loggers/0/v1/recordings/../../etc',
    '/loggers/0/v1/state/x',
  ])('%s goes nowhere', async (path) => {
    const before = asked.length
    expect((await t.get(path)).status).toBe(404)
    expect(asked).toHaveLength(before)
  })
  it('never speak as a page of ours, and lead nowhere else', async () => {
    const state = await t.app.request('/api/v1/loggers/0/v1/state')
    expect(state.headers.get('content-type')).toBe('application/json')
    expect(state.headers.get('x-content-type-options')).toBe('nosniff')
    asked.length = 0
    const led = await t.get('/loggers/0/v1/recordings')
    expect(led).toMatchObject({ status: 502, body: { code: 'logger.unreachable' } })
    expect(asked).toEqual(['GET /v1/recordings'])
  })
  it('that take a command and say nothing are given up', async () => {
    const answer = await t.send('POST', '/loggers/0/v1/hold', { seconds: 1 })
    expect(answer).toMatchObject({ status: 502, body: { code: 'logger.unreachable' } })
  }, 20_000)
})
