import { eq } from 'drizzle-orm'
import { v7 as uuid } from 'uuid'
import { afterEach, beforeEach, describe, expect, it } from 'vitest'
import { DayBundle } from '#contract/endpoints'
import { GivenPadLink, PadView, type PadReport } from '#contract/pad'
import { TentBundle } from '#contract/tent'
import { padReports } from '../db/schema.ts'
import { startApp, type TestApp } from './harness.ts'
import { makeRun, startStory } from './story.ts'

let t: TestApp
let s: Awaited<ReturnType<typeof startStory>>
let tentId: string
let token: string

beforeEach(async () => {
  t = await startApp()
  s = await startStory(t)
  tentId = uuid()
  const tent = {
    id: tentId,
    version: 0,
    name: 'Practice',
    date: s.day.date,
    trailId: s.trail.id,
    schedule: [],
    note: '',
  }
  await t.put(`/tents/${tentId}`, tent)
  await t.put(`/tent-riders/${s.day.id}`, {
    id: s.day.id,
    version: 0,
    tentId,
    number: 1,
    whereabouts: 'here',
    since: '2031-04-02T08:00:00.000Z',
    temper: 'reasons',
    named: false,
  })
  token = await newLink()
})
afterEach(() => t.store.close())

const newLink = async () => GivenPadLink.parse((await t.put(`/tent-riders/${s.day.id}/pad`, {})).body).token
const asPhone = (method: string, path: string, body?: unknown, by = token) =>
  t.send(method, path, body, { authorization: `Bearer ${by}` })
const report = (over: Partial<PadReport> = {}): PadReport => ({
  id: uuid(),
  at: '2031-05-02T11:50:00.000Z',
  runId: s.run.id,
  against: null,
  sectionIds: [],
  words: [{ word: 'kicks', end: 'rear', strength: 2 }],
  stopped: null,
  text: '',
  voiceId: null,
  ...over,
})
const tell = (r: PadReport, phoneNow = r.at, by = token) =>
  asPhone('PUT', `/pad/reports/${r.id}`, { report: r, phoneNow }, by)
const feels = async () => DayBundle.parse((await t.get(`/days/${s.day.id}`)).body).feels
const tent = async () => TentBundle.parse((await t.get(`/tents/${tentId}`)).body)
/** Another run on the day’s setup, later. */
async function secondRun(startedAt = '2031-05-02T10:30:00.000Z') {
  const run = makeRun(s.day, s.setup.id, { startedAt })
  expect((await t.put(`/runs/${run.id}`, run)).status).toBe(200)
  return run
}

