import { v7 as uuid } from 'uuid'
import { afterEach, beforeEach, describe, expect, it } from 'vitest'
import { DayBundle, Garage } from '#contract/endpoints'
import { errorCodes } from '#contract/errors'
import { inputSentences } from '#contract/inputCodes'
import { assertPragmas } from '../db/open.ts'
import { startApp, type TestApp } from './harness.ts'
import { makeFeel, makeRider, makeReason, makeRun, makeSetup, startStory } from './story.ts'

let t: TestApp
beforeEach(async () => void (t = await startApp()))
afterEach(() => t.store.close())

describe('the whole story over the wire', () => {
  it('is saved step by step and comes back as one day', async () => {
    const s = await startStory(t)
    expect(s.statuses).toEqual([200, 200, 200, 200, 200, 200, 200, 200])
    const day = DayBundle.parse((await t.get(`/days/${s.day.id}`)).body)
    expect(day.runs.map((r) => r.id)).toEqual([s.run.id])
    expect(day.setups.map((x) => x.id)).toEqual([s.setup.id])
    expect(day.bike.currentSetupId).toBe(s.setup.id)
    const garage = Garage.parse((await t.get('/garage')).body)
    expect(garage.currentSetups.map((x) => x.id)).toEqual([s.setup.id])
    expect((await t.get('/days')).body).toMatchObject([
      { id: s.day.id, runs: 1, countedRuns: 1, riderName: 'Ilka' },
    ])
  })
  it('neither the list of days nor a day carries a weight', async () => {
    const { day } = await startStory(t)
    expect(JSON.stringify((await t.get('/days')).body)).not.toMatch(/MassKg/)
    expect(JSON.stringify((await t.get(`/days/${day.id}`)).body)).not.toMatch(/MassKg/)
    expect(JSON.stringify((await t.get('/garage')).body)).toMatch(/"bodyMassKg":68/)
  })
  it('a day carries what the unit’s own chart says for its rider instead', async () => {
    const { day, front } = await startStory(t)
    const main = front.adjusters.find((a) => a.role === 'main-pressure')!
    const rows = [
      { at: 60, value: 60 },
      { at: 90, value: 90 },
    ]
    const chart = {
      id: crypto.randomUUID(),
      adjusterId: main.id,
      input: 'riding-mass-kg',
      source: 'leaflet',
      rows,
    }
    await t.put(`/units/${front.id}`, { ...front, version: 1, charts: [chart] })
    const { ownCharts } = DayBundle.parse((await t.get(`/days/${day.id}`)).body)
    expect(ownCharts).toEqual([{ unitId: front.id, psi: 73, source: 'leaflet' }])
  })
  it('a full disk is told as one, nothing is half-saved, and room makes it work again', async () => {
    const pages = Number((await t.store.client.execute('PRAGMA page_count')).rows[0][0])
    await t.store.client.execute(`PRAGMA max_page_count = ${pages}`)
    const riders = Array.from({ length: 12 }, () => makeRider({ note: 'x'.repeat(1900) }))
    const full = await Promise.all(riders.map((r) => t.put(`/riders/${r.id}`, r)))
    const refused = full.filter((r) => r.status === 507)
    expect(refused.length).toBeGreaterThan(0)
    expect(refused[0].body).toMatchObject({
      code: 'storage.full',
      detail: expect.stringMatching(/disk is full/),
    })
    const kept = Garage.parse((await t.get('/garage')).body).riders.length
    expect(kept).toBe(12 - refused.length)
    await t.store.client.execute('PRAGMA max_page_count = 1000000')
    const late = riders[full.indexOf(refused[0])]
    expect((await t.put(`/riders/${late.id}`, late)).status).toBe(200)
  })
})

