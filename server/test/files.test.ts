import { readdirSync, symlinkSync } from 'node:fs'
import { join } from 'node:path'
import { v7 as uuid } from 'uuid'
import { afterEach, beforeEach, describe, expect, it } from 'vitest'
import { Recording, type AddedFileUpload } from '#contract/recording'
import { writeGpx } from '#core/formats/gpx'
import { sniffLayout } from '#core/formats/layout'
import { suggestMapping } from '#core/telemetry/mapping'
import { startApp, type TestApp } from './harness.ts'
import { importFile, makeFile, makeUpload, startStory } from './story.ts'

let t: TestApp
beforeEach(async () => void (t = await startApp()))
afterEach(() => t.store.close())

const track = writeGpx(
  'way',
  Array.from({ length: 9 }, (_, i) => ({
    timeS: i,
    latitudeDeg: -47.5 + i * (i < 4 ? 2e-5 : 6e-5),
    longitudeDeg: -122,
    elevationM: 600,
  })),
  1_900_000_000,
)
const addFile = async (id: string, fileId: string, meta: AddedFileUpload, bytes: string) => {
  const uploadId = uuid()
  await t.send('PUT', `/uploads/${uploadId}`, bytes, { 'content-type': 'application/octet-stream' })
  return t.put(`/recordings/${id}/files/${fileId}`, { ...meta, uploadId })
}
const gpx: AddedFileUpload = {
  uploadId: uuid(),
  fileName: 'way.gpx',
  kind: 'gpx',
  mapping: null,
  offsetS: -1,
}

async function recorded() {
  const s = await startStory(t)
  const id = uuid()
  const r = Recording.parse((await importFile(t, id, makeUpload(s.run.id))).body)
  return { s, id, r }
}

describe('a further file on a recording', () => {
  it('places the sections by the way of a track, and comes back unchanged', async () => {
    const { id, r } = await recorded()
    expect(r.analysis!.sectionsBy).toBe('share-of-length')
    const fileId = uuid()
    const joined = Recording.parse((await addFile(id, fileId, gpx, track)).body)
    expect(joined.analysis!.sectionsBy).toBe('distance')
    expect(joined.addedFiles).toMatchObject([{ id: fileId, offsetS: -1, offsetBy: 'given', kind: 'gpx' }])
    // Slow first half: half of the way takes longer than half of the time.
    expect(joined.analysis!.sections[0].endS).toBeGreaterThan(r.analysis!.sections[0].endS)
    const back = (await t.get(`/recordings/${id}/files/${fileId}/original`)).body as ArrayBuffer
    expect(new TextDecoder().decode(back)).toBe(track)
    const first = (await t.get(`/recordings/${id}/original`)).body as ArrayBuffer
    expect(new TextDecoder().decode(first)).toBe(makeFile())
    expect(readdirSync(t.incomingDir)).toEqual([])
  })
  it('sent again changes nothing; taken off, all is as before', async () => {
    const { id, r } = await recorded()
    const fileId = uuid()
    const once = (await addFile(id, fileId, gpx, track)).body
    expect((await addFile(id, fileId, gpx, track)).body).toEqual(once)
    const after = Recording.parse((await t.send('DELETE', `/recordings/${id}/files/${fileId}`)).body)
    expect(after).toEqual(r)
    expect((await t.get(`/recordings/${id}/files/${fileId}/original`)).status).toBe(404)
    expect((await t.send('DELETE', `/recordings/${id}/files/${fileId}`)).status).toBe(404)
  })
  it.each([
    ['no track', '<gpx></gpx>', gpx, /no track/],
    ['not XML', 'hello', gpx, /cannot be read/],
    ['one far away in time', track, { ...gpx, offsetS: 9000 }, /do not overlap/],
    [
      'text without a mapping',
      makeFile(),
      { ...gpx, kind: 'delimited' as const, fileName: 'more.csv' },
      /what the columns of the file are/,
    ],
  ])('%s is refused, and the recording stays as it was', async (_, body, meta, sentence) => {
    const { id, r, s } = await recorded()
    const refused = await addFile(id, uuid(), meta, body)
    expect(refused.status).toBeGreaterThanOrEqual(400)
    expect((refused.body as { detail: string }).detail).toMatch(sentence)
    const day = (await t.get(`/days/${s.day.id}`)).body as { recordings: unknown[] }
    expect(day.recordings).toEqual([r])
    expect(readdirSync(t.incomingDir)).toEqual([])
  })
})

