import { v7 as uuid } from 'uuid'
import { describe, expect, it } from 'vitest'
import type { DayBundle, DaySummary } from '#contract/endpoints'
import { seededRandom } from '#core/numeric/random'
import { startApp } from './harness.ts'
import { makeFeel, makeRun, startStory } from './story.ts'

describe('the list of days', () => {
  it('says of each day what the day itself says', async () => {
    const t = await startApp()
    const draw = seededRandom(11)
    for (let rider = 0; rider < 3; rider++) {
      const s = await startStory(t)
      for (let d = 0; d < 4; d++) {
        const date = `2031-06-${10 + ((rider * 7 + d * 3) % 18)}`
        const day = { ...s.day, id: uuid(), version: 0, date, settledSetupId: d === 2 ? s.setup.id : null }
        expect((await t.put(`/days/${day.id}`, day)).status).toBe(200)
        for (let n = 0; n < 5; n++) {
          const kind = draw() < 0.6 ? 'counted' : draw() < 0.5 ? 'void' : 'warm-up'
          const run = makeRun(day, s.setup.id, {
            // Saved in another order than ridden.
            startedAt: `${date}T1${9 - n}:00:00.000Z`,
            kind,
            voidReason: kind === 'void' ? 'a fall' : null,
          })
          expect((await t.put(`/runs/${run.id}`, run)).status).toBe(200)
          const rating = draw() < 0.3 ? null : Math.round(draw() * 20) / 2
          if (draw() < 0.8) await t.put(`/runs/${run.id}/feel`, makeFeel(run.id, { rating }))
          if (draw() < 0.2) await t.send('DELETE', `/runs/${run.id}`)
        }
      }
    }
    const list = (await t.get('/days')).body as DaySummary[]
    expect(list).toHaveLength(15)
    expect(list.map((d) => d.date)).toEqual([...list.map((d) => d.date)].sort().reverse())
    for (const summary of list) {
      const b = (await t.get(`/days/${summary.id}`)).body as DayBundle
      const counted = b.runs.filter((r) => r.kind === 'counted')
      const ratings = counted.flatMap((r) => b.feels.find((f) => f.runId === r.id)?.rating ?? [])
      expect(summary).toEqual({
        id: b.day.id,
        date: b.day.date,
        riderId: b.day.riderId,
        riderName: b.rider.name,
        bikeId: b.bike.id,
        bikeName: b.bike.name,
        trailName: b.trail.name,
        runs: b.runs.length,
        countedRuns: counted.length,
        lastRating: ratings.at(-1) ?? null,
        bestRating: ratings.length > 0 ? Math.max(...ratings) : null,
        settled: b.day.settledSetupId !== null,
      })
    }
    await t.store.close()
  })
})
