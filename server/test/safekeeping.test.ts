import {
  copyFileSync,
  existsSync,
  mkdtempSync,
  readdirSync,
  readFileSync,
  statSync,
  truncateSync,
  writeFileSync,
} from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { v7 as uuid } from 'uuid'
import { describe, expect, it } from 'vitest'
import { DataState, SafeCopy } from '#contract/data'
import { connect } from '../db/connect.ts'
import { openStore } from '../db/open.ts'
import { checkData, copyData } from '../safekeeping/copyFile.ts'
import { lookFirst } from '../safekeeping/lookFirst.ts'
import { takeFolder } from '../safekeeping/onlyOne.ts'
import { putInPlace } from '../safekeeping/putInPlace.ts'
import { dump } from './dump.ts'
import { migrations, startApp, type TestApp } from './harness.ts'
import { importFile, makeFile, makeRider, makeRun, makeUpload, startStory } from './story.ts'

const folder = () => mkdtempSync(join(tmpdir(), 'safe keeping #1 '))
const dataFile = (t: TestApp) => join(t.dir, 'test.sqlite')
const names = async (t: TestApp) =>
  ((await t.get('/garage')).body as { riders: { name: string }[] }).riders.map((r) => r.name)
const rider = (t: TestApp, name: string) => {
  const r = { ...makeRider(), id: uuid(), name }
  return t.put(`/riders/${r.id}`, r)
}
describe('one process on one data file', () => {
  it('a second is refused in one sentence while the first lives, and not after', async () => {
    const dir = folder()
    const release = await takeFolder(dir)
    await expect(takeFolder(dir)).rejects.toThrow(/already runs on the data in .*WILD_SPRING_DATA\.$/)
    release()
    ;(await takeFolder(dir))()
  })
})

describe('the connection', () => {
  it('has its safety settings whichever way many readers come at once', async () => {
    const t = await startApp()
    const asked = Array.from({ length: 60 }, (_, i) =>
      t.store.client.execute(i % 2 ? 'PRAGMA synchronous' : 'PRAGMA foreign_keys'),
    )
    const told = (await Promise.all(asked)).map((r) => Number(r.rows[0][0]))
    expect(told).toEqual(asked.map(() => 1))
    await t.store.close()
  })
  it('a power cut in the middle of what nobody was told of takes nothing that was confirmed', async () => {
    const t = await startApp()
    for (const name of ['Ayo', 'Bente', 'Cilla']) await rider(t, name)
    const confirmed = statSync(`${dataFile(t)}-wal`).size
    await rider(t, 'Dagny')
    const [file, wal] = ['', '-wal'].map((part) => readFileSync(dataFile(t) + part))
    expect(wal.length).toBeGreaterThan(confirmed)
    for (const torn of [confirmed, confirmed + 100, wal.length - 1]) {
      const dir = folder()
      writeFileSync(join(dir, 'test.sqlite'), file)
      writeFileSync(
        join(dir, 'test.sqlite-wal'),
        Buffer.concat([wal.subarray(0, torn), Buffer.alloc(64, 0xa5)]),
      )
      const again = await startApp(dir)
      expect(await names(again), `torn at ${torn}`).toEqual(['Ayo', 'Bente', 'Cilla'])
      await again.store.close()
    }
    await t.store.close()
  })
  it('the data file is for whoever runs the server only, and what is beside it too', async () => {
    const t = await startApp()
    await startStory(t)
    for (const name of readdirSync(t.dir).filter((n) => n.startsWith('test.sqlite')))
      expect((statSync(join(t.dir, name)).mode & 0o077).toString(8), name).toBe('0')
    await t.store.close()
  })
  it('closed, the one file holds everything: copied alone it is the whole world', async () => {
    const t = await startApp()
    const { day } = await startStory(t)
    const before = await t.get(`/days/${day.id}`)
    await t.store.close()
    const elsewhere = folder()
    copyFileSync(dataFile(t), join(elsewhere, 'test.sqlite'))
    const again = await startApp(elsewhere)
    expect((await again.get(`/days/${day.id}`)).body).toEqual(before.body)
    await again.store.close()
  })
})

