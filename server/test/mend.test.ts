import { join } from 'node:path'
import { v7 as uuid } from 'uuid'
import { getTableColumns, getTableName, is } from 'drizzle-orm'
import { SQLiteTable } from 'drizzle-orm/sqlite-core'
import { describe, expect, it } from 'vitest'
import { DataState } from '#contract/data'
import { DayBundle, Garage } from '#contract/endpoints'
import * as schema from '../db/schema.ts'
import { documentTables } from '../safekeeping/documents.ts'
import { mendRecords } from '../safekeeping/mend.ts'
import { startApp, type TestApp } from './harness.ts'
import { importFile, makeFeel, makeFile, makeRun, makeUpload, startStory } from './story.ts'

const at = '2031-05-02T18:00:00.000Z'

/** Puts bytes in the place of a document, as a worn disk would. */
async function spoil(t: TestApp, table: string, id: string, how: (body: Buffer) => Buffer, key = 'id') {
  const sql = `SELECT CAST(body AS BLOB) AS body FROM ${table} WHERE ${key} = ?`
  const [row] = (await t.store.client.execute({ sql, args: [id] })).rows
  const hex = how(Buffer.from(row.body as ArrayBuffer)).toString('hex')
  await t.store.client.execute({
    sql: `UPDATE ${table} SET body = CAST(x'${hex}' AS TEXT) WHERE ${key} = ?`,
    args: [id],
  })
}
const badByteIn = (word: string) => (body: Buffer) => {
  const i = body.indexOf(word)
  expect(i).toBeGreaterThan(0)
  body[i] = 0xff
  return body
}
const cut = (body: Buffer) => body.subarray(0, body.length >> 1)
const state = async (t: TestApp) => DataState.parse((await t.get('/data')).body)

async function world() {
  const t = await startApp()
  const s = await startStory(t)
  const feel = makeFeel(s.run.id, { note: 'as it was' })
  expect((await t.put(`/runs/${s.run.id}/feel`, feel)).status).toBe(200)
  const copy = async () => {
    const { name, at: made } = (await t.send('PUT', '/data/copy')).body as { name: string; at: string }
    return { path: join(t.dir, 'copies', name), at: made }
  }
  return { t, ...s, feel, copy }
}

describe('a record that cannot be read any more', () => {
  it('the list of documents is that of the tables', () => {
    const withBody = Object.values(schema)
      .filter((x) => is(x, SQLiteTable))
      .filter((x) => 'body' in getTableColumns(x))
      .map((x) => getTableName(x))
    expect(documentTables.map((d) => d.table).sort()).toEqual(withBody.sort())
  })
  it('whole records are left alone', async () => {
    const { t } = await world()
    expect(await mendRecords(t.store, [], at)).toBe(0)
    expect((await state(t)).damaged).toEqual([])
    await t.store.close()
  })
  it('a byte that is no letter is marked in its place, and costs that letter', async () => {
    const { t, rider } = await world()
    await spoil(t, 'riders', rider.id, badByteIn(rider.name.slice(1)))
    expect(await mendRecords(t.store, [], at)).toBe(1)
    const { riders } = Garage.parse((await t.get('/garage')).body)
    expect(riders[0].name).toBe(`${rider.name[0]}\ufffd${rider.name.slice(2)}`)
    expect((await state(t)).damaged).toMatchObject([{ kind: 'riders', id: rider.id, became: 'marked' }])
    await t.store.close()
  })
  it('what is cut off comes from the newest safe copy that has it whole', async () => {
    const { t, rider, copy } = await world()
    const older = await copy()
    const held = Garage.parse((await t.get('/garage')).body).riders[0]
    const changed = (await t.put(`/riders/${rider.id}`, { ...held, bodyMassKg: 91 })).body as {
      version: number
    }
    const newer = await copy()
    await spoil(t, 'riders', rider.id, cut)
    expect(await mendRecords(t.store, [newer, older], at)).toBe(1)
    const [after] = Garage.parse((await t.get('/garage')).body).riders
    expect(after).toMatchObject({ bodyMassKg: 91, version: changed.version + 1 })
    expect((await state(t)).damaged).toMatchObject([{ became: 'from-copy', copiedAt: newer.at }])
    // A device that holds what was lost is asked, and does not write over it.
    expect(
      (await t.put(`/riders/${rider.id}`, { ...after, version: changed.version, note: 'x' })).status,
    ).toBe(409)
    expect((await t.put(`/riders/${rider.id}`, { ...after, note: 'x' })).status).toBe(200)
    await t.store.close()
  })
  it('without a copy: feel is left out, a run is void, a setup is unread, a recording out of sight; the day opens', async () => {
    const { t, day, run, setup, trail } = await world()
    const id = uuid()
    await importFile(t, id, makeUpload(run.id), makeFile())
    const second = makeRun(day, setup.id)
    await t.put(`/runs/${second.id}`, second)
    await spoil(t, 'feels', run.id, cut, 'run_id')
    await spoil(t, 'runs', run.id, cut)
    await spoil(t, 'setups', setup.id, cut)
    await spoil(t, 'recordings', id, cut)
    expect(await mendRecords(t.store, [], at)).toBe(4)
    const bundle = DayBundle.parse((await t.get(`/days/${day.id}`)).body)
    expect(bundle.feels).toEqual([])
    expect(bundle.recordings).toEqual([])
    expect(bundle.runs.find((r) => r.id === run.id)).toMatchObject({ kind: 'void', durationS: null })
    expect(bundle.runs.find((r) => r.id === second.id)).toMatchObject({ kind: second.kind })
    expect(bundle.setups).toMatchObject([{ id: setup.id, positions: [] }])
    expect(bundle.trail.name).toBe(trail.name)
    expect((await t.get('/garage')).status).toBe(200)
    expect((await t.get('/shelf')).status).toBe(200)
    expect((await state(t)).damaged.map((d) => d.became).sort()).toEqual([
      'emptied',
      'emptied',
      'emptied',
      'left-out',
    ])
    // Mended is mended.
    expect(await mendRecords(t.store, [], at)).toBe(0)
    await t.store.close()
  })
  it('one that others stand on, and that is nowhere else, is said before anything is served', async () => {
    const { t, bike } = await world()
    await spoil(t, 'bikes', bike.id, cut)
    await expect(mendRecords(t.store, [], at)).rejects.toThrow(/others stand on it.*npm run restore/)
    await t.store.close()
  })
  it('a whole table that does not fit is no damage of a disk: nothing is touched', async () => {
    const { t, day, setup } = await world()
    for (let i = 0; i < 6; i++) {
      const r = makeRun(day, setup.id)
      await t.put(`/runs/${r.id}`, r)
      await spoil(t, 'runs', r.id, cut)
    }
    await expect(mendRecords(t.store, [], at)).rejects.toThrow(/6 of 7 records in runs/)
    await t.store.close()
  })
  it('what lay there is kept byte by byte', async () => {
    const { t, run } = await world()
    let lay = Buffer.alloc(0)
    await spoil(t, 'feels', run.id, (b) => (lay = Buffer.from(cut(b))), 'run_id')
    await mendRecords(t.store, [], at)
    const [{ bytes }] = (await t.store.client.execute('SELECT bytes FROM damaged')).rows
    expect(Buffer.from(bytes as ArrayBuffer).equals(lay)).toBe(true)
    await t.store.close()
  })
})
