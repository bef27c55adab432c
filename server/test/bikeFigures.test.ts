import { v7 as uuid } from 'uuid'
import { afterEach, beforeEach, describe, expect, it } from 'vitest'
import { DayBundle } from '#contract/endpoints'
import { EndFigures, type RunFigures } from '#contract/settingFigures'
import { startApp, type TestApp } from './harness.ts'
import { importFile, makeFile, makeUpload, startStory } from './story.ts'

let t: TestApp
beforeEach(async () => void (t = await startApp()))
afterEach(() => t.store.close())
const figures = async (bikeId: string) => (await t.get(`/bikes/${bikeId}/figures`)).body as RunFigures[]

describe('the few figures of a bike', () => {
  it('are those of its recordings, run by run, and nothing of what was taken off or does not count', async () => {
    const s = await startStory(t)
    expect(await figures(s.bike.id)).toEqual([])
    const id = uuid()
    await importFile(t, id, makeUpload(s.run.id), makeFile())
    const day = DayBundle.parse((await t.get(`/days/${s.day.id}`)).body)
    const { whole } = day.recordings[0].analysis!
    const few = (m: typeof whole.front) =>
      m && Object.fromEntries(Object.keys(EndFigures.shape).map((k) => [k, m[k as keyof typeof m]]))
    const [read] = await figures(s.bike.id)
    expect(read).toMatchObject({ runId: s.run.id, setupId: s.run.setupId, dayId: s.day.id })
    for (const end of ['front', 'rear'] as const)
      for (const [key, value] of Object.entries(few(whole[end])!)) {
        const told = read[end]![key as keyof EndFigures]
        if (value === null) expect(told).toBeNull()
        else expect(told).toBeCloseTo(value as number, 9)
      }
    expect(read.front!.rideHeightPct).toBeGreaterThan(5)
    await t.send('DELETE', `/recordings/${id}`)
    expect(await figures(s.bike.id)).toEqual([])
    await t.put(`/recordings/${id}/restore`, undefined)
    const [run] = day.runs
    await t.put(`/runs/${run.id}`, { ...run, kind: 'warm-up' })
    expect(await figures(s.bike.id)).toEqual([])
  })
  it('tell no depth of a sensor that went deeper than its ring: nothing is normal by that', async () => {
    const s = await startStory(t)
    await importFile(t, uuid(), makeUpload(s.run.id), makeFile())
    const day = DayBundle.parse((await t.get(`/days/${s.day.id}`)).body)
    const deepest = day.recordings[0].analysis!.whole.front!.depthMaxPct
    const strokeMm = day.units.find((u) => u.end === 'front')!.strokeMm
    const [before] = await figures(s.bike.id)
    const ringAt = async (pct: number) => {
      const [run] = DayBundle.parse((await t.get(`/days/${s.day.id}`)).body).runs
      const put = await t.put(`/runs/${run.id}`, { ...run, ringFrontMm: Math.round((pct / 100) * strokeMm) })
      expect(put.status).toBe(200)
      return (await figures(s.bike.id))[0]
    }
    expect((await ringAt(deepest)).front).toEqual(before.front)
    const wrong = await ringAt(deepest - 8)
    expect(wrong.front).toEqual({ ...before.front, rideHeightPct: null, depthP95Pct: null })
    expect(wrong.rear).toEqual(before.rear)
  })
  it('of a bike that is not there are none, and that is said', async () => {
    expect((await t.get(`/bikes/${uuid()}/figures`)).body).toMatchObject({ code: 'record.not-found' })
  })
})
