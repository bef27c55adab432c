import { describe, expect, it } from 'vitest'
import { BikeSetups } from '#contract/bikeSetups'
import type { Garage } from '#contract/endpoints'
import type { KeptSetup } from '#contract/kept'
import type { Run } from '#contract/run'
import { v7 as uuid } from 'uuid'
import { startApp } from './harness.ts'
import { makeReason, makeRun, makeSetup, startStory } from './story.ts'

async function story() {
  const t = await startApp()
  const s = await startStory(t)
  const read = async () => BikeSetups.parse((await t.get(`/bikes/${s.bike.id}/setups`)).body)
  const kept: KeptSetup = {
    id: s.setup.id,
    version: 0,
    bikeId: s.bike.id,
    name: 'Root days',
    purposes: ['wet'],
    found: { place: 'Fernhollow', airTempC: 8, altitudeM: 500, surface: 'wet', pace: null, kitMassKg: null },
    tyreFrontPsi: 22,
    tyreRearPsi: null,
    geometry: '',
    words: 'Grips at last.',
    by: 'Ilka',
    keptAt: '2031-05-02T12:00:00.000Z',
  }
  return { t, s, read, kept }
}
const feel = (runId: string, rating: number | null, words: ('grips' | 'kicks')[] = []) => ({
  runId,
  version: 0,
  rating,
  note: '',
  verdicts: [],
  marks: words.map((word, i) => ({
    id: `0${i}a21259-5d75-71e8-8587-e53156d25a8${i}`,
    word,
    sectionId: null,
    end: 'front',
    strength: 2,
  })),
})

describe('everything a bike has stood at', () => {
  it('tells of each setup where it was ridden, how it was rated and what was said, by counted runs', async () => {
    const { t, s, read } = await story()
    await t.put(`/runs/${s.run.id}/feel`, feel(s.run.id, 6.5, ['grips']))
    const second = makeRun(s.day, s.setup.id, { startedAt: '2031-05-02T10:00:00.000Z', tyreFrontPsi: 23 })
    await t.put(`/runs/${second.id}`, second)
    // The same word twice on one run is one run of it.
    await t.put(`/runs/${second.id}/feel`, feel(second.id, 7, ['grips', 'grips']))
    const crash = makeRun(s.day, s.setup.id, {
      startedAt: '2031-05-02T11:00:00.000Z',
      kind: 'void',
      voidReason: 'crash',
    })
    await t.put(`/runs/${crash.id}`, crash)
    await t.put(`/runs/${crash.id}/feel`, feel(crash.id, 1, ['kicks']))
    const { ridden, setups, units } = await read()
    expect(setups.map((x) => x.id)).toEqual([s.setup.id])
    expect(units.map((u) => u.id).sort()).toEqual([s.front.id, s.rear.id].sort())
    expect(ridden).toMatchObject([
      {
        setupId: s.setup.id,
        date: s.day.date,
        runs: 3,
        countedRuns: 2,
        ratings: [6.5, 7],
        words: [{ word: 'grips', end: 'front', runs: 2 }],
        tyreFrontPsi: 23,
        tyreRearPsi: null,
        settled: false,
      },
    ])
    await t.store.close()
  })
  it('is found by how it was when a setup was ridden, not by how the day began', async () => {
    const { t, s, read } = await story()
    const later = makeSetup(s.bike, [s.front, s.rear], { parentId: s.setup.id, dayId: s.day.id })
    await t.put(`/setups/${later.id}`, later)
    const at = (clock: string) => `${s.day.date}T${clock}:00.000Z`
    const ride = async (setupId: string, clock: string, over: Partial<Run> = {}) => {
      const run = makeRun(s.day, setupId, { startedAt: at(clock), ...over })
      expect((await t.put(`/runs/${run.id}`, run)).status).toBe(200)
    }
    const hour = (clock: string, over: object) => ({
      id: uuid(),
      at: at(clock),
      airTempC: null,
      altitudeM: null,
      surface: null,
      track: [],
      note: '',
      ...over,
    })
    const of = async (id: string) => (await read()).ridden.find((r) => r.setupId === id)?.conditions
    await ride(later.id, '14:30')
    const dry = s.day.conditions
    expect([await of(s.setup.id), await of(later.id)]).toEqual([dry, dry])
    // It rained at two; the last run of the first setup was in the morning.
    await t.put(`/days/${s.day.id}`, { ...s.day, version: 1, hours: [hour('14:00', { surface: 'wet' })] })
    expect([await of(s.setup.id), await of(later.id)]).toEqual([dry, { ...dry, surface: 'wet' }])
    // What the tent logged holds, too, as long as the day is in it; what a run itself says holds before both.
    const tent = { id: uuid(), version: 0, name: 'Practice', date: s.day.date, trailId: s.trail.id }
    await t.put(`/tents/${tent.id}`, { ...tent, schedule: [], note: '' })
    const line = { ...hour('14:10', { airTempC: 9 }), version: 0, tentId: tent.id }
    expect((await t.put(`/tent-hours/${line.id}`, line)).status).toBe(200)
    expect(await of(later.id)).toEqual({ ...dry, surface: 'wet' })
    await t.put(`/tent-riders/${s.day.id}`, {
      id: s.day.id,
      version: 0,
      tentId: tent.id,
      number: 1,
      whereabouts: 'here',
      since: at('08:00'),
      temper: 'number',
      named: false,
    })
    expect(await of(later.id)).toEqual({ ...dry, surface: 'wet', airTempC: 9 })
    await ride(later.id, '15:00', { surface: 'mud' })
    // A crash tells nothing of when it was good.
    await ride(later.id, '15:30', { surface: 'dry-loose', kind: 'void', voidReason: 'crash' })
    expect(await of(later.id)).toEqual({ ...dry, surface: 'mud', airTempC: 9 })
    await t.store.close()
  })
  it('a day or a run that was removed says nothing; brought back it does again', async () => {
    const { t, s, read } = await story()
    await t.send('DELETE', `/runs/${s.run.id}`)
    expect((await read()).ridden).toEqual([])
    await t.put(`/runs/${s.run.id}/restore`, undefined)
    expect((await read()).ridden).toHaveLength(1)
    await t.send('DELETE', `/days/${s.day.id}`)
    expect((await read()).ridden).toEqual([])
    await t.store.close()
  })
  it('holds wishes until they are removed, and no bike’s setups but its own', async () => {
    const { t, s, read } = await story()
    const wish = makeSetup(s.bike, [s.front, s.rear], {
      parentId: s.setup.id,
      wanted: true,
      reason: makeReason('carried'),
    })
    await t.put(`/setups/${wish.id}`, wish)
    expect((await read()).setups.map((x) => x.id)).toEqual([s.setup.id, wish.id])
    await t.send('DELETE', `/setups/${wish.id}`)
    expect((await read()).setups.map((x) => x.id)).toEqual([s.setup.id])
    expect((await t.get(`/bikes/${s.day.id}/setups`)).status).toBe(404)
    await t.store.close()
  })
})

