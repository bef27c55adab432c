import { v7 as uuid } from 'uuid'
import { afterEach, beforeEach, describe, expect, it } from 'vitest'
import type { DayBundle } from '#contract/endpoints'
import { limits } from '#contract/limits'
import type { Recording } from '#contract/recording'
import { writeGpx } from '#core/formats/gpx'
import { seededRandom } from '#core/numeric/random'
import { startApp, type TestApp } from './harness.ts'
import { makeFile, makeRun, makeUpload, importFile, startStory } from './story.ts'

let t: TestApp
let s: Awaited<ReturnType<typeof startStory>>
beforeEach(async () => {
  t = await startApp()
  s = await startStory(t)
})
afterEach(() => t.store.close())
const day = () => t.get(`/days/${s.day.id}`)
const recordings = async () => ((await day()).body as DayBundle).recordings

const track = writeGpx(
  'way',
  Array.from({ length: 9 }, (_, i) => ({
    timeS: i,
    latitudeDeg: -47.5 + i * 4e-5,
    longitudeDeg: -122,
    elevationM: 600,
  })),
  1_900_000_000,
)

describe('recordings and each other', () => {
  it('two further files at once are both kept, and sections placed meanwhile too', async () => {
    const id = uuid()
    const upload = makeUpload(s.run.id)
    const [time, front, rear] = upload.mapping.columns
    const frontOnly = { ...upload.mapping, columns: [time, front, { ...rear, role: 'ignore' as const }] }
    await importFile(t, id, { ...upload, mapping: frontOnly })
    const [a, b] = [uuid(), uuid()]
    const send = (x: string, bytes: string) =>
      t.send('PUT', `/uploads/${x}`, bytes, { 'content-type': 'application/octet-stream' })
    await send(a, makeFile())
    await send(b, track)
    const spans = [{ sectionId: s.trail.sections[0].id, startS: 0.5, endS: 1.5 }]
    const rearOnly = { ...upload.mapping, columns: [time, { ...front, role: 'ignore' as const }, rear] }
    const added = { uploadId: a, fileName: 'rear.csv', kind: 'delimited', mapping: rearOnly, offsetS: 0 }
    const way = { uploadId: b, fileName: 'way.gpx', kind: 'gpx', mapping: null, offsetS: -1 }
    const done = await Promise.all([
      t.put(`/recordings/${id}/files/${a}`, added),
      t.put(`/recordings/${id}/files/${b}`, way),
      t.put(`/recordings/${id}/spans`, { spans }),
    ])
    expect(done.map((r) => [r.status, (r.body as { detail?: string }).detail])).toEqual([
      [200, undefined],
      [200, undefined],
      [200, undefined],
    ])
    const [held] = await recordings()
    expect(held.addedFiles.map((f) => f.id).sort()).toEqual([a, b].sort())
    expect(held.spans).toEqual(spans)
    expect(held.ends).toEqual(['front', 'rear'])
  })
  it('the same file said twice at once is one recording', async () => {
    const done = await Promise.all([
      importFile(t, uuid(), makeUpload(s.run.id)),
      importFile(t, uuid(), makeUpload(s.run.id)),
    ])
    expect(done.map((r) => r.status)).toEqual([200, 200])
    expect(await recordings()).toHaveLength(1)
  })
  it('the same file on another run is asked about, and can be meant', async () => {
    await importFile(t, uuid(), makeUpload(s.run.id))
    const second = makeRun(s.day, s.setup.id, { startedAt: '2031-05-02T10:00:00.000Z' })
    await t.put(`/runs/${second.id}`, second)
    const asked = await importFile(t, uuid(), makeUpload(second.id))
    expect(asked).toMatchObject({ status: 409, body: { code: 'recording.elsewhere', path: 'again' } })
    expect((await importFile(t, uuid(), makeUpload(second.id, { again: true }))).status).toBe(200)
    expect(await recordings()).toHaveLength(2)
  })
  it('200 columns fit into what is said of a file', async () => {
    const head = ['time', ...Array.from({ length: 199 }, (_, i) => `column number ${i} of the logger`)]
    const rows = Array.from({ length: 60 }, (_, i) =>
      [
        i * 2,
        ...Array.from({ length: 199 }, (_, k) => (k === 0 ? (30 + 10 * Math.sin(i / 5)).toFixed(2) : k)),
      ].join(';'),
    )
    const columns = head.map((_, column) => ({
      column,
      role: column === 0 ? ('time' as const) : column === 1 ? ('front-travel' as const) : ('ignore' as const),
      unit: column === 0 ? ('ms' as const) : column === 1 ? ('mm' as const) : ('none' as const),
      calibration: null,
    }))
    const upload = makeUpload(s.run.id, {
      mapping: { delimiter: ';', decimal: '.', sampleRateHz: null, columns },
    })
    expect((await importFile(t, uuid(), upload, [head.join(';'), ...rows].join('\n'))).status).toBe(200)
  })
})

