import { readdirSync } from 'node:fs'
import { v7 as uuid } from 'uuid'
import { afterEach, beforeEach, describe, expect, it } from 'vitest'
import { DayBundle } from '#contract/endpoints'
import { Recording, type RiddenWay } from '#contract/recording'
import type { Trail } from '#contract/trail'
import { sniffLayout } from '#core/formats/layout'
import { suggestMapping } from '#core/telemetry/mapping'
import type { LiveEvent } from '../events.ts'
import { startApp, type TestApp } from './harness.ts'
import { importFile, makeFile, makeUpload, startStory } from './story.ts'

let t: TestApp
beforeEach(async () => void (t = await startApp()))
afterEach(() => t.store.close())

describe('importing a sensor file', () => {
  it('keeps the bytes, the channels and the analysis, and gives the bytes back unchanged', async () => {
    const s = await startStory(t)
    const file = makeFile()
    const id = uuid()
    const seen: LiveEvent[] = []
    t.events.on((e) => seen.push(e))
    const r = Recording.parse((await importFile(t, id, makeUpload(s.run.id), file)).body)
    expect(r).toMatchObject({ sampleRateHz: 500, samples: 2000, ends: ['front', 'rear'] })
    expect(r.analysis!.whole.front!.depthP50Pct).toBeCloseTo((30 / 150) * 100, 0)
    expect(new TextDecoder().decode((await t.get(`/recordings/${id}/original`)).body as ArrayBuffer)).toBe(
      file,
    )
    const channels = new Float32Array((await t.get(`/recordings/${id}/channels`)).body as ArrayBuffer)
    expect(channels).toHaveLength(4000)
    expect(channels[100]).toBeCloseTo(((30 + 20 * Math.sin(2.5)) / 150) * 100, 1)
    expect(seen.some((e) => e.type === 'ingest')).toBe(true)
    expect(seen.at(-1)).toEqual({ type: 'stale', what: 'day', id: s.day.id })
    expect(readdirSync(t.incomingDir)).toEqual([])
  })
  it('an upload that is sent again changes nothing', async () => {
    const s = await startStory(t)
    const id = uuid()
    const upload = makeUpload(s.run.id)
    const first = await importFile(t, id, upload)
    expect((await importFile(t, id, upload)).body).toEqual(first.body)
    // The answer was lost and the page asks again, without its bytes or with another id: still one recording.
    expect((await t.put(`/recordings/${id}`, upload)).body).toEqual(first.body)
    expect((await importFile(t, uuid(), makeUpload(s.run.id))).body).toEqual(first.body)
    expect(DayBundle.parse((await t.get(`/days/${s.day.id}`)).body).recordings).toHaveLength(1)
  })
  it('remembers the mapping for files with the same header', async () => {
    const s = await startStory(t)
    const upload = makeUpload(s.run.id)
    await importFile(t, uuid(), upload, makeFile())
    const fingerprint = Buffer.from(
      await crypto.subtle.digest('SHA-256', new TextEncoder().encode('time [ms];front [mm];rear [mm]')),
    ).toString('hex')
    expect((await t.get(`/mappings/${fingerprint}`)).body).toEqual({ fingerprint, mapping: upload.mapping })
    expect((await t.get(`/mappings/${'0'.repeat(64)}`)).body).toBeNull()
  })
  it.each([
    ['a binary file', () => String.fromCharCode(1, 2, 0, 3), 'file.binary'],
    ['an empty file', () => '', 'file.empty'],
    ['a header without rows', () => 'time [ms];front [mm];rear [mm]\n', 'file.header-only'],
    [
      'a dead channel',
      () => 'time;front;rear\n' + Array.from({ length: 50 }, (_, i) => `${i * 2};12;3`).join('\n'),
      'channel.constant',
    ],
  ])('%s is refused with one sentence and nothing is left behind', async (_, make, code) => {
    const s = await startStory(t)
    const r = await importFile(t, uuid(), makeUpload(s.run.id), make())
    expect(r.status).toBe(422)
    expect(r.body).toMatchObject({ code, status: 422 })
    expect(DayBundle.parse((await t.get(`/days/${s.day.id}`)).body).recordings).toEqual([])
    expect(readdirSync(t.incomingDir)).toEqual([])
  })
  it('a run that is not there, a description that does not fit, bytes that never came', async () => {
    expect((await importFile(t, uuid(), makeUpload(uuid()), makeFile())).body).toMatchObject({
      code: 'reference.missing',
    })
    const s = await startStory(t)
    const upload = makeUpload(s.run.id)
    expect((await t.put(`/recordings/${uuid()}`, { ...upload, mapping: null })).body).toMatchObject({
      path: 'mapping',
    })
    expect((await t.put(`/recordings/${uuid()}`, upload)).body).toMatchObject({ code: 'upload.missing' })
  })
  it('can be taken off the run and brought back', async () => {
    const s = await startStory(t)
    const id = uuid()
    await importFile(t, id, makeUpload(s.run.id), makeFile())
    const count = async () => DayBundle.parse((await t.get(`/days/${s.day.id}`)).body).recordings.length
    await t.send('DELETE', `/recordings/${id}`)
    expect(await count()).toBe(0)
    await t.put(`/recordings/${id}/restore`, undefined)
    expect(await count()).toBe(1)
  })
})

