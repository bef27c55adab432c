import { spawn } from 'node:child_process'
import { readdirSync, readFileSync, statSync } from 'node:fs'
import { join } from 'node:path'
import { v7 as uuid } from 'uuid'
import { describe, expect, it } from 'vitest'
import { DayBundle, DaySummary, Garage } from '#contract/endpoints'
import { ErasureReach } from '#contract/erasure'
import { GivenPadLink } from '#contract/pad'
import { TentBundle } from '#contract/tent'
import { startApp, type TestApp } from './harness.ts'
import {
  importFile,
  makeFeel,
  makeFile,
  makeReason,
  makeRun,
  makeSetup,
  makeUpload,
  startStory,
} from './story.ts'

/** Every file of a data folder in which a word stands. */
function filesWith(dir: string, word: string): string[] {
  return readdirSync(dir, { recursive: true, encoding: 'utf8' })
    .filter((name) => statSync(join(dir, name)).isFile())
    .filter((name) => readFileSync(join(dir, name)).includes(word))
}
const erase = (t: TestApp, id: string, name: string, alsoCopies = false) =>
  t.put(`/riders/${id}/erasure`, { name, alsoCopies })
const garage = async (t: TestApp) => Garage.parse((await t.get('/garage')).body)

describe('a rider who wants to be forgotten', () => {
  it('what is called after them elsewhere is told and stays; who turned a dial on somebody else’s bike is nobody', async () => {
    const t = await startApp()
    const gone = await startStory(t)
    const name = 'Quillon Thornby'
    await t.put(`/riders/${gone.rider.id}`, { ...gone.rider, version: 1, name })
    const other = await startStory(t)
    const trail = other.trail
    await t.put(`/trails/${trail.id}`, { ...trail, version: 1, name: `${name}’s line` })
    const turned = {
      ...other.setup,
      id: uuid(),
      parentId: other.setup.id,
      positions: other.setup.positions.map((p) => ({ ...p, known: { ...p.known, by: name } })),
      reason: makeReason('reading'),
    }
    expect((await t.put(`/setups/${turned.id}`, turned)).status).toBe(200)
    const feel = makeFeel(other.run.id, { note: `behind ${name.toUpperCase()} all the way` })
    expect((await t.put(`/runs/${other.run.id}/feel`, feel)).status).toBe(200)

    const reach = ErasureReach.parse((await t.get(`/riders/${gone.rider.id}/erasure`)).body)
    expect(reach.elsewhere).toEqual([
      { what: 'trail', name: `${name}’s line` },
      { what: 'record of somebody else', name: '' },
    ])
    expect((await erase(t, gone.rider.id, name)).status).toBe(200)
    const after = await garage(t)
    const mine = after.currentSetups.find((x) => x.bikeId === other.bike.id)!
    expect(mine.id).toBe(turned.id)
    expect(new Set(mine.positions.map((p) => p.known.by))).toEqual(new Set(['a rider']))
    expect(after.trails.find((x) => x.id === trail.id)!.name).toBe(`${name}’s line`)
    const day = DayBundle.parse((await t.get(`/days/${other.day.id}`)).body)
    expect(day.feels[0].note).toBe(feel.note)
    await t.store.close()
  })
  it('what goes is told, and after it no byte of it is left, nor of what it was before', async () => {
    const t = await startApp()
    const s = await startStory(t)
    const recording = uuid()
    await importFile(t, recording, makeUpload(s.run.id, { fileName: 'Quillon at noon.csv' }), makeFile())
    const [held] = (await garage(t)).riders
    // An earlier name, a mass, and a note on a feel: each lay in the file once.
    const renamed = (await t.put(`/riders/${s.rider.id}`, { ...held, name: 'Quillon Earlier' }))
      .body as typeof held
    await t.put(`/riders/${s.rider.id}`, { ...renamed, name: 'Quillon Thornby', bodyMassKg: 43.21 })
    const feel = makeFeel(s.run.id, { note: 'Quillon felt it' })
    await t.put(`/runs/${s.run.id}/feel`, feel)
    await t.send('PUT', '/data/copy')

    const reach = ErasureReach.parse((await t.get(`/riders/${s.rider.id}/erasure`)).body)
    expect(reach).toEqual({
      name: 'Quillon Thornby',
      bikes: 1,
      units: 2,
      setups: 1,
      days: 1,
      runs: 1,
      recordings: 1,
      passedOn: [],
      elsewhere: [],
      copies: 1,
    })
    for (const wrong of ['', 'Quillon', 'quillon thornby'])
      expect((await erase(t, s.rider.id, wrong)).status, wrong).toBe(422)
    expect(filesWith(t.dir, 'Quillon').length).toBeGreaterThan(1)

    expect((await erase(t, s.rider.id, 'Quillon Thornby', true)).status).toBe(200)
    const copyKept = readdirSync(join(t.dir, 'copies')).filter((n) => n.endsWith('.sqlite'))
    expect(copyKept).toHaveLength(1)
    for (const word of ['Quillon', '43.21', 'Earlier', s.rider.id, s.bike.id, s.run.id, recording])
      expect(filesWith(t.dir, word), word).toEqual([])
    await t.store.close()
    expect(filesWith(t.dir, 'Quillon')).toEqual([])
  })
  it('copies stay unless asked for, and are told', async () => {
    const t = await startApp()
    const s = await startStory(t)
    await t.send('PUT', '/data/copy')
    expect((await erase(t, s.rider.id, s.rider.name)).status).toBe(200)
    const [copy] = filesWith(t.dir, s.rider.id)
    expect(copy).toMatch(/^copies\//)
    await t.store.close()
  })
  it('what is others’ stays as it was, byte by byte', async () => {
    const t = await startApp()
    const gone = await startStory(t)
    const other = await startStory(t)
    const before = (await t.get(`/days/${other.day.id}`)).body
    expect((await erase(t, gone.rider.id, gone.rider.name)).status).toBe(200)
    expect((await t.get(`/days/${other.day.id}`)).body).toEqual(before)
    const left = await garage(t)
    expect(left.riders.map((r) => r.id)).toEqual([other.rider.id])
    expect(left.bikes.map((b) => b.id)).toEqual([other.bike.id])
    expect(left.units.map((u) => u.id).sort()).toEqual([other.front.id, other.rear.id].sort())
    expect((await t.get(`/days/${gone.day.id}`)).status).toBe(404)
    expect((await t.get('/shelf')).status).toBe(200)
    const [check] = (await t.store.client.execute('PRAGMA foreign_key_check')).rows
    expect(check).toBeUndefined()
    await t.store.close()
  })
  it('a bike that somebody else rode too goes to the last of them, with its setups and their days', async () => {
    const t = await startApp()
    const gone = await startStory(t)
    const other = await startStory(t)
    const lent = { ...gone.day, id: uuid(), riderId: other.rider.id, date: '2031-06-01' }
    expect((await t.put(`/days/${lent.id}`, lent)).status).toBe(200)
    const run = makeRun(lent, gone.setup.id)
    expect((await t.put(`/runs/${run.id}`, run)).status).toBe(200)
    const reach = ErasureReach.parse((await t.get(`/riders/${gone.rider.id}/erasure`)).body)
    expect(reach).toMatchObject({
      bikes: 0,
      setups: 0,
      units: 0,
      days: 1,
      passedOn: [{ bike: gone.bike.name, to: other.rider.name }],
    })
    expect((await erase(t, gone.rider.id, gone.rider.name)).status).toBe(200)
    const left = await garage(t)
    expect(left.bikes.find((b) => b.id === gone.bike.id)).toMatchObject({ riderId: other.rider.id })
    const days = DaySummary.array().parse((await t.get('/days')).body)
    expect(days.map((d) => d.id).sort()).toEqual([lent.id, other.day.id].sort())
    expect((await t.get(`/days/${lent.id}`)).status).toBe(200)
    expect((await t.get(`/bikes/${gone.bike.id}/setups`)).status).toBe(200)
    expect(filesWith(t.dir, gone.rider.id)).toEqual([])
    await t.store.close()
  })
  it('on what others have part in the name does not stay either', async () => {
    const t = await startApp()
    const gone = await startStory(t)
    const other = await startStory(t)
    await t.put(`/riders/${gone.rider.id}`, { ...gone.rider, version: 1, name: 'Quillon Thornby' })
    await t.put(`/units/${gone.front.id}`, {
      ...gone.front,
      version: 1,
      ownerId: gone.rider.id,
      note: 'THORNBY on the crown? No: Quillon Thornby',
    })
    const held = (await garage(t)).bikes.find((b) => b.id === gone.bike.id)!
    await t.put(`/bikes/${gone.bike.id}`, { ...held, name: 'Quillon’s bike' })
    const turned = makeSetup(gone.bike, [gone.front, gone.rear], {
      parentId: gone.setup.id,
      dayId: gone.day.id,
      reason: { ...makeReason('reading'), text: 'Quillon counted it' },
    })
    turned.positions = turned.positions.map((p) => ({ ...p, known: { ...p.known, by: 'Quillon Thornby' } }))
    expect((await t.put(`/setups/${turned.id}`, turned)).status).toBe(200)
    const lent = {
      ...gone.day,
      id: uuid(),
      riderId: other.rider.id,
      date: '2031-06-01',
      startSetupId: turned.id,
    }
    expect((await t.put(`/days/${lent.id}`, lent)).status).toBe(200)
    expect(filesWith(t.dir, 'Quillon').length).toBeGreaterThan(0)

    expect((await erase(t, gone.rider.id, 'Quillon Thornby')).status).toBe(200)
    const left = DayBundle.parse((await t.get(`/days/${lent.id}`)).body)
    expect(left.bike).toMatchObject({ riderId: other.rider.id, name: 'a rider’s bike' })
    expect(left.setups.find((x) => x.id === turned.id)).toMatchObject({
      dayId: null,
      reason: { text: 'a rider counted it' },
    })
    expect(left.setups.find((x) => x.id === turned.id)!.positions.map((p) => p.value)).toEqual(
      turned.positions.map((p) => p.value),
    )
    await t.store.close()
    for (const word of ['Quillon', 'Thornby']) expect(filesWith(t.dir, word), word).toEqual([])
  })
  it('nor what was said in the tent: by hand, on the phone, aloud; others of the tent are as they were', async () => {
    const t = await startApp()
    const gone = await startStory(t)
    const other = await startStory(t)
    await t.put(`/riders/${gone.rider.id}`, { ...gone.rider, version: 1, name: 'Quillon' })
    const tentId = uuid()
    const tent = {
      id: tentId,
      version: 0,
      name: 'Practice',
      date: gone.day.date,
      trailId: gone.trail.id,
      schedule: [],
      note: '',
    }
    expect((await t.put(`/tents/${tentId}`, tent)).status).toBe(200)
    const noteOf = (dayId: string, text: string) => ({
      id: uuid(),
      version: 0,
      tentId,
      dayId,
      at: '2031-05-02T08:10:00.000Z',
      kind: 'left-alone',
      text,
      afterRunId: null,
      closedAt: null,
    })
    for (const [i, { day }] of [gone, other].entries()) {
      const rider = {
        id: day.id,
        version: 0,
        tentId,
        number: i + 1,
        whereabouts: 'here',
        since: '2031-05-02T08:00:00.000Z',
        temper: 'reasons',
        named: true,
      }
      expect((await t.put(`/tent-riders/${day.id}`, rider)).status).toBe(200)
      const note = noteOf(day.id, i ? 'saddle lower' : 'Quillon wants the saddle lower')
      expect((await t.put(`/tent-notes/${note.id}`, note)).status).toBe(200)
      const { token } = GivenPadLink.parse((await t.put(`/tent-riders/${day.id}/pad`, {})).body)
      const asPhone = (path: string, body: unknown) =>
        t.send('PUT', path, body, { authorization: `Bearer ${token}` })
      const voiceId = uuid()
      const spoken = new Uint8Array([
        0x1a,
        0x45,
        0xdf,
        0xa3,
        ...Buffer.from(i ? 'Other aloud' : 'Quillon aloud'),
      ])
      expect((await asPhone(`/pad/voices/${voiceId}`, spoken)).status).toBe(200)
      const report = {
        id: uuid(),
        at: '2031-05-02T11:50:00.000Z',
        runId: (i ? other : gone).run.id,
        against: null,
        sectionIds: [],
        words: [],
        stopped: null,
        text: i ? 'all good' : 'Quillon says it kicks',
        voiceId,
      }
      expect((await asPhone(`/pad/reports/${report.id}`, { report, phoneNow: report.at })).status).toBe(200)
    }
    const before = TentBundle.parse((await t.get(`/tents/${tentId}`)).body)
    expect(before.riders).toHaveLength(2)
    expect(filesWith(t.dir, 'Quillon aloud').length).toBeGreaterThan(0)

    expect((await erase(t, gone.rider.id, 'Quillon')).status).toBe(200)
    const after = TentBundle.parse((await t.get(`/tents/${tentId}`)).body)
    const ofOther = <T extends { dayId: string }>(list: readonly T[]) =>
      list.filter((x) => x.dayId === other.day.id)
    expect(after.riders).toEqual(before.riders.filter((r) => r.id === other.day.id))
    expect(after.notes).toEqual(ofOther(before.notes))
    expect(after.reports).toEqual(ofOther(before.reports))
    await t.store.close()
    expect(filesWith(t.dir, 'Other aloud').length).toBeGreaterThan(0)
    for (const word of ['Quillon', gone.day.id]) expect(filesWith(t.dir, word), word).toEqual([])
  })
  it(
    'while another process reads the data file, it waits until that one lets go: nothing is left beside it',
    { timeout: 30_000 },
    async () => {
      const t = await startApp()
      const s = await startStory(t)
      await t.put(`/riders/${s.rider.id}`, { ...s.rider, version: 1, name: 'Quillon' })
      // Longer than a connection waits by itself.
      const reader = spawn(process.execPath, [
        '--input-type=module',
        '-e',
        `import { createClient } from '@libsql/client'
         const c = createClient({ url: ${JSON.stringify(`file:${join(t.dir, 'test.sqlite')}`)} })
         const moment = await c.transaction('deferred')
         await moment.execute('SELECT count(*) FROM riders')
         console.log('reads')
         setTimeout(() => { moment.close(); c.close() }, 6500)`,
      ])
      await new Promise((resolve) => reader.stdout.once('data', resolve))
      expect((await erase(t, s.rider.id, 'Quillon')).status).toBe(200)
      expect(filesWith(t.dir, 'Quillon')).toEqual([])
      await t.store.close()
    },
  )
  it('another who is not there is not found', async () => {
    const t = await startApp()
    expect((await t.get(`/riders/${uuid()}/erasure`)).status).toBe(404)
    expect((await erase(t, uuid(), 'Nobody')).status).toBe(404)
    await t.store.close()
  })
})

describe('a rider whose days stay, without a name', () => {
  const nameless = (t: TestApp, id: string, name: string) =>
    t.put(`/riders/${id}/erasure`, { name, daysStay: true, alsoCopies: true })
  async function story() {
    const t = await startApp()
    const s = await startStory(t)
    const other = await startStory(t)
    const rider = {
      ...s.rider,
      version: 1,
      name: 'Quillon Thornby',
      bodyMassKg: 43.21,
      note: 'Quillon is shy',
    }
    await t.put(`/riders/${rider.id}`, rider)
    await t.put(`/bikes/${s.bike.id}`, { ...s.bike, version: 1, name: "Quillon's bike" })
    await t.put(`/units/${s.front.id}`, {
      ...s.front,
      version: 1,
      name: 'Fork, THORNBY',
      note: 'of quillon thornby',
    })
    const feel = makeFeel(s.run.id, { rating: 7, note: 'Quillon was happy; quillonite rocks' })
    await t.put(`/runs/${s.run.id}/feel`, feel)
    await importFile(t, uuid(), makeUpload(s.run.id, { fileName: 'Quillon 1.csv' }), makeFile())
    await t.send('PUT', '/data/copy')
    return { t, s, other, rider }
  }
  it('has ridden, felt and measured what was ridden, felt and measured', async () => {
    const { t, s, rider } = await story()
    const before = DayBundle.parse((await t.get(`/days/${s.day.id}`)).body)
    expect((await nameless(t, rider.id, rider.name)).status).toBe(200)
    const after = DayBundle.parse((await t.get(`/days/${s.day.id}`)).body)
    expect(after.rider).toMatchObject({ id: rider.id, name: 'Rider without a name', note: '', version: 3 })
    expect(after.bike.name).toBe("Rider without a name's bike")
    expect(after.feels[0]).toMatchObject({ rating: 7, note: 'a rider was happy; quillonite rocks' })
    expect(after.runs).toEqual(before.runs)
    expect(after.setups).toEqual(before.setups)
    expect(after.recordings[0]).toEqual({ ...before.recordings[0], fileName: 'a rider 1.csv' })
    const [held] = (await garage(t)).riders.filter((r) => r.id === rider.id)
    expect(held).toMatchObject({ bodyMassKg: null, kitMassKg: null, waterL: 0, level: rider.level })
    await t.store.close()
  })
  it('is named nowhere, in no byte of the file, its free space, what lies beside it and its copies', async () => {
    const { t, rider } = await story()
    expect(filesWith(t.dir, 'Quillon').length).toBeGreaterThan(1)
    expect((await nameless(t, rider.id, rider.name)).status).toBe(200)
    await t.store.close()
    for (const word of ['Quillon', 'quillon thornby', '43.21', 'is shy'])
      expect(filesWith(t.dir, word), word).toEqual([])
  })
  it('nor on their bike that others ride, in what those wrote', async () => {
    const { t, s, other, rider } = await story()
    const lent = { ...s.day, id: uuid(), riderId: other.rider.id, date: '2031-06-01' }
    expect((await t.put(`/days/${lent.id}`, lent)).status).toBe(200)
    const theirs = makeSetup(s.bike, [s.front, s.rear], {
      parentId: s.setup.id,
      dayId: lent.id,
      reason: { ...makeReason('own-idea'), text: 'slower than Quillon has it' },
    })
    theirs.positions = theirs.positions.map((p) => ({ ...p, known: { ...p.known, by: rider.name } }))
    expect((await t.put(`/setups/${theirs.id}`, theirs)).status).toBe(200)
    const reach = ErasureReach.parse((await t.get(`/riders/${rider.id}/erasure`)).body)
    expect(reach.elsewhere).toEqual([])
    expect((await nameless(t, rider.id, rider.name)).status).toBe(200)
    const left = DayBundle.parse((await t.get(`/days/${lent.id}`)).body)
    const setup = left.setups.find((x) => x.id === theirs.id)!
    expect(setup.reason.text).toBe('slower than a rider has it')
    // Nothing else of it has gone: it is another rider's.
    expect(setup.positions.map((p) => [p.value, p.known.by])).toEqual(
      theirs.positions.map((p) => [p.value, 'a rider']),
    )
    await t.store.close()
    for (const word of ['Quillon', 'Thornby']) expect(filesWith(t.dir, word), word).toEqual([])
  })
  it('others are as they were; a wrong name changes nothing; the second is another nobody', async () => {
    const { t, s, other, rider } = await story()
    const before = (await t.get(`/days/${other.day.id}`)).body
    expect((await nameless(t, rider.id, 'Quillon')).status).toBe(422)
    expect((await garage(t)).riders.map((r) => r.name)).toContain('Quillon Thornby')
    await nameless(t, rider.id, rider.name)
    expect((await t.get(`/days/${other.day.id}`)).body).toEqual(before)
    expect((await nameless(t, other.rider.id, other.rider.name)).status).toBe(200)
    expect((await garage(t)).riders.map((r) => r.name).sort()).toEqual([
      'Rider without a name',
      'Rider without a name 2',
    ])
    // A page that still has the old form is told so, and does not write the name back.
    expect((await t.put(`/riders/${rider.id}`, { ...rider, version: 2 })).status).toBe(409)
    expect((await t.get(`/days/${s.day.id}`)).status).toBe(200)
    await t.store.close()
  })
})
