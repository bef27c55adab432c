import { existsSync, mkdtempSync, readdirSync, readFileSync, statSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { gunzipSync } from 'node:zlib'
import fc from 'fast-check'
import { v7 as uuid } from 'uuid'
import { describe, expect, it } from 'vitest'
import {
  BundleLook,
  Import,
  MadeBundle,
  type BundleChoices,
  type BundleScope,
  type BundleWith,
} from '#contract/bundle'
import { DataState } from '#contract/data'
import { DayBundle, Garage } from '#contract/endpoints'
import { bundleHere, type Bundler } from '../bundle/bundler.ts'
import { kinds } from '../bundle/kinds.ts'
import { Porter } from '../bundle/porter.ts'
import { Refusal } from '../refusal.ts'
import { fillWorld, type WorldPlan } from './bundleWorld.ts'
import { dump } from './dump.ts'
import { migrations, startApp, type TestApp } from './harness.ts'
import { importFile, makeFeel, makeFile, makeRun, makeUpload, startStory } from './story.ts'

const everything: BundleScope = { kind: 'everything' }
const allAlong: BundleWith = { weights: true, voices: true, inside: true }
const nothingPrivate: BundleWith = { weights: false, voices: false, inside: false }
const choose = (over: Partial<BundleChoices> = {}): BundleChoices => ({
  differing: 'ours',
  except: [],
  taken: [],
  ...over,
})

async function bundleOf(t: TestApp, scope = everything, w = allAlong): Promise<Uint8Array<ArrayBuffer>> {
  const id = uuid()
  const made = await t.put(`/data/bundles/${id}`, { scope, with: w })
  expect(made.status, JSON.stringify(made.body)).toBe(200)
  const got = await t.get(`/data/bundles/${id}`)
  const bytes = new Uint8Array(got.body as ArrayBuffer)
  expect(bytes.length).toBe(MadeBundle.parse(made.body).bytes)
  return bytes
}
async function arrive(t: TestApp, bytes: Uint8Array<ArrayBuffer>) {
  const id = uuid()
  expect(
    (await t.send('PUT', `/data/arrivals/${id}`, bytes, { 'content-type': 'application/zip' })).status,
  ).toBe(200)
  return { id, looked: await t.send('PUT', `/data/arrivals/${id}/look`) }
}
async function bring(t: TestApp, bytes: Uint8Array<ArrayBuffer>, choices = choose()) {
  const { id, looked } = await arrive(t, bytes)
  expect(looked.status, JSON.stringify(looked.body)).toBe(200)
  const look = BundleLook.parse(looked.body)
  const taken = await t.put(`/data/arrivals/${id}/take`, choices)
  expect(taken.status, JSON.stringify(taken.body)).toBe(200)
  return { look, done: Import.parse(taken.body) }
}
const doorAndDisk = [
  'locks',
  'sessions',
  'passes',
  'attempts',
  'pads',
  'damaged',
  'imports',
  'import_rows',
  'sqlite_sequence',
]
/** All that is data, as it lies in the file; setups in their order, which is no number of its own. */
async function world(t: TestApp) {
  const all = await dump(join(t.dir, 'test.sqlite'))
  for (const table of doorAndDisk) delete all[table]
  const { rows } = await t.store.client.execute('SELECT id FROM setups ORDER BY bike_id, seq')
  return {
    ...all,
    setups: all.setups.map((s) => JSON.stringify({ ...(JSON.parse(s) as object), seq: 0 })).sort(),
    setupOrder: rows.map((r) => String(r.id)),
  }
}
const leftovers = (t: TestApp) => readdirSync(t.incomingDir)

describe('a bundle of everything', () => {
  const text = fc.string({ unit: 'grapheme', maxLength: 40 })
  const riderPlan = fc.record({
    note: text,
    runs: fc.nat(3),
    changes: fc.nat(3),
    recorded: fc.boolean(),
    awayRun: fc.boolean(),
    awayRider: fc.boolean(),
    kept: fc.boolean(),
    inTent: fc.boolean(),
    wished: fc.boolean(),
  })
  it('in an empty house is the same world, row by row, whatever was in it', { timeout: 60_000 }, async () => {
    await fc.assert(
      fc.asyncProperty(fc.array(riderPlan, { minLength: 0, maxLength: 3 }), async (riders) => {
        const from = await startApp()
        const to = await startApp()
        await fillWorld(from, { riders })
        const { look, done } = await bring(to, await bundleOf(from))
        expect(look.kinds.every((k) => k.same === 0 && k.differing === 0)).toBe(true)
        expect(done.replaced).toBe(0)
        expect(await world(to)).toEqual(await world(from))
        expect(leftovers(to)).toEqual([])
        await from.store.close()
        await to.store.close()
      }),
      { numRuns: 8 },
    )
  })
  it('is all the same to the house it came from, and taking it in changes nothing', async () => {
    const t = await startApp()
    await fillWorld(t, onePlan)
    const before = await world(t)
    const { look } = await bring(t, await bundleOf(t))
    expect(look.kinds.length).toBeGreaterThan(5)
    for (const k of look.kinds) expect([k.kind, k.fresh, k.differing]).toEqual([k.kind, 0, 0])
    expect(await world(t)).toEqual(before)
    await t.store.close()
  })
  it('a recording gives the same bytes and the same figures on the other side', async () => {
    const from = await startApp()
    const to = await startApp()
    const s = await startStory(from)
    const id = uuid()
    await importFile(from, id, makeUpload(s.run.id), makeFile())
    await bring(to, await bundleOf(from))
    for (const path of [
      `/recordings/${id}/original`,
      `/recordings/${id}/channels`,
      `/recordings/${id}/metrics.csv`,
    ]) {
      const [a, b] = [await from.get(path), await to.get(path)]
      expect(b.status, path).toBe(200)
      expect(Buffer.from(b.body as ArrayBuffer).equals(Buffer.from(a.body as ArrayBuffer)), path).toBe(true)
    }
    await from.store.close()
    await to.store.close()
  })
})

const onePlan: WorldPlan = {
  riders: [
    {
      note: 'kicks',
      runs: 2,
      changes: 2,
      recorded: true,
      awayRun: true,
      awayRider: false,
      kept: true,
      inTent: true,
      wished: true,
    },
    {
      note: 'calm',
      runs: 1,
      changes: 1,
      recorded: false,
      awayRun: false,
      awayRider: false,
      kept: true,
      inTent: true,
      wished: false,
    },
  ],
}

describe('a bundle of one', () => {
  it.each(['rider', 'bike', 'day', 'tent'] as const)(
    '%s stands on its own in an empty house',
    async (kind) => {
      const from = await startApp()
      const to = await startApp()
      const { stories, tentId } = await fillWorld(from, onePlan)
      const [s, other] = stories
      const id = { rider: s.rider.id, bike: s.bike.id, day: s.day.id, tent: tentId }[kind]
      const { done } = await bring(to, await bundleOf(from, { kind, id }))
      expect(done.fresh).toBeGreaterThan(5)
      const day = DayBundle.parse((await to.get(`/days/${s.day.id}`)).body)
      const was = DayBundle.parse((await from.get(`/days/${s.day.id}`)).body)
      expect(was.tent?.id).toBe(tentId)
      // Without its tent a day leaves the log behind that was everybody's.
      expect(day).toEqual(kind === 'tent' ? was : { ...was, tent: null })
      const garage = Garage.parse((await to.get('/garage')).body)
      expect(garage.riders.some((r) => r.id === other.rider.id)).toBe(kind === 'tent')
      expect((await to.get(`/tents/${tentId}`)).status).toBe(kind === 'tent' ? 200 : 404)
      await from.store.close()
      await to.store.close()
    },
  )
  it('of a bike that somebody else rode: the owner is a name, without weight and words', async () => {
    const from = await startApp()
    const to = await startApp()
    const owner = await startStory(from)
    const guest = await startStory(from)
    const lent = { ...owner.day, id: uuid(), riderId: guest.rider.id, date: '2031-06-01' }
    expect((await from.put(`/days/${lent.id}`, lent)).status).toBe(200)
    await from.put(`/riders/${owner.rider.id}`, { ...owner.rider, version: 1, note: 'shy of weighing' })
    const bytes = await bundleOf(from, { kind: 'day', id: lent.id })
    await bring(to, bytes)
    const { riders } = Garage.parse((await to.get('/garage')).body)
    expect(riders.find((r) => r.id === owner.rider.id)).toMatchObject({
      bodyMassKg: null,
      kitMassKg: null,
      note: '',
    })
    expect(riders.find((r) => r.id === guest.rider.id)).toMatchObject({ bodyMassKg: 68 })
    await from.store.close()
    await to.store.close()
  })
})

describe('what is nobody else’s business', () => {
  it('no weight, no words about the inside and no voice are in it unless asked for', async () => {
    const from = await startApp()
    const to = await startApp()
    const s = await startStory(from)
    await from.put(`/riders/${s.rider.id}`, { ...s.rider, version: 1, bodyMassKg: 43.21, kitMassKg: 3.33 })
    await from.put(`/units/${s.front.id}`, {
      ...s.front,
      version: 1,
      note: 'stack number nine',
      idNote: 'engraved 77X',
    })
    const service = {
      id: uuid(),
      version: 0,
      bikeId: s.bike.id,
      unitId: s.front.id,
      kind: 're-valved',
      date: '2031-04-01',
      airTempC: null,
      altitudeM: null,
      place: '',
      note: 'clamp shim 14',
    }
    expect((await from.put(`/services/${service.id}`, service)).status).toBe(200)
    const { look } = await bring(to, await bundleOf(from, everything, nothingPrivate))
    expect(look.head.with).toEqual(nothingPrivate)
    const lies = JSON.stringify(await dump(join(to.dir, 'test.sqlite')))
    for (const secret of ['43.21', '3.33', 'stack number nine', '77X', 'clamp shim 14']) {
      expect(JSON.stringify(await dump(join(from.dir, 'test.sqlite')))).toContain(secret)
      expect(lies, secret).not.toContain(secret)
    }
    await from.store.close()
    await to.store.close()
  })
  it('coming back without them, it differs in nothing and takes nothing away', async () => {
    const t = await startApp()
    const s = await startStory(t)
    const bytes = await bundleOf(t, everything, nothingPrivate)
    const { look } = await bring(t, bytes, choose({ differing: 'theirs' }))
    expect(look.differing).toEqual([])
    expect(Garage.parse((await t.get('/garage')).body).riders[0]).toMatchObject({ bodyMassKg: 68 })
    // Theirs is taken for another reason: the weight that it does not have stays ours.
    await t.put(`/riders/${s.rider.id}`, { ...s.rider, version: 1, note: 'new here' })
    const again = await bring(t, bytes, choose({ differing: 'theirs' }))
    expect(again.look.differing.map((d) => [d.kind, d.fields])).toEqual([
      ['riders', [{ path: 'note', ours: 'new here', theirs: '–' }]],
    ])
    const [rider] = Garage.parse((await t.get('/garage')).body).riders
    expect(rider).toMatchObject({ bodyMassKg: 68, kitMassKg: 5, note: '', version: 3 })
    await t.store.close()
  })
  it('what nobody said of how a rider rides is not said of them elsewhere either', async () => {
    const [from, to] = [await startApp(), await startApp()]
    const s = await startStory(from)
    const assumed = ['kitMassKg', 'level', 'taste']
    await from.put(`/riders/${s.rider.id}`, { ...s.rider, version: 1, assumed })
    const bytes = await bundleOf(from, everything, nothingPrivate)
    await bring(to, bytes)
    expect(Garage.parse((await to.get('/garage')).body).riders[0].assumed).toEqual(['level', 'taste'])
    // Coming back, what is assumed of the kit stays with the kit.
    const { look } = await bring(from, bytes, choose({ differing: 'theirs' }))
    expect(look.differing).toEqual([])
    expect(Garage.parse((await from.get('/garage')).body).riders[0]).toMatchObject({ kitMassKg: 5, assumed })
    await from.store.close()
    await to.store.close()
  })
  it('a rider who is erased is in no import’s memory either', async () => {
    const from = await startApp()
    const to = await startApp()
    const s = await startStory(from)
    await from.put(`/riders/${s.rider.id}`, { ...s.rider, version: 1, name: 'Quillon' })
    await bring(to, await bundleOf(from, { kind: 'rider', id: s.rider.id }))
    await from.put(`/riders/${s.rider.id}`, { ...s.rider, version: 2, name: 'Quillon', note: 'heavier' })
    await bring(to, await bundleOf(from, { kind: 'rider', id: s.rider.id }), choose({ differing: 'theirs' }))
    expect(
      (await to.put(`/riders/${s.rider.id}/erasure`, { name: 'Quillon', alsoCopies: true })).status,
    ).toBe(200)
    await to.store.close()
    const found = readdirSync(to.dir, { recursive: true, encoding: 'utf8' })
      .filter((n) => statSync(join(to.dir, n)).isFile())
      .filter((n) => ['Quillon', s.rider.id].some((w) => readFileSync(join(to.dir, n)).includes(w)))
    expect(found).toEqual([])
    await from.store.close()
  })
})

describe('what is here and in the bundle', () => {
  /** Two houses that were one, and went on apart. */
  async function parted() {
    const one = await startApp()
    const two = await startApp()
    const s = await startStory(one)
    await bring(two, await bundleOf(one))
    return { one, two, s }
  }
  const feelOf = async (t: TestApp, dayId: string) =>
    DayBundle.parse((await t.get(`/days/${dayId}`)).body).feels
  it('is shown on both sides, and ours stays unless theirs is chosen', async () => {
    const { one, two, s } = await parted()
    const feel = makeFeel(s.run.id)
    await one.put(`/runs/${s.run.id}/feel`, { ...feel, rating: 6 })
    await two.put(`/runs/${s.run.id}/feel`, { ...feel, rating: 7 })
    await two.put(`/trails/${s.trail.id}`, { ...s.trail, version: 1, note: 'logs gone' })
    const bytes = await bundleOf(two)
    const { look } = await bring(one, bytes)
    expect(look.differing.map((d) => [d.kind, d.fields])).toEqual([
      ['trails', [{ path: 'note', ours: '–', theirs: 'logs gone' }]],
      ['feels', [{ path: 'rating', ours: '6', theirs: '7' }]],
    ])
    expect((await feelOf(one, s.day.id))[0].rating).toBe(6)
    await bring(one, bytes, choose({ differing: 'theirs', except: [{ kind: 'trails', key: s.trail.id }] }))
    const [held] = await feelOf(one, s.day.id)
    expect(held).toMatchObject({ rating: 7, version: 2 })
    expect(Garage.parse((await one.get('/garage')).body).trails[0].note).toBe('')
    // A page that still has ours is told so when it saves.
    expect((await one.put(`/runs/${s.run.id}/feel`, { ...feel, version: 1, rating: 8 })).status).toBe(409)
    await one.store.close()
    await two.store.close()
  })
  it('what is on the bike is a choice of its own, and never turns by itself', async () => {
    const { one, two, s } = await parted()
    const turned = {
      ...s.setup,
      id: uuid(),
      parentId: s.setup.id,
      dayId: s.day.id,
      madeAt: '2031-05-02T10:00:00.000Z',
    }
    turned.positions = turned.positions.map((p, i) => (i === 0 ? { ...p, value: 84 } : p))
    turned.reason = { ...turned.reason, source: 'own-idea' }
    expect((await two.put(`/setups/${turned.id}`, turned)).status).toBe(200)
    const bytes = await bundleOf(two)
    const onBike = async () => Garage.parse((await one.get('/garage')).body).bikes[0].currentSetupId
    const { look } = await bring(one, bytes)
    expect(look.differing).toMatchObject([{ kind: 'bikes', fields: [{ path: 'on the bike' }] }])
    expect(await onBike()).toBe(s.setup.id)
    await bring(one, bytes, choose({ differing: 'theirs' }))
    expect(await onBike()).toBe(turned.id)
    await one.store.close()
    await two.store.close()
  })
  it('changed here after it was looked at, it is not brought in', async () => {
    const { one, two, s } = await parted()
    await two.put(`/trails/${s.trail.id}`, { ...s.trail, version: 1, note: 'theirs' })
    const { id, looked } = await arrive(one, await bundleOf(two))
    expect(looked.status).toBe(200)
    await one.put(`/trails/${s.trail.id}`, { ...s.trail, version: 1, note: 'ours' })
    const before = await world(one)
    const refused = await one.put(`/data/arrivals/${id}/take`, choose({ differing: 'theirs' }))
    expect(refused).toMatchObject({ status: 409, body: { code: 'bundle.overtaken' } })
    expect(await world(one)).toEqual(before)
    // Looked at again, it says so and can be taken.
    const again = BundleLook.parse((await one.send('PUT', `/data/arrivals/${id}/look`)).body)
    expect(again.differing[0].fields).toEqual([{ path: 'note', ours: 'ours', theirs: 'theirs' }])
    expect((await one.put(`/data/arrivals/${id}/take`, choose())).status).toBe(200)
    await one.store.close()
    await two.store.close()
  })
})

describe('one thing under two ids', () => {
  it('a trail of the same name and sections can be ours: marks and days follow', async () => {
    const from = await startApp()
    const to = await startApp()
    const theirs = await startStory(from)
    await from.put(
      `/runs/${theirs.run.id}/feel`,
      makeFeel(theirs.run.id, {
        marks: [
          { id: uuid(), word: 'kicks', sectionId: theirs.trail.sections[1].id, end: 'rear', strength: 2 },
        ],
      }),
    )
    const ours = await startStory(to)
    const { id, looked } = await arrive(to, await bundleOf(from))
    const look = BundleLook.parse(looked.body)
    const trail = look.like.find((l) => l.kind === 'trails')!
    expect(trail).toMatchObject({ key: theirs.trail.id, asKey: ours.trail.id, isAlike: true })
    const taken = look.like.map(({ kind, key, asKey }) => ({ kind, key, asKey }))
    expect(new Set(taken.map((x) => x.kind))).toEqual(new Set(['riders', 'trails', 'units']))
    const went = await to.put(`/data/arrivals/${id}/take`, choose({ taken }))
    expect(went.status, to.logged.join()).toBe(200)
    const garage = Garage.parse((await to.get('/garage')).body)
    expect([garage.riders.length, garage.trails.length, garage.units.length, garage.bikes.length]).toEqual([
      1, 1, 2, 2,
    ])
    const day = DayBundle.parse((await to.get(`/days/${theirs.day.id}`)).body)
    expect(day.trail.id).toBe(ours.trail.id)
    expect(day.rider.id).toBe(ours.rider.id)
    expect(day.feels[0].marks[0].sectionId).toBe(ours.trail.sections[1].id)
    expect(day.setups[0].positions.map((p) => p.adjusterId)).toEqual(
      ours.setup.positions.map((p) => p.adjusterId),
    )
    const lies = JSON.stringify(await world(to))
    for (const gone of [theirs.trail.id, theirs.rider.id, theirs.front.id, theirs.trail.sections[0].id])
      expect(lies).not.toContain(gone)
    await from.store.close()
    await to.store.close()
  })
  it('without being chosen it is a second one; a choice that was not offered is refused', async () => {
    const from = await startApp()
    const to = await startApp()
    const theirs = await startStory(from)
    const ours = await startStory(to)
    const { id } = await arrive(to, await bundleOf(from))
    const wrong = choose({ taken: [{ kind: 'bikes', key: theirs.bike.id, asKey: ours.bike.id }] })
    expect((await to.put(`/data/arrivals/${id}/take`, wrong)).status).toBe(422)
    expect((await to.put(`/data/arrivals/${id}/take`, choose())).status).toBe(200)
    expect(Garage.parse((await to.get('/garage')).body).trails).toHaveLength(2)
    await from.store.close()
    await to.store.close()
  })
})

describe('taking it back', () => {
  const imports = async (t: TestApp) => DataState.parse((await t.get('/data')).body).imports
  it('leaves the house as it was, byte by byte, what was replaced too', async () => {
    const from = await startApp()
    const to = await startApp()
    const s = await startStory(from)
    await bring(to, await bundleOf(from))
    await fillWorld(from, onePlan)
    await from.put(`/runs/${s.run.id}/feel`, makeFeel(s.run.id, { rating: 9 }))
    await to.put(`/runs/${s.run.id}/feel`, makeFeel(s.run.id, { rating: 4 }))
    const before = await world(to)
    const { done } = await bring(to, await bundleOf(from), choose({ differing: 'theirs' }))
    expect(done.replaced).toBe(1)
    expect(await world(to)).not.toEqual(before)
    expect((await imports(to)).map((i) => i.id)[0]).toBe(done.id)
    expect((await to.send('DELETE', `/data/imports/${done.id}`)).status).toBe(200)
    expect(await world(to)).toEqual(before)
    expect(await imports(to)).toHaveLength(1)
    expect((await to.send('DELETE', `/data/imports/${done.id}`)).status).toBe(404)
    await from.store.close()
    await to.store.close()
  })
  it.each([
    ['a run was ridden on a day of it', (t: TestApp, s: Story) => run(t, s)],
    [
      'a record of it was changed',
      (t: TestApp, s: Story) => t.put(`/trails/${s.trail.id}`, { ...s.trail, version: 1, note: 'x' }),
    ],
    ['a record of it was put away', (t: TestApp, s: Story) => t.send('DELETE', `/days/${s.day.id}`)],
    ['a setup of it is kept by a name', (t: TestApp, s: Story) => keep(t, s)],
  ] as const)('is refused when %s, and nothing is taken back', async (_, doing) => {
    const from = await startApp()
    const to = await startApp()
    const s = await startStory(from)
    const { done } = await bring(to, await bundleOf(from))
    expect((await doing(to, s)).status).toBe(200)
    const before = await world(to)
    expect(await to.send('DELETE', `/data/imports/${done.id}`)).toMatchObject({
      status: 409,
      body: { code: 'import.in-use' },
    })
    expect(await world(to)).toEqual(before)
    await from.store.close()
    await to.store.close()
  })
})
type Story = Awaited<ReturnType<typeof startStory>>
function run(t: TestApp, s: Story) {
  const later = makeRun(s.day, s.setup.id)
  return t.put(`/runs/${later.id}`, later)
}
const keep = (t: TestApp, s: Story) =>
  t.put(`/kept/${s.setup.id}`, {
    id: s.setup.id,
    version: 0,
    bikeId: s.bike.id,
    name: 'Roots',
    purposes: [],
    found: { place: '', airTempC: null, altitudeM: null, surface: null, pace: null, kitMassKg: null },
    tyreFrontPsi: null,
    tyreRearPsi: null,
    geometry: '',
    words: '',
    by: '',
    keptAt: '2031-05-02T12:00:00.000Z',
  })

describe('a bundle of an earlier version', () => {
  it.each(['0000', '0001', '0002', '0004'])(
    'shape %s is lifted by the migrations of a data file',
    async (shape) => {
      const bytes = gunzipSync(
        readFileSync(join(import.meta.dirname, 'fixtures', `shape-${shape}.sqlite.gz`)),
      )
      const dir = mkdtempSync(join(tmpdir(), 'old bundle '))
      writeFileSync(join(dir, 'old.sqlite'), bytes)
      const { packBundle } = await import('../bundle/pack.ts')
      const { head } = await packBundle(
        {
          file: join(dir, 'old.sqlite'),
          to: join(dir, 'old.zip'),
          order: { scope: everything, with: allAlong },
          migrations,
          by: 'old',
          at: '2031-05-02T12:00:00.000Z',
        },
        () => undefined,
      )
      expect(head.shape.startsWith(shape)).toBe(true)
      // The file itself, lifted, is what the bundle has to become.
      const ownDir = mkdtempSync(join(tmpdir(), 'lifted '))
      writeFileSync(join(ownDir, 'test.sqlite'), bytes)
      const own = await startApp(ownDir)
      const to = await startApp()
      await bring(to, new Uint8Array(readFileSync(join(dir, 'old.zip'))))
      expect(await world(to)).toEqual(await world(own))
      await own.store.close()
      await to.store.close()
    },
  )
})

describe('docs/file-formats.md', () => {
  it('names every kind of record that a bundle may have, those that others stand on first', () => {
    const doc = readFileSync(join(import.meta.dirname, '..', '..', 'docs', 'file-formats.md'), 'utf8')
    const [, list] = /<!-- kinds -->([\s\S]*?)<!-- \/kinds -->/.exec(doc)!
    expect([...list.matchAll(/`(\w+)`/g)].map((m) => m[1])).toEqual(kinds.map((k) => k.table))
  })
})

describe('one at a time', () => {
  it('a second is refused and costs nothing; what is given up is said to be, and the next goes', async () => {
    const t = await startApp()
    await startStory(t)
    let waits = true
    const bundler: Bundler = (job, onProgress, signal) => {
      if (!waits) return bundleHere(job, onProgress, signal)
      onProgress(0.4, 'Writing the bundle')
      const given = new Refusal('bundle.cancelled', 'It was cancelled; nothing was changed.')
      return new Promise((_, reject) => signal.addEventListener('abort', () => reject(given)))
    }
    const now = () => '2031-05-02T12:00:00.000Z'
    const { store, incomingDir } = t
    const porter = new Porter({ store, incomingDir, migrations, bundler, now, version: 'test' })
    const order = { scope: everything, with: allAlong }
    const under = porter.make(uuid(), order)
    await expect.poll(() => porter.work).toEqual({ doing: 'Writing the bundle', share: 0.4 })
    await expect(porter.make(uuid(), order)).rejects.toMatchObject({ code: 'storage.busy' })
    porter.cancel()
    await expect(under).rejects.toMatchObject({ code: 'bundle.cancelled' })
    expect(porter.work).toBeNull()
    waits = false
    const made = await porter.make(uuid(), order)
    expect(porter.fetch(made.id).made.bytes).toBeGreaterThan(1000)
    await t.store.close()
  })
})

describe('leaving it', () => {
  it('what was looked at and not brought in leaves nothing, here or on the disk', async () => {
    const from = await startApp()
    const to = await startApp()
    await startStory(from)
    const before = await world(to)
    const { id } = await arrive(to, await bundleOf(from))
    expect(leftovers(to).length).toBeGreaterThan(0)
    expect((await to.send('DELETE', `/data/arrivals/${id}`)).status).toBe(200)
    expect(leftovers(to)).toEqual([])
    expect(await world(to)).toEqual(before)
    expect((await to.put(`/data/arrivals/${id}/take`, choose())).status).toBe(409)
    await from.store.close()
    await to.store.close()
  })
  it('a bundle that was made is here until the next one', async () => {
    const t = await startApp()
    await startStory(t)
    await bundleOf(t)
    await bundleOf(t)
    expect(leftovers(t)).toHaveLength(1)
    expect((await t.get(`/data/bundles/${uuid()}`)).status).toBe(404)
    expect(
      (await t.put(`/data/bundles/${uuid()}`, { scope: { kind: 'rider', id: uuid() }, with: allAlong }))
        .status,
    ).toBe(404)
    expect(existsSync(join(t.incomingDir, leftovers(t)[0]))).toBe(true)
    await t.store.close()
  })
})