describe('before a data file is opened', () => {
  const look = (file: string, copies = 0) => lookFirst(file, migrations, copies)
  const made = async () => {
    const file = join(folder(), 'wild-spring.sqlite')
    await (await openStore(file, migrations)).close()
    return file
  }
  it('nothing there is a new beginning, unless something of it is left', async () => {
    const file = join(folder(), 'wild-spring.sqlite')
    expect(await look(file)).toBe('new')
    await expect(look(file, 3)).rejects.toThrow(/3 safe copies.*npm run restore.*--begin-empty/)
    writeFileSync(`${file}-wal`, 'newest entries')
    await expect(look(file)).rejects.toThrow(/its newest entries lie beside it/)
    expect(existsSync(file)).toBe(false)
  })
  it('a file of this version is opened', async () => expect(await look(await made())).toBe('current'))
  it('an older one is known as such', async () => {
    const file = await made()
    const client = connect(file)
    await client.execute(
      'DELETE FROM __drizzle_migrations WHERE created_at = (SELECT max(created_at) FROM __drizzle_migrations)',
    )
    client.close()
    expect(await look(file)).toBe('older')
  })
  it('cut off, empty, without tables, of another program, of a newer version: each is said', async () => {
    const empty = join(folder(), 'wild-spring.sqlite')
    writeFileSync(empty, '')
    await expect(look(empty)).rejects.toThrow(/is empty: .*npm run restore/)
    const text = join(folder(), 'wild-spring.sqlite')
    writeFileSync(text, 'a shopping list, and no database at all')
    await expect(look(text)).rejects.toThrow(/not a data file of Wild Spring/)
    const bare = join(folder(), 'wild-spring.sqlite')
    const blank = connect(bare)
    await blank.execute('PRAGMA user_version = 1')
    blank.close()
    await expect(look(bare)).rejects.toThrow(/holds no tables: .*-wal/)
    const other = join(folder(), 'wild-spring.sqlite')
    const theirs = connect(other)
    await theirs.execute('CREATE TABLE recipes (id)')
    theirs.close()
    await expect(look(other)).rejects.toThrow(/tables of another program/)
    const newer = await made()
    const future = connect(newer)
    await future.execute(
      "INSERT INTO __drizzle_migrations (hash, created_at) VALUES ('of tomorrow', 9999999999999)",
    )
    future.close()
    const bytes = readFileSync(newer)
    await expect(look(newer)).rejects.toThrow(/newer version/)
    // Looked at, and not touched.
    expect(readFileSync(newer).equals(bytes)).toBe(true)
  })
})