describe('a rider’s phone', () => {
  it('and the laptop that speak of one run in the same moment are both heard', async () => {
    const rated = (runId: string, version = 0) => ({
      runId,
      version,
      rating: 7,
      marks: [],
      verdicts: [],
      answers: [],
      note: '',
    })
    for (const held of [0, 60]) {
      const run = await secondRun(`2031-05-02T10:${30 + held / 4}:00.000Z`)
      const said = report({ runId: run.id, at: '2031-05-02T11:31:00.000Z' })
      const phone = tell(said)
      // The phone has read what is known of the run when the laptop's word, which stood in the queue before it, is written.
      while ((await t.store.db.$count(padReports, eq(padReports.id, said.id))) === 0)
        await new Promise((next) => setImmediate(next))
      const busy = t.store.writes.run(() => new Promise((done) => setTimeout(done, held)))
      const laptop = t.put(`/runs/${run.id}/feel`, rated(run.id))
      const [byPhone] = await Promise.all([phone, busy, laptop])
      expect(byPhone.status).toBe(200)
      const feel = (await feels()).find((f) => f.runId === run.id)
      // A laptop that came second is told so, as ever; the phone's word never waits for somebody over it.
      expect(
        feel?.marks.map((m) => m.word),
        `held ${held} ms`,
      ).toEqual(['kicks'])
      expect((await tent()).reports.find((r) => r.report.id === said.id)?.takenFor).toBe(run.id)
    }
  })
  it('is shown its rider, the parts of the trail and the runs, and nothing of settings, figures or others', async () => {
    await t.put(`/runs/${s.run.id}/feel`, {
      runId: s.run.id,
      version: 0,
      rating: 3,
      marks: [],
      verdicts: [],
      note: 'SECRET of the mechanic',
    })
    const answer = await asPhone('GET', '/pad')
    const view = PadView.parse(answer.body)
    expect(view.riderName).toBe(s.rider.name)
    expect(view.sections.map((x) => x.name)).toEqual(s.trail.sections.map((x) => x.name))
    expect(view.runs).toEqual([{ id: s.run.id, number: 1, startedAt: s.run.startedAt, said: false }])
    const text = JSON.stringify(answer.body)
    for (const word of ['SECRET', 'rating', 'setup', 'bike', 'Mass', 'psi', 'adjuster', token])
      expect(text).not.toContain(word)
  })
  it('says how a run was: it is the run’s feel, and every window is told', async () => {
    const run = await secondRun()
    const told: string[] = []
    const stop = t.events.on((e) => told.push(e.type === 'stale' ? e.what : e.type))
    const r = report({
      runId: run.id,
      against: -1,
      sectionIds: [s.trail.sections[0].id],
      text: 'left foot off',
    })
    const view = PadView.parse((await tell(r)).body)
    stop()
    expect(told).toEqual(['feel', 'tent'])
    expect(view.runs.map((x) => x.said)).toEqual([false, true])
    expect(await feels()).toMatchObject([
      {
        runId: run.id,
        rating: null,
        verdicts: [{ againstRunId: s.run.id, value: -1 }],
        marks: [{ word: 'kicks', end: 'rear', strength: 2, sectionId: s.trail.sections[0].id }],
        note: 'left foot off',
      },
    ])
    expect((await tent()).reports).toMatchObject([{ takenFor: run.id, report: { id: r.id } }])
  })
  it('that sends the same twice, because the answer was lost, has said it once', async () => {
    const r = report({ text: 'once' })
    await tell(r)
    await tell(r)
    await Promise.all([tell(r), tell(r)])
    expect((await tent()).reports).toHaveLength(1)
    expect((await feels())[0]).toMatchObject({ version: 1, note: 'once' })
    expect((await feels())[0].marks).toHaveLength(1)
  })
  it('adds to what the tent noted and changes nothing of it', async () => {
    const run = await secondRun()
    const mark = { id: uuid(), word: 'kicks', end: 'rear', sectionId: null, strength: 3 }
    await t.put(`/runs/${run.id}/feel`, {
      runId: run.id,
      version: 0,
      rating: 6.5,
      marks: [mark],
      verdicts: [{ againstRunId: s.run.id, value: 1 }],
      note: 'by the mechanic',
    })
    await tell(
      report({
        runId: run.id,
        against: 2,
        words: [
          { word: 'kicks', end: 'rear', strength: 1 },
          { word: 'dives', end: 'front', strength: 1 },
        ],
      }),
    )
    const feel = (await feels()).find((f) => f.runId === run.id)!
    expect(feel).toMatchObject({
      rating: 6.5,
      note: 'by the mechanic',
      verdicts: [{ againstRunId: s.run.id, value: 1 }],
    })
    expect(feel.marks.map((m) => [m.word, m.strength])).toEqual([
      ['kicks', 3],
      ['dives', 1],
    ])
  })
  it('that says the opposite of the tent waits for a person, who chooses; nothing is changed meanwhile', async () => {
    const run = await secondRun()
    const held = {
      runId: run.id,
      version: 0,
      rating: 8,
      marks: [],
      verdicts: [{ againstRunId: s.run.id, value: 1 }],
      note: '',
    }
    await t.put(`/runs/${run.id}/feel`, held)
    const r = report({ runId: run.id, against: -2 })
    expect((await tell(r)).status).toBe(200)
    expect((await feels()).find((f) => f.runId === run.id)).toMatchObject({ version: 1, marks: [] })
    expect((await tent()).reports).toMatchObject([{ takenFor: null, droppedAt: null }])
    const take = await t.put(`/pad-reports/${r.id}`, { id: r.id, runId: run.id })
    expect(take).toMatchObject({ status: 409, body: { code: 'pad.differs' } })
    await t.put(`/pad-reports/${r.id}`, { id: r.id, runId: run.id, phoneIsRight: true })
    expect((await feels()).find((f) => f.runId === run.id)).toMatchObject({
      rating: 8,
      verdicts: [{ againstRunId: s.run.id, value: -2 }],
    })
    await t.put(`/pad-reports/${r.id}`, { id: r.id, runId: null })
    expect((await tent()).reports[0].droppedAt).not.toBeNull()
  })
  it('that knew of no run yet waits until somebody says which it was', async () => {
    const r = report({ runId: null, against: -1 })
    await tell(r)
    expect(await feels()).toEqual([])
    const run = await secondRun()
    await t.put(`/pad-reports/${r.id}`, { id: r.id, runId: run.id })
    expect(await feels()).toMatchObject([{ runId: run.id, verdicts: [{ value: -1 }] }])
    expect((await tent()).reports).toMatchObject([{ takenFor: run.id }])
    const elsewhere = await t.put(`/pad-reports/${r.id}`, { id: r.id, runId: uuid() })
    expect(elsewhere.status).toBe(422)
  })
  it('a second report of the same run waits: the rider may mean the next one', async () => {
    await tell(report())
    await tell(report({ words: [{ word: 'dives', end: 'front', strength: 1 }] }))
    expect((await feels())[0].marks.map((m) => m.word)).toEqual(['kicks'])
    expect((await tent()).reports.map((r) => r.takenFor)).toEqual([s.run.id, null])
  })
  it('whose clock is an hour wrong, and which was without signal, said it when it said it', async () => {
    // Said twenty minutes before it was sent, on a phone that is an hour fast.
    const r = report({ runId: null, at: '2031-05-02T12:40:00.000Z' })
    await tell(r, '2031-05-02T13:00:00.000Z')
    const behind = report({ runId: null, at: '2031-05-02T10:55:00.000Z' })
    await tell(behind, '2031-05-02T11:00:00.000Z')
    // A clock that was set back between saying and sending.
    const odd = report({ runId: null, at: '2031-05-02T15:00:00.000Z' })
    await tell(odd, '2031-05-02T11:00:00.000Z')
    const said = (await tent()).reports.map((x) => [x.report.id, x.saidAt.slice(11, 16)])
    expect(said).toEqual([
      [r.id, '11:40'],
      [behind.id, '11:55'],
      [odd.id, '12:00'],
    ])
  })
  it('whose section or run was removed meanwhile loses nothing that it said', async () => {
    await t.send('DELETE', `/runs/${s.run.id}`)
    const r = report({ against: 1, sectionIds: [uuid()] })
    expect((await tell(r)).status).toBe(200)
    expect((await tent()).reports).toMatchObject([{ takenFor: null, report: { id: r.id } }])
    await t.put(`/runs/${s.run.id}/restore`, undefined)
    await t.put(`/pad-reports/${r.id}`, { id: r.id, runId: s.run.id })
    expect((await feels())[0].marks).toMatchObject([{ word: 'kicks', sectionId: null }])
  })
  it('handed over as a file a day later was said when the phone says, and never in time to come', async () => {
    const hand = (r: PadReport, phoneNow: string) =>
      t.put(`/tent-riders/${s.day.id}/reports/${r.id}`, { report: r, phoneNow })
    const old = report({ runId: null, at: '2031-05-01T10:00:00.000Z' })
    expect((await hand(old, '2031-05-01T10:05:00.000Z')).status).toBe(200)
    const ahead = report({ runId: null, at: '2031-05-02T13:00:00.000Z' })
    await hand(ahead, '2031-05-02T13:05:00.000Z')
    expect((await tent()).reports.map((r) => [r.report.id, r.saidAt.slice(0, 16)])).toEqual([
      [old.id, '2031-05-01T10:00'],
      [ahead.id, '2031-05-02T12:00'],
    ])
  })
  it('never speaks under the name of another rider’s report', async () => {
    const r = report()
    await tell(r)
    const other = { ...s.day, id: uuid(), version: 0 }
    await t.put(`/days/${other.id}`, other)
    await t.put(`/tent-riders/${other.id}`, {
      ...(await tent()).riders[0],
      id: other.id,
      version: 0,
      number: 2,
    })
    const theirs = GivenPadLink.parse((await t.put(`/tent-riders/${other.id}/pad`, {})).body).token
    const answer = await tell({ ...r, text: 'as if I were them' }, r.at, theirs)
    expect(answer.status).toBe(422)
    expect((await tent()).reports).toMatchObject([{ dayId: s.day.id, report: { text: '' } }])
  })
  it('that says nothing, or more than a day has, is refused with a sentence', async () => {
    expect((await tell(report({ words: [] }))).status).toBe(422)
    for (let i = 0; i < 100; i++) {
      t.skip(2000)
      expect((await tell(report({ runId: null }))).status).toBe(200)
    }
    t.skip(2000)
    const one = await tell(report({ runId: null }))
    expect(one.status).toBe(422)
    expect((one.body as { detail: string }).detail).toMatch(/at most 100/)
  })
})

