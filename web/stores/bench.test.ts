// @vitest-environment happy-dom
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import type { Bench, SagReading } from '#contract/bench'
import { startApp, type TestApp } from '../../server/test/harness.ts'
import { startStory } from '../../server/test/story.ts'
import type { Outbox } from '../api/outbox.ts'
import { memoryShelf, type Shelf } from '../api/shelves.ts'
import { openPage, quiet } from '../test/office.ts'
import { useBench } from './bench.ts'
import { useGarage } from './garage.ts'

let t: TestApp
let story: Awaited<ReturnType<typeof startStory>>
let outbox: Outbox
let shelf: Shelf
let online = true
beforeEach(async () => {
  localStorage.clear()
  online = true
  t = await startApp()
  story = await startStory(t)
  vi.stubGlobal('fetch', (path: string, init?: RequestInit) =>
    online ? t.app.request(path, init) : Promise.reject(new TypeError('offline')),
  )
  shelf = memoryShelf()
  outbox = await openPage(shelf)
})
afterEach(async () => {
  online = true
  await quiet(outbox)
  await t.store.close()
})

const begun = async () => {
  const bench = useBench()
  await bench.open(story.bike.id)
  bench.begin()
  await vi.waitFor(() => expect(bench.bench).not.toBeNull())
  return bench
}
const saved = () => quiet(outbox)
const held = async () => (await t.get(`/bikes/${story.bike.id}/benches`)).body as Bench[]
const psi = () => story.rear.adjusters[0].id
const reading = (over: Partial<SagReading> = {}): SagReading => ({
  id: crypto.randomUUID(),
  end: 'rear',
  at: '2031-05-02T09:00:00Z',
  method: 'ring',
  posture: 'seated',
  together: false,
  sagMm: 16.5,
  pressurePsi: 80,
  springRateNPerMm: null,
  preloadTurns: null,
  spacers: null,
  gaugeId: null,
  marks: [],
  leftOut: false,
  ...over,
})