describe('safe copies', () => {
  it('hold every record of the moment, are checked, and bear when and why', async () => {
    const t = await startApp()
    const s = await startStory(t)
    await importFile(t, uuid(), makeUpload(s.run.id), makeFile())
    const copy = SafeCopy.parse((await t.send('PUT', '/data/copy')).body)
    expect(copy).toMatchObject({
      why: 'by-hand',
      counts: { riders: 1, bikes: 1, days: 1, runs: 1, recordings: 1 },
    })
    await rider(t, 'Came later')
    const state = DataState.parse((await t.get('/data')).body)
    expect(state.copies.map((c) => c.name)).toEqual([copy.name])
    expect(state).toMatchObject({ counts: { riders: 2 }, since: s.day.date, work: null, fault: null })
    const path = join(t.dir, 'copies', copy.name)
    const there = await dump(path)
    expect(there.riders).toHaveLength(1)
    await t.store.close()
    const now = await dump(dataFile(t))
    expect({ ...there, riders: [] }).toEqual({ ...now, riders: [] })
    expect((statSync(path).mode & 0o077).toString(8)).toBe('0')
  })
  it('while others write, each is a moment: no run without its day', async () => {
    const t = await startApp()
    const s = await startStory(t)
    let isDone = false
    const writing = (async () => {
      for (let i = 0; i < 60; i++) {
        const run = makeRun(s.day, s.setup.id)
        expect((await t.put(`/runs/${run.id}`, run)).status).toBe(200)
        await new Promise((r) => setTimeout(r, 2))
      }
      isDone = true
    })()
    const counts: number[] = []
    for (let i = 0; !isDone; i++) {
      const to = join(t.dir, `moment-${i}.sqlite`)
      counts.push((await copyData(dataFile(t), to, migrations)).runs)
      await new Promise((r) => setTimeout(r, 5))
    }
    await writing
    expect(counts).toEqual([...counts].sort((a, b) => a - b))
    // Some lay between the first and the last run.
    expect(
      counts.some((n) => n > 1 && n < 61),
      counts.join(),
    ).toBe(true)
    await t.store.close()
  })
  it('nothing is left of one that could not be made', async () => {
    const dir = folder()
    writeFileSync(join(dir, 'bad.sqlite'), 'no database '.repeat(500))
    await expect(copyData(join(dir, 'bad.sqlite'), join(dir, 'copy.sqlite'), migrations)).rejects.toThrow()
    expect(readdirSync(dir)).toEqual(['bad.sqlite'])
  })
  it('a wrecked page is found', async () => {
    const t = await startApp()
    await startStory(t)
    await t.store.close()
    const bytes = readFileSync(dataFile(t))
    // In the middle of each page past the first: what is there is used by something.
    for (let at = 4096 + 2000; at < bytes.length; at += 4096) bytes.fill(0xa5, at, at + 1500)
    const wrecked = join(t.dir, 'wrecked.sqlite')
    writeFileSync(wrecked, bytes)
    await expect(checkData(wrecked, migrations)).rejects.toThrow(/is damaged/)
  })
  it('are the owner’s: made when due, and not when nothing was written since', async () => {
    const t = await startApp()
    await startStory(t)
    await t.keeper.makeIfDue()
    expect(t.keeper.list()).toMatchObject([{ why: 'daily' }])
    await t.keeper.makeIfDue()
    expect(t.keeper.list()).toHaveLength(1)
    await t.store.close()
  })
  it('go on when the clock was ahead by years and is set right', async () => {
    const t = await startApp()
    await startStory(t)
    const years = 5 * 365 * 86_400_000
    t.skip(years)
    await t.keeper.makeIfDue()
    t.skip(-years)
    await rider(t, 'Came after')
    await t.keeper.makeIfDue()
    expect(t.keeper.list().map((c) => c.at.slice(0, 4))).toEqual(['2036', '2031'])
    await t.store.close()
  })
})

