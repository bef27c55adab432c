import { v7 as uuid } from 'uuid'
import { afterEach, beforeEach, describe, expect, it } from 'vitest'
import type { DayBundle } from '#contract/endpoints'
import type { TrailDay } from '#contract/day'
import { startApp, type TestApp } from './harness.ts'
import { makeRider, makeRun, startStory } from './story.ts'

let t: TestApp
let s: Awaited<ReturnType<typeof startStory>>
beforeEach(async () => {
  t = await startApp()
  s = await startStory(t)
})
afterEach(() => t.store.close())

/** A day on the same bike, with a run unless told otherwise. */
async function dayOn(date: string, over: Partial<TrailDay> = {}, ridden = true): Promise<string> {
  const day: TrailDay = { ...s.day, id: uuid(), version: 0, date, ...over }
  expect((await t.put(`/days/${day.id}`, day)).status).toBe(200)
  if (ridden) {
    const run = makeRun(day, s.setup.id)
    expect((await t.put(`/runs/${run.id}`, run)).status).toBe(200)
  }
  return day.id
}
const earlier = async (id = s.day.id) => {
  const { status, body } = await t.get(`/days/${id}/earlier`)
  expect(status).toBe(200)
  return (body as DayBundle[]).map((b) => b.day.id)
}

describe('the days before', () => {
  it('are the ridden ones of this rider on this bike, newest first, three at most', async () => {
    const [a, b, c, d] = [
      await dayOn('2031-03-01'),
      await dayOn('2031-04-20'),
      await dayOn('2031-04-02'),
      await dayOn('2031-05-01'),
    ]
    expect(await earlier()).toEqual([d, b, c])
    expect(await earlier(c)).toEqual([a])
  })
  it('never hold the day itself, a later one, one that was only planned, or one that was removed', async () => {
    await dayOn('2031-05-03')
    await dayOn('2031-04-01', {}, false)
    const gone = await dayOn('2031-04-02')
    await t.send('DELETE', `/days/${gone}`)
    expect(await earlier()).toEqual([])
  })
  it('are never another rider’s on the same bike', async () => {
    const other = makeRider()
    await t.put(`/riders/${other.id}`, other)
    await dayOn('2031-04-01', { riderId: other.id })
    expect(await earlier()).toEqual([])
  })
  it('of a day that is not there are a 404', async () => {
    expect((await t.get(`/days/${uuid()}/earlier`)).status).toBe(404)
  })
})
