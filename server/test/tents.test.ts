import { v7 as uuid } from 'uuid'
import { afterEach, beforeEach, describe, expect, it } from 'vitest'
import { DayBundle, type ShelfItem } from '#contract/endpoints'
import { TentBundle, type Tent, type TentHour, type TentNote, type TentRider } from '#contract/tent'
import { drawPdf } from '../../e2e/pdfPicture.ts'
import type { LiveEvent } from '../events.ts'
import { startApp, type TestApp } from './harness.ts'
import { makeSetup, startStory } from './story.ts'

let t: TestApp
let s: Awaited<ReturnType<typeof startStory>>
let tent: Tent
beforeEach(async () => {
  t = await startApp()
  s = await startStory(t)
  tent = {
    id: uuid(),
    version: 0,
    name: 'Practice',
    date: s.day.date,
    trailId: s.trail.id,
    schedule: [{ kind: 'practice', from: '2031-04-02T07:00:00.000Z', to: '2031-04-02T10:30:00.000Z' }],
    note: '',
  }
  expect((await t.put(`/tents/${tent.id}`, tent)).status).toBe(200)
})
afterEach(() => t.store.close())

const read = async () => TentBundle.parse((await t.get(`/tents/${tent.id}`)).body)
const rider = (over: Partial<TentRider> = {}): TentRider => ({
  id: s.day.id,
  version: 0,
  tentId: tent.id,
  number: 1,
  whereabouts: 'here',
  since: '2031-04-02T08:00:00.000Z',
  temper: 'reasons',
  named: false,
  ...over,
})
const hour = (over: Partial<TentHour> = {}): TentHour => ({
  id: uuid(),
  version: 0,
  tentId: tent.id,
  at: '2031-04-02T08:00:00.000Z',
  airTempC: 18,
  altitudeM: null,
  surface: null,
  track: [],
  note: '',
  ...over,
})
const note = (over: Partial<TentNote> = {}): TentNote => ({
  id: uuid(),
  version: 0,
  tentId: tent.id,
  dayId: s.day.id,
  at: '2031-04-02T08:10:00.000Z',
  kind: 'left-alone',
  text: 'rode it twice',
  afterRunId: null,
  closedAt: null,
  ...over,
})
/** Another rider’s day on the same trail. */
async function secondDay() {
  const bike = { ...s.bike, id: uuid(), version: 0, currentSetupId: null }
  await t.put(`/bikes/${bike.id}`, bike)
  const setup = makeSetup(bike, [s.front, s.rear])
  await t.put(`/setups/${setup.id}`, setup)
  const day = { ...s.day, id: uuid(), version: 0, bikeId: bike.id, startSetupId: setup.id }
  expect((await t.put(`/days/${day.id}`, day)).status).toBe(200)
  return day
}
const put = (kind: string, body: { id: string }) => t.put(`/${kind}/${body.id}`, body)

describe('the sheets of a tent', () => {
  it('are a page for all and one for each rider, with runs, changes and what stands, and nobody’s weight', async () => {
    await put('tent-riders', rider({ number: 7 }))
    await put('tent-hours', hour({ note: 'sun on the lower half' }))
    await put('tent-notes', note())
    await put('tent-notes', note({ kind: 'later', text: 'fork two psi firmer' }))
    const [dial] = s.rear.adjusters.filter((a) => a.kind === 'click')
    const turned = makeSetup(s.bike, [s.front, s.rear], { parentId: s.setup.id, dayId: s.day.id })
    const at = turned.positions.find((p) => p.adjusterId === dial.id)!
    at.value += 1
    turned.reason = { ...turned.reason, source: 'own-idea', text: 'it kicked' }
    expect((await put('setups', turned)).status).toBe(200)
    const [all, one, ...more] = await drawPdf(
      (await t.get(`/tents/${tent.id}/sheets.pdf?zone=Europe/Berlin`)).body,
      80,
    )
    expect(more).toEqual([])
    expect(all.text).toContain('Practice')
    expect(all.text).toContain(s.rider.name)
    // 08:00 UTC on 2 April is 10:00 in Berlin.
    expect(all.text).toContain('10:00')
    expect(all.text).toContain('sun on the lower half')
    expect(all.text).toContain('fork two psi firmer')
    expect(one.text).toContain('number 7')
    expect(one.text).toContain('Run 1')
    expect(one.text).toContain('it kicked')
    expect(one.text).toContain('left alone: rode it twice')
    // A turn is told in letters that the fonts have.
    expect(all.text).toMatch(/Rear rebound \d+ to \d+ clicks/)
    for (const page of [all, one]) expect(page.text).not.toContain('→')
    for (const page of [all, one]) expect(page.text).not.toMatch(/\bkg\b|weight/)
  })
  it('refuses a time zone and a paper that nobody has', async () => {
    for (const bad of ['zone=Nowhere/Land', 'paper=A3'])
      expect((await t.get(`/tents/${tent.id}/sheets.pdf?${bad}`)).body).toMatchObject({
        code: 'request.invalid',
      })
  })
})

