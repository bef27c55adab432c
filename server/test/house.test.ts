import { createHash } from 'node:crypto'
import { mkdirSync, mkdtempSync, readdirSync, readFileSync, utimesSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { v7 as uuid } from 'uuid'
import { readMigrationFiles } from 'drizzle-orm/migrator'
import { describe, expect, it, vi } from 'vitest'
import { InputError } from '#core/errors'
import { doorFrom } from '../access/door.ts'
import { buildApp } from '../app.ts'
import { toDisk } from '../db/toDisk.ts'
import { WriteQueue } from '../db/writeQueue.ts'
import { LiveEvent, toldHeader } from '#contract/live'
import { EventBus } from '../events.ts'
import { clearIncoming, forgetUnnamed, spool } from '../ingest/spool.ts'
import type { Refusal } from '../refusal.ts'
import { startApp, migrations } from './harness.ts'
import {
  importFile,
  makeFile,
  makeRider,
  makeReason,
  makeRun,
  makeSetup,
  makeUpload,
  startStory,
} from './story.ts'

describe('the write queue', () => {
  it('runs one writer at a time, in the order they came', async () => {
    const queue = new WriteQueue()
    const log: string[] = []
    const job = (name: string, ms: number) => async () => {
      log.push(`${name} in`)
      await new Promise((resolve) => setTimeout(resolve, ms))
      log.push(`${name} out`)
      return name
    }
    expect(
      await Promise.all([queue.run(job('a', 12)), queue.run(job('b', 1)), queue.run(job('c', 4))]),
    ).toEqual(['a', 'b', 'c'])
    expect(log).toEqual(['a in', 'a out', 'b in', 'b out', 'c in', 'c out'])
  })
  it('a writer that fails does not stop the next, and its fault reaches its caller', async () => {
    const queue = new WriteQueue()
    const bad = queue.run(() => Promise.reject(new Error('no')))
    const good = queue.run(async () => 'yes')
    await expect(bad).rejects.toThrow('no')
    expect(await good).toBe('yes')
  })
  /** A disk that takes its time, and what it was asked for. */
  function slowDisk() {
    const asked: { takes: () => void; refuses: (why: Error) => void }[] = []
    const queue = new WriteQueue(
      () => new Promise<void>((takes, refuses) => void asked.push({ takes, refuses })),
    )
    const answered: string[] = []
    const write = (name: string) => queue.run(async () => name).then((n) => void answered.push(n))
    return { asked, queue, answered, write }
  }
  const turns = async (n = 20) => {
    for (let i = 0; i < n; i++) await new Promise((resolve) => setImmediate(resolve))
  }
  it('answers nobody before what was written is on the disk, and then all who were written by then', async () => {
    const { asked, answered, write } = slowDisk()
    void write('a')
    await turns()
    expect([asked.length, answered]).toEqual([1, []])
    // Written while the disk is busy: too late for what it is bringing.
    const later = ['b', 'c', 'd'].map(write)
    await turns()
    asked[0].takes()
    await turns()
    expect([asked.length, answered]).toEqual([2, ['a']])
    asked[1].takes()
    await Promise.all(later)
    expect([asked.length, answered]).toEqual([2, ['a', 'b', 'c', 'd']])
  })
  it('a disk that refuses is told to those it was asked for, and to nobody after', async () => {
    const { asked, write } = slowDisk()
    const bad = write('a')
    const told = expect(bad).rejects.toThrow('no space')
    await turns()
    const good = write('b')
    asked[0].refuses(new Error('no space'))
    await told
    await turns()
    asked[1].takes()
    await good
  })
  it('a writer that fails waits for no disk', async () => {
    const { asked, queue } = slowDisk()
    await expect(queue.run(() => Promise.reject(new Error('no')))).rejects.toThrow('no')
    expect(asked).toEqual([])
  })
  it('between two writers everybody else gets a turn', async () => {
    const queue = new WriteQueue()
    let others = 0
    let going = true
    const another = (): unknown => setImmediate(() => going && (others++, another()))
    another()
    const during: number[] = []
    await Promise.all(Array.from({ length: 5 }, () => queue.run(async () => during.push(others))))
    going = false
    expect(new Set(during).size).toBe(5)
  })
})

describe('bringing to the disk', () => {
  it('takes a -wal file that is not there as taken up, and any other trouble as trouble', async () => {
    const dir = mkdtempSync(join(tmpdir(), 'disk-'))
    await expect(toDisk(join(dir, 'data.sqlite'))).resolves.toBeUndefined()
    mkdirSync(join(dir, 'data.sqlite-wal'))
    await expect(toDisk(join(dir, 'data.sqlite'))).rejects.toThrow(/EISDIR/)
  })
})

describe('spooling', () => {
  const stream = (...chunks: string[]) =>
    new ReadableStream<Uint8Array>({
      start: (c) => (chunks.forEach((x) => c.enqueue(new TextEncoder().encode(x))), c.close()),
    })
  it('empties what a killed process left behind', () => {
    const dir = mkdtempSync(join(tmpdir(), 'spool-'))
    writeFileSync(join(dir, 'torso'), 'half a file')
    clearIncoming(dir)
    expect(readdirSync(dir)).toEqual([])
  })
  it('forgets bytes that nobody named for a day, and no others', async () => {
    const dir = mkdtempSync(join(tmpdir(), 'spool-'))
    const hoursAgo = (h: number) => new Date(Date.UTC(2031, 4, 2, 12) - h * 3_600_000)
    for (const [name, hours] of [
      ['upload-old', 25],
      ['upload-young', 23],
      ['upload-now.part', 0],
    ] as const) {
      writeFileSync(join(dir, name), 'bytes')
      utimesSync(join(dir, name), hoursAgo(hours), hoursAgo(hours))
    }
    await forgetUnnamed(dir, hoursAgo(0).getTime())
    expect(readdirSync(dir).sort()).toEqual(['upload-now.part', 'upload-young'])
  })
  it('sent again while the first connection still hangs: what is kept is what came whole, and its end takes nothing away', async () => {
    for (const firstWins of [false, true]) {
      const dir = mkdtempSync(join(tmpdir(), 'spool-'))
      const cancel = new AbortController()
      const bytes = (c: ReadableStreamDefaultController<Uint8Array>, text: string) =>
        c.enqueue(new TextEncoder().encode(text))
      let hanging!: ReadableStreamDefaultController<Uint8Array>
      const first = spool(
        new ReadableStream<Uint8Array>({ start: (c) => ((hanging = c), bytes(c, 'a,b\n')) }),
        dir,
        'x',
        cancel.signal,
      )
      await vi.waitFor(() => expect(readdirSync(dir)).toHaveLength(1))
      let second!: ReadableStreamDefaultController<Uint8Array>
      const again = spool(
        new ReadableStream<Uint8Array>({ start: (c) => ((second = c), bytes(c, 'a,b\n')) }),
        dir,
        'x',
        new AbortController().signal,
      )
      await new Promise((resolve) => setTimeout(resolve, 30))
      // What still lay in the line arrives late, beside what is sent again.
      bytes(hanging, '1,')
      bytes(second, '1,2\n')
      if (firstWins) {
        bytes(hanging, '2\n')
        hanging.close()
        expect((await first).byteLength).toBe(8)
      } else {
        cancel.abort()
        await expect(first).rejects.toMatchObject({ code: 'upload.cancelled' })
      }
      second.close()
      const kept = await again
      expect(readdirSync(dir)).toEqual(['upload-x'])
      const held = readFileSync(join(dir, 'upload-x'))
      expect(held.toString()).toBe('a,b\n1,2\n')
      expect(kept.sha256).toBe(createHash('sha256').update(held).digest('hex'))
    }
  })
  it('removes the half file when it is cancelled', async () => {
    const dir = mkdtempSync(join(tmpdir(), 'spool-'))
    const cancel = new AbortController()
    const endless = new ReadableStream<Uint8Array>({
      async pull(c) {
        await new Promise((resolve) => setTimeout(resolve, 2))
        c.enqueue(new Uint8Array(1000))
      },
    })
    const work = spool(endless, dir, 'x', cancel.signal)
    setTimeout(() => cancel.abort(), 30)
    await expect(work).rejects.toMatchObject({ code: 'upload.cancelled' } satisfies Partial<Refusal>)
    expect(readdirSync(dir)).toEqual([])
  })
  it('keeps the bytes as they come', async () => {
    const dir = mkdtempSync(join(tmpdir(), 'spool-'))
    await spool(stream('a,b\n', '1,2\n'), dir, 'x', new AbortController().signal)
    expect(readdirSync(dir)).toEqual(['upload-x'])
  })
})

describe('live events', () => {
  it('tell what changed and no more, and only those who still listen', async () => {
    const t = await startApp()
    const s = await startStory(t)
    const seen: LiveEvent[] = []
    const stop = t.events.on((e) => seen.push(e))
    await t.put(`/runs/${s.run.id}/feel`, {
      runId: s.run.id,
      version: 0,
      rating: 6,
      marks: [],
      verdicts: [],
      note: '',
    })
    expect(seen).toMatchObject([{ type: 'feel', dayId: s.day.id, feel: { rating: 6, version: 1 } }])
    const next = makeSetup(s.bike, [s.front, s.rear], { parentId: s.setup.id, dayId: s.day.id })
    await t.put(`/setups/${next.id}`, next)
    await t.send('DELETE', `/runs/${s.run.id}`)
    stop()
    await t.put(`/runs/${s.run.id}/restore`, undefined)
    expect(seen.map((e) => e.type)).toEqual(['feel', 'setup', 'stale', 'stale'])
    for (const e of seen) {
      expect(LiveEvent.parse(e)).toEqual(e)
      expect(JSON.stringify(e).length).toBeLessThan(4000)
    }
    await t.store.close()
  })
  it('arrive as a stream that greets first', async () => {
    const t = await startApp()
    const s = await startStory(t)
    const response = await t.app.request('/api/v1/events')
    expect(response.headers.get('content-type')).toContain('text/event-stream')
    const reader = response.body!.getReader()
    const read = async () => new TextDecoder().decode((await reader.read()).value)
    const numberOf = (sent: string) => Number(/^id: (\d+)$/m.exec(sent)?.[1])
    const hello = await read()
    expect(hello).toContain('event: hello')
    const before = await t.app.request('/api/v1/garage')
    expect(Number(before.headers.get(toldHeader))).toBe(numberOf(hello))
    const next = makeSetup(s.bike, [s.front, s.rear], {
      parentId: s.setup.id,
      dayId: s.day.id,
      reason: makeReason('own-idea', { text: '', linked: false }),
    })
    next.positions[1].value = 7
    await t.put(`/setups/${next.id}`, next)
    const event = await read()
    expect(event).toContain(s.day.id)
    expect(numberOf(event)).toBeGreaterThan(numberOf(hello))
    const after = await t.app.request('/api/v1/garage')
    expect(Number(after.headers.get(toldHeader))).toBe(numberOf(event))
    await reader.cancel()
    await t.store.close()
  })
})

describe('a second opening of the same data file', () => {
  it('finds everything, and does not run the migrations twice', async () => {
    const t = await startApp()
    const s = await startStory(t)
    const applied = async (app: typeof t) =>
      Number((await app.store.client.execute('select count(*) from __drizzle_migrations')).rows[0][0])
    const before = await applied(t)
    await t.store.close()
    const again = await startApp(t.dir)
    expect((await again.get(`/days/${s.day.id}`)).status).toBe(200)
    expect(before).toBe(readMigrationFiles({ migrationsFolder: migrations }).length)
    expect(await applied(again)).toBe(before)
    await again.store.close()
  })
  it('a file that is no database is refused with its name', async () => {
    const dir = mkdtempSync(join(tmpdir(), 'broken-'))
    writeFileSync(join(dir, 'test.sqlite'), 'this is not a database, whatever its name says'.repeat(100))
    await expect(startApp(dir)).rejects.toThrow()
  })
})

describe('serving the page', () => {
  const withPage = async (ingest = async () => Promise.reject(new Error('unused'))) => {
    const t = await startApp()
    const webDir = join(t.dir, 'web')
    mkdirSync(join(webDir, 'assets'), { recursive: true })
    writeFileSync(join(webDir, 'index.html'), '<title>Wild Spring</title>')
    writeFileSync(join(webDir, 'assets', 'a-123.js'), 'export {}')
    const logged: unknown[] = []
    const app = buildApp({
      store: t.store,
      events: new EventBus(),
      ingest,
      loggers: [],
      incomingDir: t.incomingDir,
      webDir,
      now: () => '2031-05-02T12:00:00.000Z',
      log: { error: (_, cause) => logged.push(cause) },
      version: 'test',
      door: doorFrom('127.0.0.1', '', false),
      setupCode: '',
      keeper: t.keeper,
      porter: t.porter,
      follower: null,
      putBack: () => Promise.reject(new Error('unused')),
    })
    return { t, app, logged }
  }
  it('every address that is no file is the page, for its screens have addresses', async () => {
    const { t, app } = await withPage()
    for (const path of ['/', '/garage', `/days/${uuid()}/compare`])
      expect(await (await app.request(path)).text()).toContain('Wild Spring')
    await t.store.close()
  })
  it('a part of the page that is gone is not there, and never kept as one', async () => {
    const { t, app } = await withPage()
    for (const path of ['/assets/a-of-before.js', '/assets/gone.css', '/gone.js', '/pictures/gone.png']) {
      const answer = await app.request(path)
      expect(answer.status, path).toBe(404)
      expect(answer.headers.get('cache-control'), path).toBe('no-cache')
      expect(answer.headers.get('content-type'), path).not.toContain('html')
    }
    await t.store.close()
  })
  it('hashed files may be kept for good, the page itself not', async () => {
    const { t, app } = await withPage()
    expect((await app.request('/assets/a-123.js')).headers.get('cache-control')).toContain('immutable')
    expect((await app.request('/')).headers.get('cache-control')).toBe('no-cache')
    await t.store.close()
  })
  it('nothing outside the folder is served', async () => {
    const { t, app } = await withPage()
    const text = await (await app.request('/..%2f..%2fetc%2fpasswd')).text()
    expect(text).not.toContain('root:')
    await t.store.close()
  })
  it('a fault of ours is told without its inside, and logged whole', async () => {
    const { t, app, logged } = await withPage()
    const s = await startStory(t)
    const upload = makeUpload(s.run.id)
    await app.request(`/api/v1/uploads/${upload.uploadId}`, { method: 'PUT', body: makeFile(50) })
    const response = await app.request(`/api/v1/recordings/${uuid()}`, {
      method: 'PUT',
      body: JSON.stringify(upload),
    })
    expect(response.status).toBe(500)
    const problem = await response.json()
    expect(problem).toMatchObject({ code: 'internal' })
    expect(JSON.stringify(problem)).not.toContain('unused')
    expect(String(logged[0])).toContain('unused')
    expect(readdirSync(t.incomingDir)).toEqual([])
    await t.store.close()
  })
})

describe('errors', () => {
  it('the core’s own refusal of a file becomes a problem with the core’s sentence', async () => {
    const t = await startApp()
    const s = await startStory(t)
    const upload = makeUpload(s.run.id)
    const noTravel = {
      ...upload,
      mapping: { ...upload.mapping, columns: upload.mapping.columns.slice(0, 1) },
    }
    const r = await importFile(t, uuid(), noTravel, makeFile(50))
    expect(r.body).toMatchObject({
      code: 'mapping.no-travel',
      status: 422,
      detail: new InputError('mapping.no-travel').message,
    })
    await t.store.close()
  })
  it('a body over the limit is refused', async () => {
    const t = await startApp()
    const rider = makeRider({ note: 'x'.repeat(1_100_000) })
    expect((await t.put(`/riders/${rider.id}`, rider)).body).toMatchObject({ code: 'request.too-large' })
    await t.store.close()
  })
  it('address and body must name one record', async () => {
    const t = await startApp()
    expect((await t.put(`/riders/${uuid()}`, makeRider())).body).toMatchObject({ path: 'id' })
    await t.store.close()
  })
  it('a run cannot stand on a setup of another bike, a day not begin with one', async () => {
    const t = await startApp()
    const a = await startStory(t)
    const b = await startStory(t)
    const run = makeRun(a.day, b.setup.id)
    expect((await t.put(`/runs/${run.id}`, run)).body).toMatchObject({
      code: 'reference.missing',
      path: 'setupId',
    })
    expect(
      (await t.put(`/days/${a.day.id}`, { ...a.day, version: 1, startSetupId: b.setup.id })).body,
    ).toMatchObject({ path: 'startSetupId' })
    await t.store.close()
  })
})
