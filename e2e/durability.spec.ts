import { request } from 'node:http'
import { readdirSync } from 'node:fs'
import { join } from 'node:path'
import { expect, test } from '@playwright/test'
import { v7 as uuid } from 'uuid'
import { makeRider, makeUpload, makeRun, startStory } from '../server/test/story.ts'
import { startProcess } from './server.ts'

/** Speaks to a real server process the way the harness speaks to an app in memory. */
function over(base: string) {
  const put = async (path: string, body: unknown) => {
    const response = await fetch(`${base}/api/v1${path}`, {
      method: 'PUT',
      headers: { 'content-type': 'application/json' },
      body: typeof body === 'string' ? body : JSON.stringify(body),
    })
    return { status: response.status, headers: response.headers, body: await response.json() }
  }
  const read = async <T>(path: string) => (await (await fetch(`${base}/api/v1${path}`)).json()) as T
  return { put, read }
}

test('killed in the middle of saves: everything that was confirmed is there', async () => {
  let server = await startProcess()
  const confirmed: string[] = []
  let enough = () => {}
  const some = new Promise<void>((resolve) => (enough = resolve))
  const storm = Array.from({ length: 400 }, async (_, i) => {
    const rider = makeRider({ name: `Rider ${i}` })
    try {
      const r = await over(server.base).put(`/riders/${rider.id}`, rider)
      if (r.status === 200) confirmed.push(rider.id)
      // At once when so many are in: looked at from time to time, a fast machine would be through.
      if (confirmed.length > 20) enough()
    } catch {
      // The process was gone; nobody was told that it was saved.
    }
  })
  await some
  await server.stop('SIGKILL')
  await Promise.allSettled(storm)
  expect(confirmed.length).toBeLessThan(400)
  server = await startProcess(server.dataDir)
  const garage = await over(server.base).read<{ riders: { id: string }[] }>('/garage')
  const kept = new Set(garage.riders.map((r) => r.id))
  expect(confirmed.filter((id) => !kept.has(id))).toEqual([])
  await server.stop()
})

test('killed in the middle of an import: the day is whole, nothing half-imported, and the import can be repeated', async () => {
  let server = await startProcess()
  const story = await startStory(over(server.base))
  const second = makeRun(story.day, story.setup.id, { startedAt: '2031-05-02T09:30:00.000Z' })
  await over(server.base).put(`/runs/${second.id}`, second)
  const id = uuid()
  const big = ['time [ms];front [mm];rear [mm]']
  for (let i = 0; i < 400_000; i++)
    big.push(
      `${i * 2};${(30 + 20 * Math.sin(i / 40)).toFixed(2).replace('.', ',')};${(15 + 6 * Math.sin(i / 40)).toFixed(2).replace('.', ',')}`,
    )
  const text = big.join('\n')
  const meta = makeUpload(second.id)
  const send = async () => {
    await over(server.base).put(`/uploads/${meta.uploadId}`, text)
    return over(server.base).put(`/recordings/${id}`, meta)
  }
  const upload = send().then(
    (r) => r.status,
    () => 'gone',
  )
  const incoming = join(server.dataDir, 'incoming')
  // Whole on the disk, and being read.
  await expect.poll(() => readdirSync(incoming)).toEqual([`upload-${meta.uploadId}`])
  await server.stop('SIGKILL')
  expect(await upload).toBe('gone')

  server = await startProcess(server.dataDir)
  expect(readdirSync(incoming)).toEqual([])
  const day = await over(server.base).read<{
    runs: unknown[]
    recordings: unknown[]
  }>(`/days/${story.day.id}`)
  expect(day.runs).toHaveLength(2)
  expect(day.recordings).toEqual([])
  // The page only says again what it had said; the bytes are gone with the process, and are sent once more.
  expect((await over(server.base).put(`/recordings/${id}`, meta)).status).toBe(409)
  expect((await send()).status).toBe(200)
  await server.stop()
})

test('a cancelled upload leaves nothing behind', async () => {
  const server = await startProcess()
  const story = await startStory(over(server.base))
  const cancel = new AbortController()
  const incoming = join(server.dataDir, 'incoming')
  let sent = 0
  const slow = new ReadableStream({
    async pull(controller) {
      await new Promise((resolve) => setTimeout(resolve, 20))
      controller.enqueue(
        new TextEncoder().encode(sent++ === 0 ? 'time;front;rear\n' : `${sent * 2};12;5\n`.repeat(500)),
      )
    },
  })
  const upload = fetch(`${server.base}/api/v1/uploads/${uuid()}`, {
    method: 'PUT',
    body: slow,
    duplex: 'half',
    signal: cancel.signal,
  } as RequestInit).catch(() => 'cancelled')
  await expect.poll(() => readdirSync(incoming).length).toBe(1)
  cancel.abort()
  expect(await upload).toBe('cancelled')
  await expect.poll(() => readdirSync(incoming).length).toBe(0)
  const day = await over(server.base).read<{ recordings: unknown[] }>(`/days/${story.day.id}`)
  expect(day.recordings).toEqual([])
  await server.stop()
})

test('an upload of 2 GB is refused before it is taken in', async () => {
  const server = await startProcess()
  const { port } = new URL(server.base)
  const reply = await new Promise<{ status: number; text: string }>((resolve, reject) => {
    const sent = request(
      {
        port,
        host: '127.0.0.1',
        method: 'PUT',
        path: `/api/v1/uploads/${uuid()}`,
        headers: { 'content-length': 2 * 1024 ** 3 },
      },
      (r) => {
        let text = ''
        r.on('data', (c: Buffer) => (text += c.toString()))
        r.on('end', () => {
          resolve({ status: r.statusCode!, text })
          sent.destroy()
        })
      },
    )
    sent.on('error', reject)
    sent.write('time;front;rear\n')
  })
  expect(reply.status).toBe(413)
  expect(reply.text).toContain('at most 512 MB')
  expect(readdirSync(join(server.dataDir, 'incoming'))).toEqual([])
  await server.stop('SIGKILL')
})

test('listening to the whole network without a lock gives nothing away and takes nothing in', async () => {
  const server = await startProcess(undefined, { env: { WILD_SPRING_HOST: '0.0.0.0' } })
  const answers = await Promise.all([
    fetch(`${server.base}/api/v1/garage`),
    fetch(`${server.base}/api/v1/riders/${uuid()}`, {
      method: 'PUT',
      body: JSON.stringify(makeRider()),
      headers: { 'content-type': 'application/json', origin: server.base },
    }),
  ])
  for (const answer of answers) {
    expect(answer.status).toBe(401)
    expect(await answer.json()).toMatchObject({ code: 'access.unset' })
  }
  await server.stop()
})