describe('a safe copy in the place of the data', () => {
  it('every record is as it was; what was there is set aside; the page that asked reads on', async () => {
    const t = await startApp()
    const s = await startStory(t)
    const before = await t.get(`/days/${s.day.id}`)
    const copy = SafeCopy.parse((await t.send('PUT', '/data/copy')).body)
    const asCopied = await dump(join(t.dir, 'copies', copy.name))
    await rider(t, 'Came later')
    const back = await t.send('PUT', `/data/copies/${copy.name}/back`)
    expect(back.status, JSON.stringify(back.body)).toBe(200)
    expect(await names(t)).not.toContain('Came later')
    expect((await t.get(`/days/${s.day.id}`)).body).toEqual(before.body)
    expect(
      t.keeper
        .list()
        .map((c) => c.why)
        .sort(),
    ).toEqual(['before-restore', 'by-hand'])
    const { setAside } = back.body as { setAside: string }
    await t.store.close()
    expect(await dump(dataFile(t))).toEqual(asCopied)
    expect((await dump(setAside)).riders.join()).toContain('Came later')
  })
  it('after the data was wrecked, by hand', async () => {
    const t = await startApp()
    await startStory(t)
    const copy = SafeCopy.parse((await t.send('PUT', '/data/copy')).body)
    const path = join(t.dir, 'copies', copy.name)
    const whole = await dump(path)
    await t.store.close()
    truncateSync(dataFile(t), 9000)
    await expect(openStore(dataFile(t), migrations)).rejects.toThrow()
    const { setAside, doorKept } = await putInPlace(path, dataFile(t), migrations, '2031-05-02T12:00:00.000Z')
    expect(doorKept).toBe(false)
    expect(statSync(setAside!).size).toBe(9000)
    expect(await dump(dataFile(t))).toEqual(whole)
  })
  it('one that is wrecked, or that nobody made, changes nothing', async () => {
    const t = await startApp()
    await startStory(t)
    const copy = SafeCopy.parse((await t.send('PUT', '/data/copy')).body)
    await rider(t, 'Came later')
    truncateSync(join(t.dir, 'copies', copy.name), 20_000)
    const refused = await t.send('PUT', `/data/copies/${copy.name}/back`)
    expect(refused).toMatchObject({ status: 409, body: { code: 'copy.unsound' } })
    expect(await names(t)).toContain('Came later')
    const unknown = copy.name.replace('by-hand', 'daily')
    expect((await t.send('PUT', `/data/copies/${unknown}/back`)).status).toBe(404)
    for (const name of ['..%2Ftest.sqlite', 'test.sqlite', '%2Fetc%2Fpasswd'])
      expect((await t.send('PUT', `/data/copies/${name}/back`)).status, name).toBe(422)
    expect(existsSync(`${dataFile(t)}.new`)).toBe(false)
    await t.store.close()
  })
  it('one whose bike nobody can read is refused, and the data of now goes on', async () => {
    const t = await startApp()
    const { bike } = await startStory(t)
    const copy = SafeCopy.parse((await t.send('PUT', '/data/copy')).body)
    const inside = connect(join(t.dir, 'copies', copy.name))
    await inside.execute({ sql: "UPDATE bikes SET body = '{' WHERE id = ?", args: [bike.id] })
    inside.close()
    await rider(t, 'Came later')
    const refused = await t.send('PUT', `/data/copies/${copy.name}/back`)
    expect(refused).toMatchObject({ status: 409, body: { code: 'copy.unsound' } })
    expect(await names(t)).toContain('Came later')
    await t.store.close()
  })
  it('passphrase and sign-ins stay those of now', async () => {
    const t = await startApp()
    await startStory(t)
    const copy = SafeCopy.parse((await t.send('PUT', '/data/copy')).body)
    await t.store.client.execute(
      "INSERT INTO locks VALUES (1, 'hash of now', 'code of now', '2031-05-02T12:00:00.000Z')",
    )
    const path = join(t.dir, 'copies', copy.name)
    await t.store.close()
    expect((await dump(path)).locks).toEqual([])
    const { doorKept } = await putInPlace(path, dataFile(t), migrations, '2031-05-02T12:00:00.000Z')
    expect(doorKept).toBe(true)
    expect((await dump(dataFile(t))).locks.join()).toContain('hash of now')
  })
  it('an older copy is lifted to the tables of now', async () => {
    const dir = folder()
    const { gunzipSync } = await import('node:zlib')
    const old = join(dir, 'old.sqlite')
    writeFileSync(
      old,
      gunzipSync(readFileSync(join(import.meta.dirname, 'fixtures', 'shape-0002.sqlite.gz'))),
    )
    const file = join(dir, 'wild-spring.sqlite')
    expect(await putInPlace(old, file, migrations, '2031-05-02T12:00:00.000Z')).toMatchObject({
      setAside: null,
    })
    expect(await lookFirst(file, migrations, 0)).toBe('current')
  })
})