describe('its link', () => {
  const code = (answer: { body: unknown }) => (answer.body as { code: string }).code
  it('opens nothing else: no record, no list, no other phone', async () => {
    for (const path of ['/garage', '/days', `/days/${s.day.id}`, `/tents/${tentId}`]) {
      const app = await startApp(t.dir, [], { beyond: true, encrypted: false, origin: null, addresses: [] })
      const answer = await app.send('GET', path, undefined, {
        authorization: `Bearer ${token}`,
        host: '10.0.0.1',
      })
      expect(answer.status).toBe(401)
      await app.store.close()
    }
  })
  it('works through a locked door, without a sign-in', async () => {
    const app = await startApp(t.dir, [], { beyond: true, encrypted: false, origin: null, addresses: [] })
    await app.put('/access/lock', {
      setupCode: 'ABCDE-12345-FGHJK',
      passphrase: 'four words for it',
      device: 'x',
    })
    const answer = await app.send('GET', '/pad', undefined, {
      authorization: `Bearer ${token}`,
      host: '10.0.0.1',
    })
    expect(answer.status).toBe(200)
    await app.store.close()
  })
  it('ends when another is given, when it is ended, when the rider or the tent goes, and four days after', async () => {
    const first = token
    token = await newLink()
    expect(code(await asPhone('GET', '/pad', undefined, first))).toBe('pad.ended')
    expect((await asPhone('GET', '/pad')).status).toBe(200)
    await t.send('DELETE', `/tent-riders/${s.day.id}`)
    expect(code(await tell(report()))).toBe('pad.ended')
    await t.put(`/tent-riders/${s.day.id}/restore`, undefined)
    await t.send('DELETE', `/tents/${tentId}`)
    expect(code(await asPhone('GET', '/pad'))).toBe('pad.ended')
    await t.put(`/tents/${tentId}/restore`, undefined)
    expect((await asPhone('GET', '/pad')).status).toBe(200)
    t.skip(4 * 86_400_000 + 1000)
    expect(code(await asPhone('GET', '/pad'))).toBe('pad.ended')
    token = await newLink()
    await t.send('DELETE', `/tent-riders/${s.day.id}/pad`)
    expect(code(await asPhone('GET', '/pad'))).toBe('pad.ended')
    expect((await tent()).pads).toEqual([])
  })
  it('is kept as a hash only, and told to nobody who looks at the tent', async () => {
    const dump = JSON.stringify((await t.store.client.execute('select * from pads')).rows)
    expect(dump).toContain(s.day.id)
    expect(dump).not.toContain(token)
    const seen = JSON.stringify(await tent())
    expect(seen).not.toContain(token)
    expect((await tent()).pads).toMatchObject([{ dayId: s.day.id, lastUsedAt: null }])
  })
  it('is not found by trying: wrong ones are slowed down, and so is a right one that floods', async () => {
    const answers: string[] = []
    for (let i = 0; i < 14; i++)
      answers.push(code(await asPhone('GET', '/pad', undefined, `${'a'.repeat(20)}${i}`)))
    expect(answers.slice(0, 10)).toEqual(Array(10).fill('pad.ended'))
    expect(answers.slice(10)).toEqual(Array(4).fill('access.slow-down'))
    const flood = []
    for (let i = 0; i < 40; i++) flood.push((await asPhone('GET', '/pad')).status)
    expect(flood.filter((x) => x === 200).length).toBeLessThanOrEqual(31)
    expect(flood.at(-1)).toBe(429)
  })
})

