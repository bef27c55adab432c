import { mkdtempSync, readFileSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { gunzipSync } from 'node:zlib'
import { v7 as uuid } from 'uuid'
import { afterEach, describe, expect, it } from 'vitest'
import type { DataState } from '#contract/data'
import { writeGpx } from '#core/formats/gpx'
import { startApp, type TestApp } from './harness.ts'
import { importFile, makeFile, makeRun, makeUpload, startStory } from './story.ts'

let t: TestApp
afterEach(() => t.store.close())

/** What a rider's device wrote all day long: it goes with every run. */
const track = writeGpx(
  'way of the day',
  Array.from({ length: 30 }, (_, i) => ({
    timeS: i,
    latitudeDeg: -47.5 + i * 4e-5,
    longitudeDeg: -122,
    elevationM: 600,
  })),
  1_900_000_000,
)
const room = async () => ((await t.get('/data')).body as DataState).room
const rowsOf = async (sql: string) => (await t.store.client.execute(sql)).rows.map((r) => Object.values(r))
const filesKept = () => rowsOf('SELECT sha256, count(*) FROM original_chunks GROUP BY sha256')
const text = async (path: string) => {
  const { status, body } = await t.get(path)
  return status === 200 ? new TextDecoder().decode(body as ArrayBuffer) : status
}

/** Three runs with a file each and one track on all of them. */
async function dayWithOneTrack() {
  t = await startApp()
  const s = await startStory(t)
  const made = []
  for (const [i, rows] of [2000, 2001, 2002].entries()) {
    const run = i === 0 ? s.run : makeRun(s.day, s.setup.id, { startedAt: `2031-05-02T1${i + 3}:00:00.000Z` })
    await t.put(`/runs/${run.id}`, run)
    const [id, fileId, uploadId] = [uuid(), uuid(), uuid()]
    expect((await importFile(t, id, makeUpload(run.id), makeFile(rows))).status).toBe(200)
    await t.send('PUT', `/uploads/${uploadId}`, track, { 'content-type': 'application/octet-stream' })
    const meta = { uploadId, fileName: 'way.gpx', kind: 'gpx', mapping: null, offsetS: -1 }
    expect((await t.put(`/recordings/${id}/files/${fileId}`, meta)).status).toBe(200)
    made.push({ id, fileId, runId: run.id, file: makeFile(rows) })
  }
  return made
}

describe('a file that is put on several runs', () => {
  it('is kept once, comes back from each, and goes with the last', async () => {
    const made = await dayWithOneTrack()
    expect(await filesKept()).toHaveLength(4)
    for (const m of made) {
      expect(await text(`/recordings/${m.id}/files/${m.fileId}/original`)).toBe(track)
      expect(await text(`/recordings/${m.id}/original`)).toBe(m.file)
    }
    const [one, two, three] = made
    await t.send('DELETE', `/recordings/${one.id}/files/${one.fileId}`)
    await t.send('DELETE', `/recordings/${two.id}/files/${two.fileId}`)
    expect(await text(`/recordings/${two.id}/files/${two.fileId}/original`)).toBe(404)
    expect(await text(`/recordings/${three.id}/files/${three.fileId}/original`)).toBe(track)
    expect(await filesKept()).toHaveLength(4)
    await t.send('DELETE', `/recordings/${three.id}/files/${three.fileId}`)
    expect(await filesKept()).toHaveLength(3)
    expect(await text(`/recordings/${one.id}/original`)).toBe(one.file)
  })
  it('is counted once, and told what that spares', async () => {
    await dayWithOneTrack()
    const { files, fileBytes, sparedBytes } = await room()
    const [[ofTrack]] = await rowsOf(
      `SELECT sum(length(bytes)) FROM original_chunks WHERE sha256 IN
         (SELECT sha256 FROM recording_originals GROUP BY sha256 HAVING count(*) = 3)`,
    )
    const [[all]] = await rowsOf('SELECT sum(length(bytes)) FROM original_chunks')
    expect({ files, fileBytes, sparedBytes }).toEqual({
      files: 4,
      fileBytes: all,
      sparedBytes: 2 * Number(ofTrack),
    })
  })
})

describe('room in the data file', () => {
  it('is given back by what was removed, and by nothing else', async () => {
    const [one, two, three] = await dayWithOneTrack()
    expect(await room()).toMatchObject({ removed: 0, removedBytes: 0 })
    await t.send('DELETE', `/recordings/${one.id}`)
    const byItself = await room()
    expect(byItself.removed).toBe(1)
    // The track stays with the others: it is no room that can be freed.
    await t.send('DELETE', `/runs/${two.runId}`)
    const { removed, removedBytes } = await room()
    expect(removed).toBe(2)
    expect(removedBytes).toBeGreaterThan(byItself.removedBytes)
    const [[pages]] = await rowsOf('PRAGMA page_count')
    const { status, body } = await t.put('/data/room', { removed: 2 })
    expect(status).toBe(200)
    expect((body as { freedBytes: number }).freedBytes).toBeGreaterThan(removedBytes * 0.5)
    expect(Number((await rowsOf('PRAGMA page_count'))[0][0])).toBeLessThan(Number(pages))
    expect(await room()).toMatchObject({ removed: 0, removedBytes: 0, emptyBytes: 0 })
    expect((await t.put(`/recordings/${one.id}/restore`, undefined)).status).toBe(404)
    expect((await t.put(`/runs/${two.runId}/restore`, undefined)).status).toBe(200)
    expect(await text(`/recordings/${three.id}/original`)).toBe(three.file)
    expect(await text(`/recordings/${three.id}/files/${three.fileId}/original`)).toBe(track)
    expect(await rowsOf('PRAGMA foreign_key_check')).toEqual([])
  })
  it('is not freed of more than the person was told of', async () => {
    const [one, two] = await dayWithOneTrack()
    await t.send('DELETE', `/recordings/${one.id}`)
    await t.send('DELETE', `/recordings/${two.id}`)
    const refused = await t.put('/data/room', { removed: 1 })
    expect(refused.status).toBe(422)
    expect(refused.body).toMatchObject({ code: 'request.invalid', path: 'removed' })
    expect((await t.put(`/recordings/${one.id}/restore`, undefined)).status).toBe(200)
    expect(await text(`/recordings/${one.id}/original`)).toBe(one.file)
  })
})

describe('a data file of shape 0010, which kept a file with each recording', () => {
  it('has each once after it was opened, and gives each back from where it was', async () => {
    const dir = mkdtempSync(join(tmpdir(), 'wild-spring-frozen-'))
    const frozen = readFileSync(join(import.meta.dirname, 'fixtures', 'shape-0010.sqlite.gz'))
    writeFileSync(join(dir, 'test.sqlite'), gunzipSync(frozen))
    t = await startApp(dir)
    const id = (n: number) => `0190c3a0-0000-7000-8000-00000000000${n}`
    expect(await text(`/recordings/${id(1)}/original`)).toBe(makeFile(10_000))
    expect(await text(`/recordings/${id(2)}/original`)).toBe(makeFile(10_000))
    const way = await text(`/recordings/${id(1)}/files/${id(7)}/original`)
    expect(way).toContain('<trkpt')
    expect(await text(`/recordings/${id(2)}/files/${id(8)}/original`)).toBe(way)
    expect(await filesKept()).toHaveLength(2)
    expect(await rowsOf("SELECT part FROM recording_chunks WHERE part LIKE 'original%'")).toEqual([])
    expect((await room()).sparedBytes).toBeGreaterThan(63_000)
  })
})