describe('bounded', () => {
  const travel = (i: number) => (30 + 20 * Math.sin(i / 4)).toFixed(2)
  it.each([
    [
      'pauses that would make hours of samples out of a small file',
      Array.from(
        { length: 4000 },
        (_, i) => `${i % 2 === 0 ? i * 250_000 : i * 250_000 - 249_999};${travel(i)};${travel(i)}`,
      ),
      'file.samples',
    ],
    [
      'a clock that leaps at every other row',
      Array.from({ length: 20_000 }, (_, i) => `${(i >> 1) * 60 + (i % 2)};${travel(i)};${travel(i)}`),
      'file.gaps',
    ],
  ])('%s is refused in a sentence before memory is taken', async (_, rows, code) => {
    const before = process.memoryUsage().arrayBuffers
    const r = await importFile(
      t,
      uuid(),
      makeUpload(s.run.id),
      ['time [ms];front [mm];rear [mm]', ...rows].join('\n'),
    )
    expect(r).toMatchObject({ status: 422, body: { code } })
    expect(process.memoryUsage().arrayBuffers - before).toBeLessThan(200e6)
    expect(await recordings()).toEqual([])
  })
  it('a cell of megabytes, and more columns than anybody has', async () => {
    const long = `time;front;rear\n0;1;2\n2;${'9'.repeat(2_000_000)};2\n`
    expect((await importFile(t, uuid(), makeUpload(s.run.id), long)).body).toMatchObject({
      code: 'file.long-row',
    })
    const wide =
      Array.from({ length: 300 }, (_, i) => `c${i}`).join(';') +
      '\n' +
      Array.from({ length: 60 }, (_, r) =>
        Array.from({ length: 300 }, (_, i) => (i === 0 ? r * 2 : (r % 9) + i)).join(';'),
      ).join('\n')
    expect((await importFile(t, uuid(), makeUpload(s.run.id), wide)).body).toMatchObject({
      code: 'file.columns',
    })
  })
  it('limits are said in the sentence', async () => {
    const r = await importFile(
      t,
      uuid(),
      makeUpload(s.run.id),
      [
        'time [ms];front [mm];rear [mm]',
        ...Array.from(
          { length: 3000 },
          (_, i) => `${i % 2 === 0 ? i * 300_000 : i * 300_000 - 299_999};${travel(i)};${travel(i)}`,
        ),
      ].join('\n'),
    )
    expect((r.body as { detail: string }).detail).toContain(String(limits.fileSamples))
  })
})

describe('whatever a file holds', () => {
  const base = makeFile(400)
  /** One mutation of a good file, drawn as files break: cut, blown up, repeated, swapped, poisoned with odd cells. */
  function mutated(seed: number): string {
    const random = seededRandom(seed)
    const pick = <T>(list: readonly T[]): T => list[Math.floor(random() * list.length)]
    const lines = base.split('\r\n')
    const odd = [
      '',
      'NaN',
      'Inf',
      '-1e308',
      '1e308',
      '-999',
      '65535',
      '1e-320',
      '--',
      '12,5,5',
      '0x1f',
      '9'.repeat(40),
      '-0',
      '1e5',
    ]
    const n = 1 + Math.floor(random() * 6)
    for (let k = 0; k < n; k++) {
      const at = 1 + Math.floor(random() * (lines.length - 2))
      const cells = lines[at].split(';')
      const what = Math.floor(random() * 9)
      if (what === 0) cells[Math.floor(random() * 3)] = pick(odd)
      else if (what === 1) lines.splice(at, Math.floor(random() * 200))
      else if (what === 2)
        for (let i = at; i < Math.min(lines.length, at + 120); i++)
          lines[i] = lines[i].replace(/;[^;]*;/, `;${pick(odd)};`)
      else if (what === 3) lines.splice(at, 0, ...lines.slice(at, at + 50))
      else if (what === 4)
        for (let i = at; i < lines.length; i++)
          lines[i] = lines[i].replace(/^(\d+)/, (x) => String(Number(x) * 7))
      else if (what === 5) lines[at] = lines[at].replace(/;/g, pick([',', '\t', ';;']))
      else if (what === 6)
        for (let i = 1; i < lines.length; i++)
          lines[i] = lines[i].replace(/;([^;]*);/, (_, x) => `;${pick([x, '0', '150', '75,00'])};`)
      else if (what === 7)
        for (let i = at; i < lines.length; i++) lines[i] = lines[i].replace(/[^;]*$/, '12,00')
      else lines.length = Math.max(3, at)
      if (what === 0) lines[at] = cells.join(';')
    }
    return lines.join('\r\n')
  }
  const files = Number(process.env.MUTATED_FILES ?? 60)
  it('the day opens: mutated files are taken or refused, never kept unreadable', async () => {
    const codes = new Map<string, number>()
    for (let seed = 1; seed <= files; seed++) {
      const id = uuid()
      const r = await importFile(t, id, makeUpload(s.run.id, { fileName: `${seed}.csv` }), mutated(seed))
      const code = r.status === 200 ? 'taken' : (r.body as { code: string }).code
      codes.set(code, (codes.get(code) ?? 0) + 1)
      expect(r.status, `seed ${seed}: ${code}`).toBeLessThan(500)
      const opened = await day()
      expect(opened.status, `seed ${seed}`).toBe(200)
      if (r.status === 200) {
        for (const part of ['original', 'channels', 'channels.csv', 'metrics.csv', 'metrics.json'])
          expect(
            (await t.get(`/recordings/${(r.body as Recording).id}/${part}`)).status,
            `seed ${seed} ${part}`,
          ).toBe(200)
        await t.send('DELETE', `/recordings/${(r.body as Recording).id}`)
      }
    }
    // The draw has to reach both sides to mean anything.
    expect(codes.get('taken')).toBeGreaterThan(files / 5)
    expect(t.logged).toEqual([])
  }, 240_000)
})