describe('a profile', () => {
  it('is kept, named in the garage, removed, found on the shelf, and brought back', async () => {
    const { t } = await story()
    const profile = {
      id: '04a21259-5d75-71e8-8587-e53156d25a84',
      version: 0,
      name: 'Wet',
      purposes: ['wet'],
      shifts: [
        { end: 'front', role: 'main-pressure', by: -4 },
        { end: 'rear', role: 'rebound', by: 1 },
      ],
      from: 'Wet roots beside Home loop',
      note: '',
      by: '',
      madeAt: '2031-05-02T12:00:00.000Z',
    }
    const garage = async () => ((await t.get('/garage')).body as Garage).profiles
    expect((await t.put(`/profiles/${profile.id}`, profile)).status).toBe(200)
    expect(await garage()).toEqual([{ ...profile, version: 1 }])
    await t.send('DELETE', `/profiles/${profile.id}`)
    expect(await garage()).toEqual([])
    expect((await t.get('/shelf')).body).toMatchObject([
      { kind: 'profile', name: 'Wet', about: 'Wet roots beside Home loop' },
    ])
    await t.put(`/profiles/${profile.id}/restore`, undefined)
    expect(await garage()).toHaveLength(1)
    const refused = async (change: object) =>
      (await t.put(`/profiles/${profile.id}`, { ...profile, ...change })).status
    expect(await refused({ shifts: [] })).toBe(422)
    expect(await refused({ shifts: [{ end: 'front', role: 'rebound', by: 0 }] })).toBe(422)
    expect(await refused({ shifts: [profile.shifts[0], { ...profile.shifts[0], by: 3 }] })).toBe(422)
    await t.store.close()
  })
})

describe('a kept setup', () => {
  it('is kept by a name, renamed, removed, found on the shelf, and brought back', async () => {
    const { t, s, read, kept } = await story()
    expect((await t.put(`/kept/${kept.id}`, kept)).status).toBe(200)
    expect((await read()).kept).toEqual([{ ...kept, version: 1 }])
    await t.put(`/kept/${kept.id}`, { ...kept, version: 1, name: 'Roots, wet' })
    expect((await read()).kept[0].name).toBe('Roots, wet')
    await t.send('DELETE', `/kept/${kept.id}`)
    expect((await read()).kept).toEqual([])
    expect((await t.get('/shelf')).body).toMatchObject([
      { kind: 'kept', id: kept.id, name: 'Roots, wet', about: `${s.bike.name} of ${s.rider.name}` },
    ])
    await t.put(`/kept/${kept.id}/restore`, undefined)
    expect((await read()).kept).toHaveLength(1)
    await t.store.close()
  })
  it('two people naming it at once are told of each other, and neither name is lost in silence', async () => {
    const { t, kept } = await story()
    await t.put(`/kept/${kept.id}`, kept)
    await t.put(`/kept/${kept.id}`, { ...kept, version: 1, name: 'Roots, wet' })
    const late = await t.put(`/kept/${kept.id}`, { ...kept, version: 1, name: 'Mud' })
    expect(late.status).toBe(409)
    expect(late.body).toMatchObject({ code: 'record.stale', current: { name: 'Roots, wet' } })
    await t.store.close()
  })
  it('is of a setup of that bike, and refuses what cannot be', async () => {
    const { t, s, kept } = await story()
    const codes = async (body: object, id = kept.id) => {
      const answer = await t.put(`/kept/${id}`, body)
      return (answer.body as { code?: string }).code
    }
    expect(await codes({ ...kept, bikeId: s.day.id })).toBe('reference.missing')
    expect(await codes({ ...kept, id: s.day.id }, s.day.id)).toBe('reference.missing')
    expect(await codes({ ...kept, name: ' ' })).toBe('request.invalid')
    expect(await codes({ ...kept, purposes: ['wet', 'wet'] })).toBe('request.invalid')
    // Bar typed as psi.
    expect(await codes({ ...kept, tyreFrontPsi: 1.6 })).toBe('request.invalid')
    await t.store.close()
  })
  it('tells every open window', async () => {
    const { t, s, kept } = await story()
    const seen: unknown[] = []
    const stop = t.events.on((e) => seen.push(e))
    await t.put(`/kept/${kept.id}`, kept)
    stop()
    expect(seen).toEqual([
      { type: 'stale', what: 'setups', id: s.bike.id },
      { type: 'stale', what: 'garage', id: null },
    ])
    await t.store.close()
  })
})