describe('versions', () => {
  it('a stale save is refused with both versions, and nothing is overwritten', async () => {
    const rider = makeRider()
    await t.put(`/riders/${rider.id}`, rider)
    expect(
      (await t.put(`/riders/${rider.id}`, { ...rider, version: 1, name: 'First hand' })).body,
    ).toMatchObject({ version: 2 })
    const late = await t.put(`/riders/${rider.id}`, { ...rider, version: 1, name: 'Second hand' })
    expect(late.status).toBe(409)
    expect(late.body).toMatchObject({
      code: 'record.stale',
      current: { name: 'First hand' },
      sent: { name: 'Second hand' },
    })
    expect(Garage.parse((await t.get('/garage')).body).riders[0].name).toBe('First hand')
  })
  it('a save that is sent again is answered as if it were the first', async () => {
    const rider = makeRider()
    const first = await t.put(`/riders/${rider.id}`, rider)
    const again = await t.put(`/riders/${rider.id}`, rider)
    expect(again.status).toBe(200)
    expect(again.body).toEqual(first.body)
  })
  it('fifty saves at once: one wins each version, none is lost', async () => {
    const s = await startStory(t)
    const made = Array.from({ length: 50 }, (_, i) =>
      makeRun(s.day, s.setup.id, { startedAt: `2031-05-02T10:${String(i).padStart(2, '0')}:00.000Z` }),
    )
    const saved = await Promise.all(made.map((r) => t.put(`/runs/${r.id}`, r)))
    expect(saved.every((r) => r.status === 200)).toBe(true)
    const rival = await Promise.all(
      made
        .slice(0, 10)
        .map((_, i) => t.put(`/riders/${s.rider.id}`, { ...s.rider, version: 1, name: `Hand ${i}` })),
    )
    expect(rival.filter((r) => r.status === 200)).toHaveLength(1)
    expect(rival.filter((r) => r.status === 409)).toHaveLength(9)
    expect(DayBundle.parse((await t.get(`/days/${s.day.id}`)).body).runs).toHaveLength(51)
    await assertPragmas(t.store.client)
  })
  it('of what is written together, one that refers to nothing is refused, and costs the others nothing', async () => {
    const s = await startStory(t)
    const other = await startStory(t)
    const run = () => makeRun(s.day, s.setup.id, { note: `it's "odd" {"a":1} \\u0000 \u0000 – 8 °C, 尾` })
    const [first, last] = [run(), run()]
    const ofNoDay = { ...run(), dayId: uuid() }
    const ofAnotherBike = { ...run(), setupId: other.setup.id }
    const sent = [first, ofNoDay, s.run, ofAnotherBike, last]
    const answers = await Promise.all(sent.map((r) => t.put(`/runs/${r.id}`, { ...r, version: 0 })))
    expect(answers.map((a) => a.status)).toEqual([200, 422, 200, 422, 200])
    expect(answers[1].body).toMatchObject({
      path: 'dayId',
      detail: expect.stringMatching(/day .* not saved/),
    })
    expect(answers[3].body).toMatchObject({ path: 'setupId', detail: expect.stringMatching(/not kept/) })
    const kept = DayBundle.parse((await t.get(`/days/${s.day.id}`)).body).runs
    expect(kept.map((r) => r.id).sort()).toEqual([first.id, s.run.id, last.id].sort())
    expect(kept.find((r) => r.id === last.id)).toEqual({ ...last, version: 1 })
    expect(DayBundle.parse((await t.get(`/days/${other.day.id}`)).body).runs).toHaveLength(1)
  })
  it('two that make one run at once are told of each other; what one of them wrote is kept whole', async () => {
    const s = await startStory(t)
    const run = makeRun(s.day, s.setup.id)
    const [mine, theirs] = [
      { ...run, note: 'mine' },
      { ...run, note: 'theirs' },
    ]
    const answers = await Promise.all([mine, theirs, mine].map((r) => t.put(`/runs/${run.id}`, r)))
    expect(answers.map((a) => a.status)).toEqual([200, 409, 200])
    expect(answers[1].body).toMatchObject({ code: 'record.stale', current: { note: 'mine', version: 1 } })
    expect(answers[2].body).toEqual(answers[0].body)
  })
  it('what was felt on a run that is only being saved finds it, whoever else is saving', async () => {
    const s = await startStory(t)
    const made = Array.from({ length: 20 }, () => makeRun(s.day, s.setup.id))
    const answers = await Promise.all([
      t.put(`/runs/${s.run.id}/feel`, makeFeel(s.run.id, { rating: 4 })),
      ...made.flatMap((r, i) => [
        t.put(`/runs/${r.id}`, r),
        t.put(`/runs/${r.id}/feel`, makeFeel(r.id, { rating: (i % 9) + 1 })),
      ]),
    ])
    expect(answers.map((a) => a.status)).toEqual(answers.map(() => 200))
    const { feels } = DayBundle.parse((await t.get(`/days/${s.day.id}`)).body)
    expect(made.map((r) => feels.find((f) => f.runId === r.id)?.rating)).toEqual(
      made.map((_, i) => (i % 9) + 1),
    )
    const ofNoRun = makeFeel(uuid())
    expect((await t.put(`/runs/${ofNoRun.runId}/feel`, ofNoRun)).body).toMatchObject({
      code: 'reference.missing',
      path: 'runId',
    })
  })
})