describe('a tent', () => {
  it('holds days that were made before it, the log by the hour, and what was decided', async () => {
    expect((await t.get('/tents')).body).toEqual([{ ...tent, version: 1 }])
    await put('tent-riders', rider())
    const later = hour({ at: '2031-04-02T09:30:00.000Z', airTempC: 24, track: ['rougher'] })
    await put('tent-hours', later)
    await put('tent-hours', hour())
    await put('tent-notes', note())
    const held = await read()
    expect(held.trail.id).toBe(s.trail.id)
    expect(held.riders).toEqual([{ ...rider(), version: 1 }])
    expect(held.hours.map((h) => h.airTempC)).toEqual([18, 24])
    expect(held.notes.map((n) => n.text)).toEqual(['rode it twice'])
  })
  it('tells every window of a change, by the tent; of what its days hold too, by the day', async () => {
    const told: LiveEvent[] = []
    t.events.on((e) => told.push(e))
    const tellsTent = { type: 'stale', what: 'tent', id: tent.id }
    const tellsDay = { type: 'stale', what: 'day', id: s.day.id }
    const after = async (work: Promise<unknown>) => {
      await work
      return told.splice(0)
    }
    expect(await after(put('tent-riders', rider()))).toEqual([tellsTent, tellsDay])
    expect(await after(put('tent-hours', hour()))).toEqual([tellsTent, tellsDay])
    // Where a rider is changes nothing that the day holds.
    expect(await after(put('tent-riders', rider({ version: 1, whereabouts: 'out' })))).toEqual([tellsTent])
    expect(await after(put('tent-notes', note()))).toEqual([tellsTent])
  })
  it('lends its log to the days that are in it, for as long as they are', async () => {
    const log = async () =>
      DayBundle.parse((await t.get(`/days/${s.day.id}`)).body).tent?.hours.map((h) => h.airTempC) ?? null
    const noon = hour({ at: '2031-04-02T10:30:00.000Z', airTempC: 27 })
    await put('tent-hours', noon)
    await put('tent-hours', hour())
    expect(await log()).toBeNull()
    await put('tent-riders', rider())
    expect(await log()).toEqual([18, 27])
    await t.send('DELETE', `/tent-hours/${noon.id}`)
    expect(await log()).toEqual([18])
    await t.send('DELETE', `/tent-riders/${s.day.id}`)
    expect(await log()).toBeNull()
    await put('tent-riders', rider())
    expect(await log()).toEqual([18])
    await t.send('DELETE', `/tents/${tent.id}`)
    expect(await log()).toBeNull()
  })
  it('has no log for the days of another tent', async () => {
    const other = { ...tent, id: uuid(), version: 0, name: 'Sunday' }
    await put('tents', other)
    await put('tent-riders', rider())
    await put('tent-hours', hour({ tentId: other.id, airTempC: 31 }))
    expect(DayBundle.parse((await t.get(`/days/${s.day.id}`)).body).tent).toEqual({ id: tent.id, hours: [] })
  })
  it('gives a number to one rider only, and gives it again when its rider is taken out', async () => {
    await put('tent-riders', rider())
    const other = await secondDay()
    const refused = await put('tent-riders', rider({ id: other.id }))
    expect(refused.body).toMatchObject({ code: 'request.invalid', path: 'number' })
    expect((await put('tent-riders', rider({ id: other.id, number: 2 }))).status).toBe(200)
    await t.send('DELETE', `/tent-riders/${s.day.id}`)
    expect((await put('tent-riders', rider({ id: other.id, number: 1, version: 1 }))).status).toBe(200)
    expect((await read()).riders.map((r) => r.number)).toEqual([1])
  })
  it('a day that comes in from another tent leaves that one; taken out, it comes in again', async () => {
    await put('tent-riders', rider())
    const second = { ...tent, id: uuid(), name: 'Second' }
    await t.put(`/tents/${second.id}`, second)
    const told: LiveEvent[] = []
    t.events.on((e) => told.push(e))
    expect((await put('tent-riders', rider({ tentId: second.id, number: 4 }))).status).toBe(200)
    expect(told).toEqual([
      { type: 'stale', what: 'tent', id: second.id },
      { type: 'stale', what: 'tent', id: tent.id },
      { type: 'stale', what: 'day', id: s.day.id },
    ])
    expect((await read()).riders).toEqual([])
    await t.send('DELETE', `/tent-riders/${s.day.id}`)
    told.length = 0
    expect((await put('tent-riders', rider())).status).toBe(200)
    expect(told).toContainEqual({ type: 'stale', what: 'day', id: s.day.id })
    expect((await read()).riders).toEqual([{ ...rider(), version: 3 }])
  })
  it('whereabouts said on two devices: the second is told, and chooses', async () => {
    await put('tent-riders', rider())
    await put('tent-riders', rider({ version: 1, whereabouts: 'out' }))
    const late = await put('tent-riders', rider({ version: 1, whereabouts: 'resting' }))
    expect(late.body).toMatchObject({ code: 'record.stale', current: { whereabouts: 'out' } })
  })
  it('loses no day with it: a rider taken out, a tent removed, a day removed', async () => {
    await put('tent-riders', rider())
    await t.send('DELETE', `/days/${s.day.id}`)
    expect((await read()).riders).toEqual([])
    await t.put(`/days/${s.day.id}/restore`, undefined)
    expect((await read()).riders).toHaveLength(1)
    await t.send('DELETE', `/tents/${tent.id}`)
    expect((await t.get(`/tents/${tent.id}`)).body).toMatchObject({ code: 'record.not-found' })
    expect((await t.get('/tents')).body).toEqual([])
    expect((await t.get(`/days/${s.day.id}`)).status).toBe(200)
    const shelf = (await t.get('/shelf')).body as ShelfItem[]
    expect(shelf).toMatchObject([{ kind: 'tent', name: 'Practice' }])
    await t.put(`/tents/${tent.id}/restore`, undefined)
    expect((await read()).riders).toHaveLength(1)
  })
  it.each<[string, () => Promise<{ body: unknown }>, object]>([
    [
      'a stretch that ends before it begins',
      () =>
        put('tents', {
          ...tent,
          version: 1,
          schedule: [{ ...tent.schedule[0], to: '2031-04-02T06:00:00.000Z' }],
        } as Tent),
      { path: 'schedule.0.to' },
    ],
    [
      'a trail nobody has',
      () => put('tents', { ...tent, version: 1, trailId: uuid() } as Tent),
      { code: 'reference.missing', path: 'trailId' },
    ],
    [
      'a rider without a day',
      () => put('tent-riders', rider({ id: uuid() })),
      { code: 'reference.missing', path: 'id' },
    ],
    [
      'a tent nobody has',
      () => put('tent-riders', rider({ tentId: uuid() })),
      { code: 'reference.missing', path: 'tentId' },
    ],
    [
      'a line that notes nothing',
      () => put('tent-hours', hour({ airTempC: null })),
      { code: 'request.invalid' },
    ],
    ['air typed in °F', () => put('tent-hours', hour({ airTempC: 81 })), { path: 'airTempC' }],
    ['left alone without a reason', () => put('tent-notes', note({ text: ' ' })), { path: 'text' }],
    ['a number of three digits', () => put('tent-riders', rider({ number: 120 })), { path: 'number' }],
  ])('%s is refused in one sentence, and nothing is kept of it', async (_, act, problem) => {
    const before = await read()
    const { body } = await act()
    expect(body).toMatchObject(problem)
    expect((body as { detail: string }).detail).toMatch(/^\S.*[.?]$/)
    expect(await read()).toEqual(before)
  })
  it('"no time" needs no reason', async () => {
    expect((await put('tent-notes', note({ kind: 'no-time', text: '' }))).status).toBe(200)
  })
})
