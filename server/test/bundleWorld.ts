import { v7 as uuid } from 'uuid'
import type { TestApp } from './harness.ts'
import {
  importFile,
  makeFeel,
  makeFile,
  makeReason,
  makeRider,
  makeRun,
  makeSetup,
  makeUpload,
  startStory,
} from './story.ts'

/** What a world is made of; a property test draws it. */
export interface WorldPlan {
  /** A story each: rider, bike, trail, day and run; what is said on it, and how much more is ridden. */
  riders: {
    note: string
    runs: number
    changes: number
    recorded: boolean
    /** Things that were put away. */
    awayRun: boolean
    awayRider: boolean
    kept: boolean
    inTent: boolean
    wished: boolean
  }[]
}

const must = (answer: { status: number; body: unknown }) => {
  if (answer.status !== 200) throw new Error(JSON.stringify(answer.body))
}

/** Fills an empty house as people fill it: by what they save. */
export async function fillWorld(t: TestApp, plan: WorldPlan) {
  const tentId = uuid()
  const stories = []
  for (const [i, p] of plan.riders.entries()) {
    const s = await startStory(t)
    stories.push(s)
    must(await t.put(`/riders/${s.rider.id}`, { ...s.rider, version: 1, note: p.note, name: `Rider ${i}` }))
    let present = s.setup
    for (let c = 0; c < p.changes; c++) {
      const [first, ...rest] = present.positions
      present = {
        ...present,
        id: uuid(),
        parentId: present.id,
        dayId: s.day.id,
        madeAt: `2031-05-02T1${c}:00:00.000Z`,
        positions: [{ ...first, value: 80 + c + 1 }, ...rest],
        reason: makeReason('own-idea', { text: p.note.slice(0, 60) }),
      }
      must(await t.put(`/setups/${present.id}`, present))
    }
    const runs = [s.run]
    for (let r = 0; r < p.runs; r++) {
      const run = makeRun(s.day, present.id, { startedAt: `2031-05-02T1${r}:30:00.000Z`, note: p.note })
      must(await t.put(`/runs/${run.id}`, run))
      must(await t.put(`/runs/${run.id}/feel`, makeFeel(run.id, { rating: 5 + r / 2, note: p.note })))
      runs.push(run)
    }
    if (p.recorded)
      must(await importFile(t, uuid(), makeUpload(runs[0].id, { fileName: `${i}.csv` }), makeFile(400 + i)))
    if (p.kept) {
      const kept = {
        id: present.id,
        version: 0,
        bikeId: s.bike.id,
        name: 'Roots',
        purposes: ['wet'],
        found: { place: '', airTempC: null, altitudeM: null, surface: null, pace: null, kitMassKg: 4.5 },
        tyreFrontPsi: null,
        tyreRearPsi: null,
        geometry: '',
        words: p.note,
        by: '',
        keptAt: '2031-05-02T12:00:00.000Z',
      }
      must(await t.put(`/kept/${kept.id}`, kept))
    }
    if (p.wished) {
      const wish = makeSetup(s.bike, [s.front, s.rear], { id: uuid(), parentId: present.id, wanted: true })
      must(await t.put(`/setups/${wish.id}`, wish))
    }
    if (p.inTent) {
      if (!stories.slice(0, -1).some((_, at) => plan.riders[at].inTent))
        must(
          await t.put(`/tents/${tentId}`, {
            id: tentId,
            version: 0,
            name: 'Larch weekend',
            date: '2031-05-02',
            trailId: s.trail.id,
            schedule: [],
            note: '',
          }),
        )
      must(
        await t.put(`/tent-riders/${s.day.id}`, {
          id: s.day.id,
          version: 0,
          tentId,
          number: i + 1,
          whereabouts: 'here',
          since: '2031-05-02T08:00:00.000Z',
          temper: 'reasons',
          named: true,
        }),
      )
    }
    if (p.awayRun) must(await t.send('DELETE', `/runs/${runs.at(-1)!.id}`))
    if (p.awayRider) must(await t.send('DELETE', `/riders/${s.rider.id}`))
  }
  const alone = makeRider({ name: 'Nobody yet' })
  must(await t.put(`/riders/${alone.id}`, alone))
  return { stories, tentId }
}