describe('a spoken note', () => {
  const webm = new Uint8Array([0x1a, 0x45, 0xdf, 0xa3, 1, 2, 3, 4])
  it('is kept with what was said and played in the tent, as sound and nothing else', async () => {
    const voiceId = uuid()
    expect((await asPhone('PUT', `/pad/voices/${voiceId}`, webm)).status).toBe(200)
    await tell(report({ words: [], voiceId }))
    expect((await tent()).reports[0].report.voiceId).toBe(voiceId)
    const played = await t.get(`/voices/${voiceId}`)
    expect(played.headers.get('content-type')).toBe('audio/webm')
    expect(played.headers.get('x-content-type-options')).toBe('nosniff')
    expect(new Uint8Array(played.body as ArrayBuffer)).toEqual(webm)
  })
  it('that is a page, too long or from nobody is refused', async () => {
    const html = new TextEncoder().encode('<script>alert(1)</script>')
    expect((await asPhone('PUT', `/pad/voices/${uuid()}`, html)).status).toBe(422)
    expect((await asPhone('PUT', `/pad/voices/${uuid()}`, new Uint8Array(2_100_000))).status).toBe(413)
    expect((await t.send('PUT', `/pad/voices/${uuid()}`, webm)).status).toBe(401)
    expect((await t.get(`/voices/${uuid()}`)).status).toBe(404)
  })
})