describe('sections placed by hand', () => {
  it('replace the guess, and an empty list brings it back', async () => {
    const { id, r, s } = await recorded()
    const [a, b] = s.trail.sections
    const spans = [
      { sectionId: a.id, startS: 0.5, endS: 1.5 },
      { sectionId: b.id, startS: 2, endS: 3.5 },
    ]
    const placed = Recording.parse((await t.put(`/recordings/${id}/spans`, { spans })).body)
    expect(placed.analysis!.sectionsBy).toBe('marks')
    expect(placed.analysis!.sections.map((x) => [x.startS, x.endS])).toEqual([
      [0.5, 1.5],
      [2, 3.5],
    ])
    expect(placed.spans).toEqual(spans)
    expect((await t.put(`/recordings/${id}/spans`, { spans: [] })).body).toEqual(r)
  })
  it('must end after they start, on a recording that is there', async () => {
    const { id, s } = await recorded()
    const spans = [{ sectionId: s.trail.sections[0].id, startS: 3, endS: 2 }]
    expect((await t.put(`/recordings/${id}/spans`, { spans })).body).toMatchObject({
      detail: expect.stringMatching(/must end after it starts/),
    })
    expect((await t.put(`/recordings/${uuid()}/spans`, { spans: [] })).status).toBe(404)
  })
})

describe('uploads that cannot be taken', () => {
  it('of two gigabytes are refused before a byte is read', async () => {
    const r = await t.send('PUT', `/uploads/${uuid()}`, 'x', {
      'content-length': String(2 * 1024 ** 3),
    })
    expect(r).toMatchObject({
      status: 413,
      body: { detail: expect.stringMatching(/at most 512 MB; split the recording/) },
    })
    expect(readdirSync(t.incomingDir)).toEqual([])
  })
  it('on a full disk say so, and leave nothing behind', async () => {
    const s = await startStory(t)
    const id = uuid()
    // Every write to this device fails with "no space left".
    const upload = makeUpload(s.run.id)
    symlinkSync('/dev/full', join(t.incomingDir, `${upload.uploadId}.part`))
    const r = await importFile(t, id, upload)
    expect(r).toMatchObject({
      status: 507,
      body: { code: 'storage.full', detail: expect.stringMatching(/disk is full/) },
    })
    expect(readdirSync(t.incomingDir)).toEqual([])
    const day = (await t.get(`/days/${s.day.id}`)).body as { recordings: unknown[] }
    expect(day.recordings).toEqual([])
  })
})

describe('what ride height means without a speed', () => {
  const remarks = (r: Recording) => r.issues.filter((i) => i.code.startsWith('speed-')).map((i) => i.code)
  it('is told, however the sections were placed, until a file brings the speed', async () => {
    const { id, r } = await recorded()
    expect(remarks(r)).toEqual(['speed-missing'])
    const [first] = r.analysis!.sections
    const marks = { spans: [{ sectionId: first.sectionId, startS: 0, endS: 2 }], lineS: null }
    const marked = Recording.parse((await t.put(`/recordings/${id}/spans`, marks)).body)
    expect(marked.analysis!.sectionsBy).toBe('marks')
    expect(remarks(marked)).toEqual(['speed-missing'])
    const fileId = uuid()
    expect(remarks(Recording.parse((await addFile(id, fileId, gpx, track)).body))).toEqual([])
    const after = Recording.parse((await t.send('DELETE', `/recordings/${id}/files/${fileId}`)).body)
    expect(remarks(after)).toEqual(['speed-missing'])
  })
  it('a distance alone is no speed, and a dead column is none', async () => {
    const s = await startStory(t)
    const of = async (header: string, cell: (i: number) => string) => {
      const rows = Array.from(
        { length: 3000 },
        (_, i) => `${i * 10},${(30 + 20 * Math.sin(i / 9)).toFixed(2)},${cell(i)}`,
      )
      const file = `${header}\n${rows.join('\n')}\n`
      const mapping = suggestMapping(sniffLayout(new TextEncoder().encode(file)))
      const r = await importFile(t, uuid(), makeUpload(s.run.id, { mapping }), file)
      return Recording.parse(r.body)
    }
    const metres = await of('time_ms,front_mm,distance_m', (i) => (0.04 * i).toFixed(2))
    expect(metres.analysis!.sectionsBy).toBe('distance')
    expect(remarks(metres)).toEqual(['speed-missing'])
    const dead = await of('time_ms,front_mm,speed_m/s', () => '0')
    expect(remarks(dead)).toEqual(['speed-dead', 'speed-missing'])
    expect(remarks(await of('time_ms,front_mm,speed_m/s', () => '5'))).toEqual([])
  })
  it('a track that begins late says for how much of the ride it is', async () => {
    const { id } = await recorded()
    const late = Recording.parse((await addFile(id, uuid(), { ...gpx, offsetS: 2 }, track)).body)
    expect(late.issues.find((i) => i.code === 'speed-gaps')?.message).toMatch(
      /known for [45]\d % of the ride/,
    )
  })
})