describe('setups', () => {
  it('are immutable', async () => {
    const s = await startStory(t)
    expect((await t.put(`/setups/${s.setup.id}`, s.setup)).status).toBe(200)
    const changed = { ...s.setup, name: 'other' }
    expect((await t.put(`/setups/${s.setup.id}`, changed)).body).toMatchObject({ code: 'record.immutable' })
  })
  it('move the bike’s pointer; a bike form that was open does not turn it back', async () => {
    const s = await startStory(t)
    const next = makeSetup(s.bike, [s.front, s.rear], { parentId: s.setup.id, dayId: s.day.id })
    next.positions[1].value = 7
    await t.put(`/setups/${next.id}`, next)
    const bike = await t.put(`/bikes/${s.bike.id}`, {
      ...s.bike,
      version: 1,
      name: 'Renamed',
      currentSetupId: s.setup.id,
    })
    expect(bike.body).toMatchObject({ name: 'Renamed', currentSetupId: next.id })
  })
  it('refuse a position that the part cannot take, naming its range', async () => {
    const s = await startStory(t)
    const bad = makeSetup(s.bike, [s.front, s.rear])
    bad.positions[1].value = 13
    const r = await t.put(`/setups/${bad.id}`, bad)
    expect(r.status).toBe(422)
    expect(r.body).toMatchObject({
      code: 'setup.out-of-range',
      detail: expect.stringMatching(/from 0 clicks to 12 clicks/),
    })
  })
  it('refuse two adjusters at once unless they are linked', async () => {
    const s = await startStory(t)
    const two = makeSetup(s.bike, [s.front, s.rear], {
      parentId: s.setup.id,
      reason: makeReason('own-idea', { text: '', linked: false }),
    })
    two.positions[1].value = 7
    two.positions[3].value = 7
    expect((await t.put(`/setups/${two.id}`, two)).body).toMatchObject({ code: 'setup.not-linked' })
    expect(
      (await t.put(`/setups/${two.id}`, { ...two, reason: { ...two.reason, linked: true } })).status,
    ).toBe(200)
  })
})

describe('what does not fit is refused with one sentence and the field', () => {
  it.each([
    ['a negative kit weight', { kitMassKg: -1 }, 'kitMassKg', /cannot be negative/],
    ['an unknown key', { shoeSize: 44 }, undefined, /shoeSize/],
    ['no name', { name: '  ' }, 'name', /Give it a name/],
  ])('%s', async (_, over, path, sentence) => {
    const rider = { ...makeRider(), ...over }
    const r = await t.put(`/riders/${rider.id}`, rider)
    expect(r.status).toBe(422)
    expect(r.headers.get('content-type')).toContain('application/problem+json')
    expect(r.body).toMatchObject({
      code: 'request.invalid',
      detail: expect.stringMatching(sentence),
      ...(path ? { path } : {}),
    })
  })
  it('a ring reading longer than the stroke', async () => {
    const s = await startStory(t)
    const run = makeRun(s.day, s.setup.id, { ringRearMm: 58 })
    expect((await t.put(`/runs/${run.id}`, run)).body).toMatchObject({
      path: 'ringRearMm',
      detail: expect.stringMatching(/longer than the 55 mm/),
    })
  })
  it('a void run without a reason', async () => {
    const s = await startStory(t)
    const run = makeRun(s.day, s.setup.id, { kind: 'void' })
    expect((await t.put(`/runs/${run.id}`, run)).body).toMatchObject({ path: 'voidReason' })
  })
  it('a verdict against a run of another day, a word in a section that is not there', async () => {
    const s = await startStory(t)
    const feel = {
      runId: s.run.id,
      version: 0,
      rating: 6,
      marks: [],
      verdicts: [{ againstRunId: uuid(), value: 1 }],
      note: '',
    }
    expect((await t.put(`/runs/${s.run.id}/feel`, feel)).body).toMatchObject({
      code: 'reference.missing',
      path: 'verdicts',
    })
    const marks = [{ id: uuid(), word: 'kicks', sectionId: uuid(), end: 'rear', strength: 2 }]
    expect((await t.put(`/runs/${s.run.id}/feel`, { ...feel, verdicts: [], marks })).body).toMatchObject({
      path: 'marks',
    })
  })
  it('a rating of 6.3, a rear unit at the front, a body that is not JSON, an unknown address', async () => {
    const s = await startStory(t)
    const feel = { runId: s.run.id, version: 0, rating: 6.3, marks: [], verdicts: [], note: '' }
    expect((await t.put(`/runs/${s.run.id}/feel`, feel)).body).toMatchObject({
      detail: expect.stringMatching(/half steps/),
    })
    expect(
      (await t.put(`/bikes/${s.bike.id}`, { ...s.bike, version: 1, frontUnitId: s.rear.id })).body,
    ).toMatchObject({ path: 'frontUnitId' })
    expect((await t.put(`/riders/${s.rider.id}`, '{')).body).toMatchObject({ code: 'request.not-json' })
    expect((await t.get('/nowhere')).body).toMatchObject({ code: 'route.unknown' })
  })
  it('a day that is not there', async () => {
    expect(await t.get(`/days/${uuid()}`)).toMatchObject({ status: 404, body: { code: 'record.not-found' } })
  })
})

