// @vitest-environment happy-dom
import { createPinia, setActivePinia } from 'pinia'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import type { Bench, SagReading } from '#contract/bench'
import { startApp, startStory, type TestApp } from '../../server/test/harness.ts'
import { keepDraft, readDraft } from '../support/drafts.ts'
import { useBench } from './bench.ts'
import { useGarage } from './garage.ts'

let t: TestApp
let story: Awaited<ReturnType<typeof startStory>>
let online = true
beforeEach(async () => {
  localStorage.clear()
  online = true
  t = await startApp()
  story = await startStory(t)
  vi.stubGlobal('fetch', (path: string, init?: RequestInit) =>
    online ? t.app.request(path, init) : Promise.reject(new TypeError('offline')),
  )
  setActivePinia(createPinia())
})
afterEach(() => t.store.close())

const begun = async () => {
  const bench = useBench()
  await bench.open(story.bike.id)
  bench.begin()
  return bench
}
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
  spacers: 0,
  leftOut: false,
  ...over,
})

describe('a bench', () => {
  it('begins where the bike stands, and is kept as it is worked on', async () => {
    const bench = await begun()
    expect(bench.positionOf(psi())).toBe(80)
    bench.setPosition('rear', psi(), 95)
    expect(await bench.save()).toBe(true)
    expect((await held())[0].positions.find((p) => p.adjusterId === psi())!.value).toBe(95)
    expect(bench.saving).toBe('saved')
    expect(readDraft(`bench:${story.bike.id}`)).toBeNull()
  })
  it('knows the riding weight with kit and water, and none without a body weight', async () => {
    const bench = await begun()
    expect(bench.massKg).toBe(73)
    await t.put(`/riders/${story.rider.id}`, { ...story.rider, version: 1, bodyMassKg: null })
    await useGarage().load()
    expect(bench.massKg).toBeNull()
  })
  it('is kept on the device while the server is away, and sent when it is opened again', async () => {
    const bench = await begun()
    await bench.save()
    online = false
    bench.setPosition('rear', psi(), 101)
    expect(await bench.save()).toBe(false)
    expect(bench.saving).toBe('kept-here')
    online = true
    setActivePinia(createPinia())
    const again = useBench()
    await again.open(story.bike.id)
    expect(again.positionOf(psi())).toBe(101)
    await again.save()
    expect((await held())[0].positions.find((p) => p.adjusterId === psi())!.value).toBe(101)
  })
  it('changed elsewhere: a person chooses', async () => {
    const bench = await begun()
    await bench.save()
    const [theirs] = await held()
    await t.put(`/benches/${theirs.id}`, { ...theirs, place: 'Fernhollow' })
    bench.set({ place: 'Stonegarth' })
    expect(await bench.save()).toBe(false)
    expect(bench.conflict!.theirs.place).toBe('Fernhollow')
    bench.settleConflict('mine')
    await bench.save()
    expect((await held())[0].place).toBe('Stonegarth')
  })
  it('a draft older than the server’s bench is put to the person, not dropped', async () => {
    const bench = await begun()
    await bench.save()
    const mine = { ...bench.bench!, place: 'typed in a tunnel' }
    await t.put(`/benches/${mine.id}`, { ...bench.bench!, place: 'Fernhollow' })
    keepDraft(`bench:${story.bike.id}`, mine)
    await bench.open(story.bike.id)
    expect(bench.conflict!.mine.place).toBe('typed in a tunnel')
    bench.settleConflict('theirs')
    expect(bench.bench!.place).toBe('Fernhollow')
  })
  it('an adjuster added since stands where it can', async () => {
    const bench = await begun()
    await bench.save()
    const lever = {
      id: crypto.randomUUID(),
      alias: null,
      tool: 'hand' as const,
      kind: 'lever' as const,
      role: 'lever' as const,
      positions: ['Open', 'Firm'],
    }
    await useGarage().saveUnit({ ...story.rear, version: 1, adjusters: [...story.rear.adjusters, lever] })
    expect(bench.positionOf(lever.id)).toBe(0)
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
    expect(bench.sagNowPct('rear')).toBeCloseTo(29, 9)
  })
  it('ends in a named baseline that is on the bike, with what it was found in', async () => {
    const bench = await begun()
    bench.set({ airTempC: 12, altitudeM: 350, place: 'Fernhollow', readings: [reading()] })
    bench.setPosition('rear', psi(), 92)
    const setup = await bench.finish('Baseline, May')
    expect(setup).toMatchObject({
      name: 'Baseline, May',
      parentId: story.setup.id,
      foundIn: { airTempC: 12, place: 'Fernhollow', sagFrontPct: null, sagRearPct: 30 },
    })
    expect(useGarage().currentSetup(story.bike.id)!.id).toBe(setup.id)
    expect((await held())[0].finishedSetupId).toBe(setup.id)
    await bench.open(story.bike.id)
    expect(bench.bench).toBeNull()
    expect(bench.past).toHaveLength(1)
  })
  it('steps go stale in the page as in the core', async () => {
    const bench = await begun()
    bench.done('sag-rear')
    bench.skip('compression', 'none fitted')
    bench.setPosition('rear', psi(), 99)
    expect(bench.states.find((s) => s.step === 'sag-rear')!.state).toBe('stale')
  })
})