describe('a bench', () => {
  it('begins where the bike stands, as it is known, and is kept as it is worked on', async () => {
    const bench = await begun()
    expect(bench.positionOf(psi())).toBe(80)
    expect(bench.knownOf(psi())!.at).toBe('2026-05-02T08:00:00.000Z')
    bench.setPosition('rear', psi(), 95)
    await saved()
    const kept = (await held())[0].positions.find((p) => p.adjusterId === psi())!
    expect(kept).toMatchObject({ value: 95, known: { how: 'set' } })
    expect(bench.saving).toBe('saved')
  })
  it('of a bike nobody has read begins with nothing at all', async () => {
    const bike = { ...story.bike, id: crypto.randomUUID(), name: 'New bike' }
    await t.put(`/bikes/${bike.id}`, bike)
    const bench = useBench()
    await bench.open(bike.id)
    bench.begin()
    await vi.waitFor(() => expect(bench.bench).not.toBeNull())
    expect(bench.bench!.positions).toEqual([])
    expect(bench.positionOf(psi())).toBeNull()
  })
  it('walked with "next" only ends in no baseline', async () => {
    const bench = await begun()
    bench.assume('rear', psi(), 141, '1:1 rule for shocks')
    await vi.waitFor(() => expect(bench.knownOf(psi())!.how).toBe('assumed'))
    for (const s of bench.states) expect(bench.done(s.step), s.step).toBe(s.step === 'who')
    expect(bench.hasBaseline).toBe(false)
    await expect(bench.finish('Baseline')).rejects.toThrow(/Nothing was read/)
    expect(useGarage().currentSetup(story.bike.id)!.id).toBe(story.setup.id)
  })
  it('knows the riding weight, and whether anybody said what the kit weighs', async () => {
    const bench = await begun()
    expect([bench.massKg, bench.benchRider.kitKnown]).toEqual([73, true])
    await t.put(`/riders/${story.rider.id}`, { ...story.rider, version: 1, kitMassKg: null })
    await useGarage().load()
    expect([bench.massKg, bench.benchRider.kitKnown]).toEqual([68, false])
    expect(bench.done('who')).toBe(false)
    await t.put(`/riders/${story.rider.id}`, { ...story.rider, version: 2, bodyMassKg: null })
    await useGarage().load()
    expect(bench.massKg).toBeNull()
  })
  it('is kept on the device while the server is away, and sent when the page is opened again', async () => {
    const bench = await begun()
    await saved()
    online = false
    bench.setPosition('rear', psi(), 101)
    await saved()
    online = true
    await outbox.close()
    outbox = await openPage(shelf)
    const again = useBench()
    await again.open(story.bike.id)
    expect(again.positionOf(psi())).toBe(101)
    await outbox.flush()
    await saved()
    expect((await held())[0].positions.find((p) => p.adjusterId === psi())!.value).toBe(101)
  })
  it('changed elsewhere: a person chooses', async () => {
    const bench = await begun()
    await saved()
    const [theirs] = await held()
    await t.put(`/benches/${theirs.id}`, { ...theirs, place: 'Fernhollow' })
    bench.set({ place: 'Stonegarth' })
    await vi.waitFor(() => expect(bench.conflict).not.toBeNull())
    expect(bench.conflict!.theirs.place).toBe('Fernhollow')
    await bench.settleConflict('mine')
    await saved()
    expect((await held())[0].place).toBe('Stonegarth')
  })
  it('an adjuster added since is unread, not where it usually stands', async () => {
    const bench = await begun()
    await saved()
    const lever = {
      id: crypto.randomUUID(),
      alias: null,
      tool: 'hand' as const,
      kind: 'lever' as const,
      role: 'lever' as const,
      positions: ['Open', 'Firm'],
    }
    await useGarage().saveUnit({ ...story.rear, version: 1, adjusters: [...story.rear.adjusters, lever] })
    expect(bench.positionOf(lever.id)).toBeNull()
    expect(bench.positionOf('no such part')).toBeNull()
  })
  it('says the mean of repeats alone, not of other pressures, nor of both ends together', async () => {
    const bench = await begun()
    expect(bench.sagNowPct('rear')).toBeNull()
    bench.set({
      readings: [
        reading({ pressurePsi: 70, sagMm: 22 }),
        reading(),
        reading({ sagMm: 15.4 }),
        reading({ leftOut: true, sagMm: 40 }),
        reading({ together: true, sagMm: 20 }),
      ],
    })
    await vi.waitFor(() => expect(bench.sagNowPct('rear')).toBeCloseTo(29, 9))
    bench.setPosition('rear', psi(), 90)
    await vi.waitFor(() => expect(bench.sagNowPct('rear')).toBeNull())
  })
  it('left open over night gives its air to nothing that is pumped the next day, until somebody says that it holds', async () => {
    const bench = await begun()
    bench.sayAir({ airTempC: 12, altitudeM: 350, place: 'Fernhollow' })
    await vi.waitFor(() => expect(bench.bench!.airTempC).toBe(12))
    const { finishedSetupId, airSaidAt } = bench.bench!
    expect([finishedSetupId, typeof airSaidAt]).toEqual([null, 'string'])
    const yesterday = new Date(Date.now() - 24 * 3600_000).toISOString()
    bench.set({ airSaidAt: yesterday })
    bench.setPosition('rear', psi(), 91)
    await vi.waitFor(() => expect(bench.positionOf(psi())).toBe(91))
    const nobodys = { how: 'set', airTempC: null, altitudeM: null, place: '' }
    expect(bench.knownOf(psi())).toMatchObject(nobodys)
    expect(bench.airNow().airTempC).toBeNull()
    bench.sayAir({})
    await vi.waitFor(() => expect(bench.airNow().airTempC).toBe(12))
    bench.setPosition('rear', psi(), 92)
    await vi.waitFor(() => expect(bench.positionOf(psi())).toBe(92))
    expect(bench.knownOf(psi())).toMatchObject({ airTempC: 12, altitudeM: 350, place: 'Fernhollow' })
  })
  it('begins with the place of the last, which is nobody’s word of today', async () => {
    const bench = await begun()
    bench.sayAir({ airTempC: 12, altitudeM: 350, place: 'Fernhollow' })
    bench.set({ airSaidAt: '2026-05-02T08:00:00.000Z' })
    bench.setPosition('rear', psi(), 92)
    await vi.waitFor(() => expect(bench.positionOf(psi())).toBe(92))
    await bench.finish('Baseline, May')
    await saved()
    await bench.open(story.bike.id)
    bench.begin()
    await vi.waitFor(() => expect(bench.bench?.place).toBe('Fernhollow'))
    bench.setPosition('rear', psi(), 93)
    await vi.waitFor(() => expect(bench.positionOf(psi())).toBe(93))
    expect(bench.knownOf(psi())).toMatchObject({ how: 'set', altitudeM: null, place: '' })
  })
  it('ends in a named baseline that is on the bike, with what it was found in', async () => {
    const bench = await begun()
    bench.sayAir({ airTempC: 12, altitudeM: 350, place: 'Fernhollow' })
    await vi.waitFor(() => expect(bench.bench!.airTempC).toBe(12))
    bench.setPosition('rear', psi(), 92)
    await vi.waitFor(() => expect(bench.positionOf(psi())).toBe(92))
    const at = new Date().toISOString()
    bench.set({ readings: [reading({ at, pressurePsi: 92 }), reading({ at, pressurePsi: 80, sagMm: 18 })] })
    await vi.waitFor(() => expect(bench.sagNowPct('rear')).toBeCloseTo(30, 9))
    const setup = await bench.finish('Baseline, May')
    expect(setup).toMatchObject({
      name: 'Baseline, May',
      parentId: story.setup.id,
      foundIn: {
        airTempC: 12,
        place: 'Fernhollow',
        sagFrontPct: null,
        sagRearPct: 30,
        postureRear: 'seated',
      },
    })
    expect(setup.positions.find((p) => p.adjusterId === psi())).toMatchObject({
      value: 92,
      known: { how: 'set', airTempC: 12, altitudeM: 350, place: 'Fernhollow' },
    })
    await saved()
    expect(useGarage().currentSetup(story.bike.id)!.id).toBe(setup.id)
    expect((await held())[0].finishedSetupId).toBe(setup.id)
    await bench.open(story.bike.id)
    expect(bench.bench).toBeNull()
    expect(bench.past).toHaveLength(1)
  })
  describe('on a slow line', () => {
    const other = async () => {
      const bike = { ...story.bike, id: crypto.randomUUID(), name: 'Second bike' }
      await t.put(`/bikes/${bike.id}`, bike)
      return bike
    }
    /** Answers to what matches wait until they are let go. */
    function hold(what: (path: string, init?: RequestInit) => boolean) {
      let letGo!: () => void
      const gate = new Promise<void>((done) => (letGo = done))
      vi.stubGlobal('fetch', async (path: string, init?: RequestInit) => {
        const answer = await t.app.request(path, init)
        if (what(path, init)) await gate
        return answer
      })
      return letGo
    }
    it('a baseline that is still being saved ends its own bench, not that of the bike gone on to', async () => {
      const second = await other()
      const bench = await begun()
      const first = bench.bench!.id
      bench.setPosition('rear', psi(), 92)
      await saved()
      const letGo = hold((path, init) => path.includes('/setups/') && init?.method === 'PUT')
      const finishing = bench.finish('Baseline, May')
      await bench.open(second.id)
      bench.begin()
      expect(bench.bike!.id).toBe(second.id)
      letGo()
      const setup = await finishing
      await saved()
      expect(bench.bench!.finishedSetupId).toBeNull()
      expect((await held()).find((b) => b.id === first)!.finishedSetupId).toBe(setup.id)
    })
    it('what was changed on it while its baseline was being saved is not lost', async () => {
      const bench = await begun()
      bench.setPosition('rear', psi(), 92)
      await saved()
      const letGo = hold((path, init) => path.includes('/setups/') && init?.method === 'PUT')
      const finishing = bench.finish('Baseline, May')
      bench.set({ readings: [reading({ pressurePsi: 92 })] })
      letGo()
      await finishing
      await saved()
      expect((await held())[0]).toMatchObject({
        finishedSetupId: expect.any(String) as string,
        readings: [{ sagMm: 16.5 }],
      })
    })
    it('the late list of a bike that was left says nothing of the one that is there', async () => {
      const second = await other()
      const bench = await begun()
      await saved()
      const letGo = hold((path) => path.includes(`/bikes/${second.id}/benches`))
      const late = bench.open(second.id)
      await bench.open(story.bike.id)
      const at = bench.bench!.id
      letGo()
      await late
      expect([bench.bike!.id, bench.bench!.id]).toEqual([story.bike.id, at])
    })
  })
})