describe('putting away and bringing back', () => {
  it('a run leaves the day and returns', async () => {
    const s = await startStory(t)
    const runs = async () => DayBundle.parse((await t.get(`/days/${s.day.id}`)).body).runs.length
    await t.send('DELETE', `/runs/${s.run.id}`)
    expect(await runs()).toBe(0)
    await t.put(`/runs/${s.run.id}/restore`, undefined)
    expect(await runs()).toBe(1)
  })
  it('a rider that was put away still stands in the days that refer to it', async () => {
    const s = await startStory(t)
    await t.send('DELETE', `/riders/${s.rider.id}`)
    expect(Garage.parse((await t.get('/garage')).body).riders).toEqual([])
    expect(DayBundle.parse((await t.get(`/days/${s.day.id}`)).body).rider.name).toBe('Ilka')
  })
})

describe('the door', () => {
  it('is shut to other names and other pages', async () => {
    const rider = makeRider()
    expect((await t.send('GET', '/garage', undefined, { host: 'evil.example' })).status).toBe(403)
    expect(
      (
        await t.send('PUT', `/riders/${rider.id}`, rider, {
          host: '127.0.0.1:1',
          origin: 'http://evil.example',
        })
      ).body,
    ).toMatchObject({ code: 'request.wrong-origin' })
    expect(
      (
        await t.send('PUT', `/riders/${rider.id}`, rider, {
          host: '127.0.0.1:1',
          origin: 'http://127.0.0.1:1',
        })
      ).status,
    ).toBe(200)
  })
  it('sends a strict content policy', async () => {
    expect((await t.get('/health')).headers.get('content-security-policy')).toMatch(/default-src 'self'/)
  })
})

describe('text that is none', () => {
  it('half a letter is refused before it is kept, wherever it stands', async () => {
    const rider = { ...makeRider(), id: uuid() }
    for (const over of [{ name: 'A\ud800' }, { note: '\udc00 b' }]) {
      const answer = await t.put(`/riders/${rider.id}`, { ...rider, ...over })
      expect(answer).toMatchObject({ status: 422, body: { code: 'request.invalid' } })
    }
    // A whole one of two halves is a letter.
    expect((await t.put(`/riders/${rider.id}`, { ...rider, name: 'Ræt \ud83d\udeb2' })).status).toBe(200)
  })
  it('what is nested without end is no reason to fall over', async () => {
    const deep = '['.repeat(50_000) + ']'.repeat(50_000)
    const answer = await t.send('PUT', `/riders/${uuid()}`, deep)
    expect(answer.status).toBeGreaterThanOrEqual(400)
    expect(answer.status).toBeLessThan(500)
  })
})

describe('the OpenAPI document', () => {
  it('names every endpoint of the contract and the codes', async () => {
    const doc = (await t.get('/openapi.json')).body as {
      paths: Record<string, Record<string, { operationId: string }>>
      info: { description: string }
    }
    const ids = Object.values(doc.paths).flatMap((p) => Object.values(p).map((o) => o.operationId))
    expect(new Set(ids).size).toBe(ids.length)
    // Held against what the application really answers, both ways.
    const mounted = t.app.routes
      .filter((r) => r.path.startsWith('/api/v1/') && r.path !== '/api/v1/*')
      .flatMap((r) =>
        (r.method === 'ALL' ? ['GET', 'PUT', 'POST', 'DELETE'] : [r.method]).map(
          (m) =>
            `${m} ${r.path
              .slice(7)
              .replace(/:(\w+)/g, '{$1}')
              .replace('*', '{rest}')}`,
        ),
      )
    const told = Object.entries(doc.paths).flatMap(([path, ways]) =>
      Object.keys(ways).map((m) => `${m.toUpperCase()} ${path}`),
    )
    expect([...new Set(mounted)].sort()).toEqual(told.sort())
    expect(mounted.length).toBeGreaterThan(60)
    for (const code of [...Object.keys(errorCodes), ...Object.keys(inputSentences)])
      expect(doc.info.description).toContain(code)
    const page = new TextDecoder().decode((await t.get('/docs')).body as ArrayBuffer)
    for (const path of Object.keys(doc.paths).slice(0, 20))
      expect(page).toContain(path.replace(/\{(\w+)\}/g, ':$1'))
  })
})
