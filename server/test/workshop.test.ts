import { v7 as uuid } from 'uuid'
import { beforeAll, describe, expect, it } from 'vitest'
import type { Baseline } from '#contract/baseline'
import type { Bench } from '#contract/bench'
import type { BikeSetups } from '#contract/bikeSetups'
import type { Gauge, ServiceEntry, StockItem } from '#contract/care'
import type { Garage } from '#contract/endpoints'
import type { Setup } from '#contract/setup'
import { benchOn } from '#core/test/dayBuilder'
import { startApp, type TestApp } from './harness.ts'
import { makeSetup, startStory } from './story.ts'

let t: TestApp
let story: Awaited<ReturnType<typeof startStory>>
beforeAll(async () => {
  t = await startApp()
  story = await startStory(t)
})
const garage = async () => (await t.get('/garage')).body as Garage

const gauge = (over: Partial<Gauge> = {}): Gauge => ({
  id: uuid(),
  version: 0,
  name: 'Old pump',
  readsHighPsi: 4,
  hoseCc: 5,
  note: '',
  ...over,
})
const spring = (over: Record<string, unknown> = {}): StockItem =>
  ({
    id: uuid(),
    version: 0,
    kind: 'spring',
    name: 'Red 80',
    count: 1,
    rateNPerMm: 80,
    strokeMm: 65,
    ratePoints: null,
    ownerId: null,
    out: [],
    note: '',
    ...over,
  }) as StockItem
const service = (over: Partial<ServiceEntry> = {}): ServiceEntry => ({
  id: uuid(),
  version: 0,
  bikeId: story.bike.id,
  unitId: story.front.id,
  kind: 'seals',
  date: '2031-04-02',
  airTempC: null,
  altitudeM: null,
  place: '',
  note: '',
  ...over,
})
const baseline = (over: Partial<Baseline> = {}): Baseline => ({
  id: uuid(),
  version: 0,
  bikeId: story.bike.id,
  name: 'Frame maker, page 4',
  source: 'frame-maker',
  asOf: '2031-01-01',
  riderMassKg: null,
  sagFrontPct: null,
  sagRearPct: 28,
  positions: [],
  countedFrom: null,
  notHere: [],
  score: null,
  note: '',
  ...over,
})

describe('gauges, shelf, log and starting points', () => {
  it('are kept, shown in the garage, put away and brought back', async () => {
    const kinds = [
      ['gauges', 'gauges', gauge()],
      ['stock', 'stock', spring()],
      ['services', 'services', service()],
      ['baselines', 'baselines', baseline()],
    ] as const
    for (const [path, list, record] of kinds) {
      const has = async () => (await garage())[list].some((x) => x.id === record.id)
      expect((await t.put(`/${path}/${record.id}`, record)).body).toEqual({ ...record, version: 1 })
      expect(await has(), path).toBe(true)
      expect((await t.send('DELETE', `/${path}/${record.id}`)).status).toBe(200)
      expect(await has(), path).toBe(false)
      await t.put(`/${path}/${record.id}/restore`, undefined)
      expect(await has(), path).toBe(true)
    }
  })
  it('a second save on an old version is put to the person', async () => {
    const g = gauge()
    await t.put(`/gauges/${g.id}`, g)
    const other = await t.put(`/gauges/${g.id}`, { ...g, name: 'Other pump' })
    expect(other.status).toBe(409)
    expect(other.body.current.name).toBe('Old pump')
  })
  it.each([
    ['a gauge off by 60 psi', () => ['gauges', gauge({ readsHighPsi: 60 })], /off by more than 30 psi/],
    ['a spring typed in lb/in', () => ['stock', spring({ rateNPerMm: 450 })], /typed in lb\/in/],
    [
      'a service of a bike that is not there',
      () => ['services', service({ bikeId: uuid() })],
      /bike it refers to/,
    ],
    ['a baseline sag in mm', () => ['baselines', baseline({ sagRearPct: 55 })], /typed in mm/],
  ] as const)('%s is refused and not kept', async (_, make, reason) => {
    const [path, record] = make() as [string, { id: string }]
    const answer = await t.put(`/${path}/${record.id}`, record)
    expect(answer.status).toBeGreaterThanOrEqual(400)
    expect(answer.body.detail).toMatch(reason)
    expect(JSON.stringify(await garage())).not.toContain(record.id)
  })
})

describe('the bench', () => {
  const onBench = (over: Partial<Bench> = {}) =>
    benchOn({ id: uuid(), version: 0, bikeId: story.bike.id, positions: [], ...over })
  it('is kept, newest first', async () => {
    const first = onBench({ startedAt: '2031-05-01T08:00:00Z' })
    const second = onBench({ startedAt: '2031-05-02T08:00:00Z' })
    for (const b of [second, first]) await t.put(`/benches/${b.id}`, b)
    const list = (await t.get(`/bikes/${story.bike.id}/benches`)).body as Bench[]
    expect(list.map((b) => b.id)).toEqual([second.id, first.id])
    await t.send('DELETE', `/benches/${second.id}`)
    expect((await t.get(`/bikes/${story.bike.id}/benches`)).body).toHaveLength(1)
  })
  it('ends in a setup of its own bike only', async () => {
    const b = onBench({ finishedSetupId: uuid() })
    expect((await t.put(`/benches/${b.id}`, b)).body.detail).toMatch(/not kept for this bike/)
    const ended = onBench({ finishedSetupId: story.setup.id })
    expect((await t.put(`/benches/${ended.id}`, ended)).status).toBe(200)
  })
  it('a step skipped without a reason is refused', async () => {
    const b = onBench({
      steps: [{ step: 'rebound', state: 'skipped', at: '2031-05-02T08:00:00Z', reason: '', basis: {} }],
    })
    expect((await t.put(`/benches/${b.id}`, b)).body.detail).toMatch(/Say why the step is skipped/)
  })
})

