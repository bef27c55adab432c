import Papa from 'papaparse'
import { v7 as uuid } from 'uuid'
import { beforeEach, describe, expect, it } from 'vitest'
import { DayBundle } from '#contract/endpoints'
import { changeColumns } from '#core/plain/changes'
import { runColumns } from '#core/plain/runs'
import { setupColumns } from '#core/plain/setups'
import { setBy } from '#core/setup/known'
import { readFileSync } from 'node:fs'
import { join } from 'node:path'
import { startApp, type TestApp } from './harness.ts'
import { makeFeel, makeReason, makeRun, makeSetup, startStory } from './story.ts'

let t: TestApp
let s: Awaited<ReturnType<typeof startStory>>
beforeEach(async () => {
  t = await startApp()
  s = await startStory(t)
})
async function text(path: string): Promise<string> {
  const answer = await t.get(path)
  expect(answer.status, path).toBe(200)
  // The mark is part of the file; a decoder would eat it.
  return new TextDecoder('utf-8', { ignoreBOM: true }).decode(answer.body as ArrayBuffer)
}
/** Read as a spreadsheet or a script would. */
async function table(path: string): Promise<Record<string, string>[]> {
  const csv = await text(path)
  expect(csv.startsWith('\uFEFF')).toBe(true)
  const { data, errors } = Papa.parse<Record<string, string>>(csv.slice(1), {
    header: true,
    skipEmptyLines: true,
  })
  expect(errors).toEqual([])
  return data
}
/** A second setup of the day: rear rebound from 6 to 8, front pressure not read any more. */
async function change(over: Parameters<typeof makeSetup>[2] = {}) {
  const [air, rebound] = s.rear.adjusters
  const setup = makeSetup(s.bike, [s.front, s.rear], {
    parentId: s.setup.id,
    dayId: s.day.id,
    madeAt: '2031-05-02T09:10:00.000Z',
    reason: makeReason('own-idea', { text: 'Kicks, “really”; see note' }),
    positions: s.setup.positions.flatMap((p) =>
      p.adjusterId === rebound.id
        ? [{ ...p, value: 8, known: setBy({ at: '2031-05-02T09:10:00.000Z' }) }]
        : p.adjusterId === air.id
          ? [p]
          : [p],
    ),
    ...over,
  })
  expect((await t.put(`/setups/${setup.id}`, setup)).status).toBe(200)
  return setup
}

describe('runs as a plain file', () => {
  it('say what was ridden, on what, how it was; what nobody noted is empty', async () => {
    const setup = await change()
    const second = makeRun(s.day, setup.id, {
      startedAt: '2031-05-02T09:20:00.000Z',
      ringFrontMm: 128,
      tyreRearPsi: 24.5,
      note: 'zwölf "Wurzeln", nass\nund rutschig',
    })
    await t.put(`/runs/${second.id}`, second)
    await t.put(
      `/runs/${second.id}/feel`,
      makeFeel(second.id, {
        rating: 7.5,
        marks: [{ id: uuid(), word: 'kicks', sectionId: s.trail.sections[0].id, end: 'rear', strength: 3 }],
        verdicts: [{ againstRunId: s.run.id, value: 1 }],
      }),
    )
    const rows = await table(`/days/${s.day.id}/runs.csv`)
    expect(rows.map((r) => Object.keys(r))).toEqual([[...runColumns], [...runColumns]])
    expect(rows[0]).toMatchObject({ run: '1', rating: '', words: '', ring_front_mm: '', duration_s: '' })
    expect(rows[1]).toMatchObject({
      date: '2031-05-02',
      rider: 'Ilka',
      trail: 'Larch Bank',
      run: '2',
      rating: '7.5',
      words: 'kicks (rear, Roots, strong)',
      against: 'better than run 1',
      ring_front_mm: '128',
      ring_rear_mm: '',
      tyre_rear_psi: '24.5',
      air_temp_c: '14',
      surface: 'damp',
      note: second.note,
    })
    expect(rows[0].settings).toContain('rear Rebound 6 clicks from closed')
    expect(rows[1].settings).toContain('rear Rebound 8 clicks from closed')
    expect(rows[1].settings).toContain('front Pressure 80 psi')
  })

  it('a ground that nobody has noted is an empty cell', async () => {
    const { day } = DayBundle.parse((await t.get(`/days/${s.day.id}`)).body)
    const unsaid = { ...day, conditions: { ...day.conditions, surface: null } }
    expect((await t.put(`/days/${s.day.id}`, unsaid)).status).toBe(200)
    expect((await table(`/days/${s.day.id}/runs.csv`)).map((row) => row.surface)).toEqual([''])
  })
  it('a part that nobody has read says so, and an assumed one is not passed off as read', async () => {
    const [air, rebound] = s.front.adjusters
    const setup = await change({
      positions: s.setup.positions
        .filter((p) => p.adjusterId !== air.id)
        .map((p) =>
          p.adjusterId === rebound.id ? { ...p, known: { ...p.known, how: 'assumed' as const } } : p,
        ),
    })
    const run = makeRun(s.day, setup.id, { startedAt: '2031-05-02T09:30:00.000Z' })
    await t.put(`/runs/${run.id}`, run)
    const [, row] = await table(`/days/${s.day.id}/runs.csv`)
    expect(row.settings).toContain('front Pressure not read')
    expect(row.settings).toContain('front Rebound 6 clicks from closed (assumed)')
    const mine = (await table(`/bikes/${s.bike.id}/setups.csv`)).filter((r) => r.made_at === setup.madeAt)
    expect(mine.find((r) => r.end === 'front' && r.adjuster === 'Pressure')).toMatchObject({
      value: '',
      known: 'not read',
    })
    expect(mine.find((r) => r.end === 'front' && r.adjuster === 'Rebound')).toMatchObject({
      known: 'assumed',
    })
  })
})