describe('taking it elsewhere', () => {
  const imported = async (file = makeFile(20_000)) => {
    const s = await startStory(t)
    const id = uuid()
    const recording = Recording.parse((await importFile(t, id, makeUpload(s.run.id), file)).body)
    return { s, id, recording }
  }
  const text = async (path: string) => {
    const { status, headers, body } = await t.get(path)
    expect(status).toBe(200)
    return { text: new TextDecoder().decode(body as ArrayBuffer), headers }
  }
  it('cleaned channels as CSV say what the channels say, row by row', async () => {
    const { s, id, recording } = await imported()
    const out = await text(`/recordings/${id}/channels.csv`)
    expect(out.headers.get('content-disposition')).toContain('run%201%20channels.csv')
    const lines = out.text.trimEnd().split('\r\n')
    const head = lines.findIndex((l) => !l.startsWith('#'))
    expect(lines.slice(0, head)).toEqual([
      `# front_depth_pct: 100 % is ${recording.fullTravelMm.front} mm`,
      `# rear_wheel_depth_pct: 100 % is ${Number(recording.fullTravelMm.rear!.toFixed(2))} mm`,
    ])
    expect(recording.fullTravelMm.front).toBe(s.front.strokeMm)
    expect(lines[head]).toMatch(/^time_s,front_depth_pct,rear_wheel_depth_pct/)
    expect(lines).toHaveLength(recording.samples + 1 + head)
    const channels = new Float32Array((await t.get(`/recordings/${id}/channels`)).body as ArrayBuffer)
    for (const i of [0, 1, 8191, 8192, 19_999]) {
      const [time, front, rear] = lines[head + i + 1].split(',').map(Number)
      expect(time).toBeCloseTo(i / 500, 6)
      expect(front).toBeCloseTo(channels[i], 3)
      expect(rear).toBeCloseTo(channels[recording.samples + i], 3)
    }
  })
  it('what was given out can be read in again', async () => {
    const { s, id, recording } = await imported()
    const { text: csv } = await text(`/recordings/${id}/channels.csv`)
    const again = uuid()
    const upload = makeUpload(s.run.id, {
      fileName: 'again.csv',
      // As it suggests itself: nobody has to say that the rear is the wheel.
      mapping: suggestMapping(sniffLayout(new TextEncoder().encode(csv))),
    })
    const copy = Recording.parse((await importFile(t, again, upload, csv)).body)
    expect(copy.sampleRateHz).toBeCloseTo(recording.sampleRateHz, 6)
    expect(copy.analysis!.whole.front!.rideHeightPct).toBeCloseTo(
      recording.analysis!.whole.front!.rideHeightPct,
      2,
    )
    expect(copy.analysis!.whole.rear!.rideHeightPct).toBeCloseTo(
      recording.analysis!.whole.rear!.rideHeightPct,
      2,
    )
    expect(copy.analysis!.rearAt).toBe('axle')
  })
  it('speed, distance and accelerations come along, and come back as they were', async () => {
    const s = await startStory(t)
    const rows = Array.from({ length: 4000 }, (_, i) => {
      const hit = Math.max(0, Math.sin(i / 40)) ** 4
      return [
        i * 5,
        (30 + 50 * hit).toFixed(2),
        (9 + Math.sin(i / 90)).toFixed(3),
        (i / 20).toFixed(2),
        (1 + hit).toFixed(3),
      ].join()
    })
    const file = `time_ms,front_mm,speed_m/s,distance_m,bar_acc_g\n${rows.join('\n')}\n`
    const mapping = suggestMapping(sniffLayout(new TextEncoder().encode(file)))
    const id = uuid()
    await importFile(t, id, makeUpload(s.run.id, { mapping }), file)
    const { text: csv } = await text(`/recordings/${id}/channels.csv`)
    const lines = csv
      .trimEnd()
      .split('\r\n')
      .filter((l) => !l.startsWith('#'))
    expect(lines[0]).toBe('time_s,front_depth_pct,speed_m/s,distance_m,bar_acceleration_g')
    for (const i of [0, 1, 777, 3999]) {
      const [, , speed, distance, bar] = lines[i + 1].split(',').map(Number)
      const asWritten = rows[i].split(',').map(Number)
      expect([speed, distance, bar]).toEqual(asWritten.slice(2))
    }
    const layout = sniffLayout(new TextEncoder().encode(csv))
    expect(layout.columns.map((c) => [c.role, c.unit])).toEqual([
      ['time', 's'],
      ['front-travel', 'pct'],
      ['speed', 'm/s'],
      ['distance', 'm'],
      ['bar-acceleration', 'g'],
    ])
  })
  it('metres ridden are given by time, and sections are laid anew when the trail is measured anew', async () => {
    const s = await startStory(t)
    // 4 m/s for 50 s, read ten times a second.
    const rows = Array.from(
      { length: 5000 },
      (_, i) => `${i * 10},${30 + 20 * Math.sin(i / 9)},${(0.04 * i).toFixed(2)}`,
    )
    const file = `time_ms,front_mm,distance_m\n${rows.join('\n')}\n`
    const mapping = suggestMapping(sniffLayout(new TextEncoder().encode(file)))
    const id = uuid()
    await importFile(t, id, makeUpload(s.run.id, { mapping }), file)
    const { stepS, wayM } = (await t.get(`/recordings/${id}/way`)).body as RiddenWay
    expect(stepS * (wayM.length - 1)).toBeCloseTo(49.5, 0)
    wayM.forEach((m, k) => expect(m).toBeCloseTo(4 * k * stepS, 1))

    const recorded = async () => {
      for (let i = 0; i < 200; i++) {
        const day = DayBundle.parse((await t.get(`/days/${s.day.id}`)).body)
        if (day.recordings[0].figures === 'current') return day
        await new Promise((r) => setTimeout(r, 25))
      }
      throw new Error('the figures were never made again')
    }
    const { trail, recordings } = await recorded()
    const spans = (a: Recording['analysis']) => a!.sections.map((x) => [x.startS, x.endS])
    const before = spans(recordings[0].analysis)
    const named = trail.sections.map((x) => ({ ...x, name: `${x.name} again` }))
    const renamed = (await t.put(`/trails/${trail.id}`, { ...trail, sections: named })).body as Trail
    // Another name moves nothing: the same figures, at once.
    expect(DayBundle.parse((await t.get(`/days/${s.day.id}`)).body).recordings[0]).toMatchObject({
      figures: 'current',
    })
    const longer = named.map((x, i) => (i === 0 ? { ...x, lengthM: 3 * x.lengthM! } : x))
    await t.put(`/trails/${trail.id}`, { ...renamed, sections: longer })
    const first = DayBundle.parse((await t.get(`/days/${s.day.id}`)).body)
    expect(first.recordings[0].figures).toBe('renewing')
    const after = spans((await recorded()).recordings[0].analysis)
    expect(after[0][1]).toBeGreaterThan(before[0][1] + 5)
  })
  it('a recording without distance or speed has no way', async () => {
    const s = await startStory(t)
    const id = uuid()
    await importFile(t, id, makeUpload(s.run.id), makeFile())
    expect((await t.get(`/recordings/${id}/way`)).body).toBeNull()
    expect((await t.get(`/recordings/${uuid()}/way`)).status).toBe(404)
  })
  it('a file that cannot be made out by itself is taken as it was said to be', async () => {
    const s = await startStory(t)
    // A column of words on both sides of few numbers: nothing in it looks like a table of numbers.
    const rows = Array.from(
      { length: 2000 },
      (_, i) =>
        `ab,cd,ef,gh,${i * 5},${(30 + 20 * Math.max(0, Math.sin(i / 40)) ** 4).toFixed(2)},ij,kl,mn,op`,
    )
    const file = `a,b,c,d,time,front,e,f,g,h\n${rows.join('\n')}\n`
    const bytes = new TextEncoder().encode(file)
    expect(() => sniffLayout(bytes)).toThrow()
    const said = { delimiter: ',' as const, decimal: '.' as const, firstRowLine: 2 }
    const mapping = {
      ...said,
      sampleRateHz: null,
      columns: [
        { column: 4, role: 'time' as const, unit: 'ms' as const, calibration: null },
        { column: 5, role: 'front-travel' as const, unit: 'mm' as const, calibration: null },
      ],
    }
    const { status, body } = await importFile(t, uuid(), makeUpload(s.run.id, { mapping }), file)
    expect(status).toBe(200)
    expect(Recording.parse(body).samples).toBe(2000)
  })
  it('figures as CSV and JSON are those of the analysis, sections by name', async () => {
    const { s, id, recording } = await imported()
    const rows = (await text(`/recordings/${id}/metrics.csv`)).text.trimEnd().split('\r\n')
    expect(rows[0]).toBe('section,start_s,end_s,end,metric,value')
    const whole = rows.find((r) => /^whole run,.*,front,rideHeightPct,/.test(r))!
    expect(Number(whole.split(',').at(-1))).toBe(recording.analysis!.whole.front!.rideHeightPct)
    for (const section of s.trail.sections)
      expect(rows.some((r) => r.startsWith(`${section.name},`))).toBe(true)
    const json = (await t.get(`/recordings/${id}/metrics.json`)).body
    expect(json.analysis).toEqual(recording.analysis)
    expect(json.sections).toEqual(s.trail.sections)
  })
  it('a name that looks like a formula is none to a spreadsheet', async () => {
    const s = await startStory(t)
    const names = ['=HYPERLINK("x")', '+1', '-2', '@SUM(A1)']
    const trail = (await t.get('/garage')).body as { trails: Trail[] }
    const sections = trail.trails[0].sections.map((x, i) => ({ ...x, name: names[i % names.length] }))
    expect((await t.put(`/trails/${trail.trails[0].id}`, { ...trail.trails[0], sections })).status).toBe(200)
    const id = uuid()
    await importFile(t, id, makeUpload(s.run.id), makeFile())
    const rows = (await text(`/recordings/${id}/metrics.csv`)).text.trimEnd().split('\r\n').slice(1)
    expect(rows.filter((r) => /^"?'[=+\-@]/.test(r)).length).toBeGreaterThan(10)
    expect(rows.filter((r) => /^"?[=+\-@]/.test(r))).toEqual([])
    // A negative number stays one.
    expect(rows.some((r) => /,-\d/.test(r))).toBe(true)
    expect(rows.some((r) => /'-?\d+(\.\d+)?$/.test(r))).toBe(false)
  })
  it('of a recording that is not there there is nothing', async () => {
    for (const ending of ['channels.csv', 'metrics.csv', 'metrics.json'])
      expect((await t.get(`/recordings/${uuid()}/${ending}`)).status).toBe(404)
  })
})