describe('a dial counted anew', () => {
  it('from open: earlier counts stay what was counted, in one step with the unit', async () => {
    const own = await startApp()
    const s = await startStory(own)
    const dial = s.rear.adjusters.find((a) => a.kind === 'click')!
    const openBased = {
      ...s.rear,
      version: 1,
      adjusters: s.rear.adjusters.map((a) => (a.id === dial.id ? { ...a, countBase: 'open' as const } : a)),
    }
    await own.put(`/units/${s.rear.id}`, openBased)
    const held = async () =>
      ((await own.get(`/bikes/${s.bike.id}/setups`)).body as BikeSetups).setups.toReversed()
    const valueOf = (x: Setup) => x.positions.find((p) => p.adjusterId === dial.id)!.value
    const before = (await held()).map(valueOf)
    const recounted = {
      ...openBased,
      version: 2,
      adjusters: openBased.adjusters.map((a) =>
        a.id === dial.id && a.kind === 'click' ? { ...a, clicks: a.clicks + 3 } : a,
      ),
    }
    expect((await own.put(`/units/${s.rear.id}`, recounted)).status).toBe(200)
    expect((await held()).map(valueOf)).toEqual(before.map((v) => v + 3))
    // Sent again, as a phone would: nothing moves twice.
    await own.put(`/units/${s.rear.id}`, recounted)
    expect((await held()).map(valueOf)).toEqual(before.map((v) => v + 3))
  })
  it('from closed: nothing moves', async () => {
    const own = await startApp()
    const s = await startStory(own)
    const before = ((await own.get(`/bikes/${s.bike.id}/setups`)).body as BikeSetups).setups.toReversed()
    const wider = s.front.adjusters.map((a) => (a.kind === 'click' ? { ...a, clicks: a.clicks + 3 } : a))
    expect((await own.put(`/units/${s.front.id}`, { ...s.front, version: 1, adjusters: wider })).status).toBe(
      200,
    )
    expect(((await own.get(`/bikes/${s.bike.id}/setups`)).body as BikeSetups).setups.toReversed()).toEqual(
      before,
    )
  })
  it('a setup saved with a baseline’s circumstances gives them back', async () => {
    const setup = makeSetup(story.bike, [story.front, story.rear], {
      parentId: story.setup.id,
      name: 'Baseline, May',
      foundIn: {
        airTempC: 14,
        altitudeM: 420,
        place: 'Fernhollow',
        sagFrontPct: 20.4,
        sagRearPct: 29.1,
        postureFront: 'ready',
        postureRear: 'seated',
      },
    })
    expect((await t.put(`/setups/${setup.id}`, setup)).status).toBe(200)
    const latest = ((await t.get(`/bikes/${story.bike.id}/setups`)).body as BikeSetups).setups.at(-1)
    expect(latest).toEqual(setup)
  })
})

describe('a data file from before the bench', () => {
  it('opens, and what its records lack has its usual value', async () => {
    const own = await startApp()
    const s = await startStory(own)
    const strip = async (table: string, id: string, keys: string[]) => {
      const paths = keys.map((k) => `'$.${k}'`).join(', ')
      await own.store.client.execute({
        sql: `update ${table} set body = json_remove(body, ${paths}) where id = ?`,
        args: [id],
      })
    }
    await strip('units', s.front.id, [
      'charts',
      'airSpring',
      'idNote',
      'revalvedOn',
      'preloadPitchMm',
      'serviceEveryDays',
    ])
    await strip('riders', s.rider.id, ['waterL'])
    await strip('bikes', s.bike.id, ['kind', 'massKg', 'leverageCurve', 'tyres', 'frontShareSeatedPct'])
    await strip('setups', s.setup.id, ['foundIn'])
    const { status, body } = await own.get('/garage')
    expect(status).toBe(200)
    const g = body as Garage
    expect(g.units.find((u) => u.id === s.front.id)).toEqual({ ...s.front, version: 1 })
    expect(g.riders[0].waterL).toBe(0)
    expect(g.bikes[0]).toMatchObject({ kind: 'trail', leverageCurve: null })
    expect(g.currentSetups[0].foundIn).toBeNull()
    expect((await own.get(`/days/${s.day.id}`)).status).toBe(200)
    expect((await own.get(`/bikes/${s.bike.id}/card.pdf`)).status).toBe(200)
    // And it can be saved again as it was read.
    const unit = g.units.find((u) => u.id === s.front.id)!
    expect((await own.put(`/units/${unit.id}`, { ...unit, name: 'Renamed' })).status).toBe(200)
  })
})