describe('changes as a plain file', () => {
  it('have a row for every part that was turned, with from, to, unit and way, and the run they came before', async () => {
    const setup = await change()
    const run = makeRun(s.day, setup.id, { startedAt: '2031-05-02T09:20:00Z' })
    await t.put(`/runs/${run.id}`, run)
    const rows = await table(`/days/${s.day.id}/changes.csv`)
    expect(Object.keys(rows[0])).toEqual([...changeColumns])
    expect(rows).toHaveLength(1)
    expect(rows[0]).toMatchObject({
      change: '1',
      before_run: '2',
      end: 'rear',
      adjuster: 'Rebound',
      from: '6',
      to: '8',
      unit: 'clicks from closed',
      direction: 'faster',
      source: 'own-idea',
      why: 'Kicks, “really”; see note',
    })
  })
  it('stand before the run that was ridden on them, whatever the clocks of two devices say', async () => {
    const [, rebound] = s.rear.adjusters
    const late = await change({ madeAt: '2031-05-02T08:00:00.000Z' })
    const back = await change({
      parentId: late.id,
      madeAt: '2031-05-02T08:00:00.000Z',
      positions: late.positions.map((p) => (p.adjusterId === rebound.id ? { ...p, value: 7 } : p)),
    })
    for (const [setup, hour] of [
      [late, 10],
      [back, 11],
    ] as const) {
      const run = makeRun(s.day, setup.id, { startedAt: `2031-05-02T${hour}:00:00.000Z` })
      await t.put(`/runs/${run.id}`, run)
    }
    expect((await table(`/days/${s.day.id}/changes.csv`)).map((r) => [r.from, r.to, r.before_run])).toEqual([
      ['6', '8', '2'],
      ['8', '7', '3'],
    ])
  })
  it('a reading is none, and a day without any is its header', async () => {
    await change({ reason: makeReason('reading'), positions: s.setup.positions })
    expect(await table(`/days/${s.day.id}/changes.csv`)).toEqual([])
    expect(await text(`/days/${s.day.id}/changes.csv`)).toBe(`\uFEFF${changeColumns.join(',')}\r\n`)
  })
})

describe('everything as plain files', () => {
  it('holds every day and bike once, under one header, and nothing that was removed', async () => {
    await change()
    const other = await startStory(t)
    const gone = await startStory(t)
    await t.send('DELETE', `/days/${gone.day.id}`)
    const runs = await table('/data/runs.csv')
    expect(runs).toHaveLength(2)
    expect(await table('/data/changes.csv')).toHaveLength(1)
    const setups = await table('/data/setups.csv')
    expect(Object.keys(setups[0])).toEqual([...setupColumns])
    // Three bikes with four parts each, and one more setup of the first.
    expect(setups).toHaveLength(16)
    expect(setups.filter((r) => r.state === 'on the bike now')).toHaveLength(12)
    expect(other.statuses.every((x) => x === 200)).toBe(true)
  })

  it('lets no name or note become a formula', async () => {
    await t.put(`/riders/${s.rider.id}`, { ...s.rider, version: 1, name: '=HYPERLINK("x")' })
    await t.put(`/trails/${s.trail.id}`, { ...s.trail, version: 1, name: '+1 more', place: '@home' })
    for (const path of ['/data/runs.csv', `/days/${s.day.id}/runs.csv`]) {
      const [row] = await table(path)
      expect(row.rider).toBe(`'=HYPERLINK("x")`)
      expect(row.trail).toBe(`'+1 more`)
      expect(row.place).toBe(`'@home`)
    }
    expect((await table('/data/setups.csv'))[0].rider).toBe(`'=HYPERLINK("x")`)
  })

  it('holds no weight, by name or by number', async () => {
    await t.put(`/riders/${s.rider.id}`, { ...s.rider, version: 1, bodyMassKg: 61.37, kitMassKg: 4.93 })
    const all = [
      await text('/data/runs.csv'),
      await text('/data/changes.csv'),
      await text('/data/setups.csv'),
      JSON.stringify((await t.get(`/days/${s.day.id}/day.json`)).body),
    ].join('\n')
    for (const secret of ['61.37', '4.93', 'bodyMass', 'kitMass', 'ownCharts'])
      expect(all).not.toContain(secret)
  })

  it('a day as JSON is the day', async () => {
    const whole = (await t.get(`/days/${s.day.id}`)).body as Record<string, unknown>
    const file = (await t.get(`/days/${s.day.id}/day.json`)).body as Record<string, unknown>
    const { ownCharts: _byWeight, ...rest } = whole
    expect(file).toEqual({ format: 'wild-spring-day', version: 1, ...rest })
  })

  it('what is not there is said, and no page is made of it', async () => {
    for (const path of [
      `/days/${uuid()}/runs.csv`,
      `/days/${uuid()}/day.json`,
      `/bikes/${uuid()}/setups.csv`,
    ])
      expect((await t.get(path)).status, path).toBe(404)
    expect((await t.get('/days/x/runs.csv')).status).toBe(422)
  })

  it('has in the documents every column that it has', () => {
    const doc = readFileSync(join(import.meta.dirname, '..', '..', 'docs', 'file-formats.md'), 'utf8')
    for (const c of [...runColumns, ...changeColumns, ...setupColumns]) expect(doc, c).toContain(`\`${c}\``)
  })
})
