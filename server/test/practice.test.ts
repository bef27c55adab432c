import { v7 as uuid } from 'uuid'
import { describe, expect, it } from 'vitest'
import { DayBundle } from '#contract/endpoints'
import type { LiveEvent } from '#contract/live'
import { GivenPadLink } from '#contract/pad'
import type { Setup } from '#contract/setup'
import { TentBundle, type TentRider } from '#contract/tent'
import { seededRandom } from '#core/numeric/random'
import { ApiError } from '../../web/api/client.ts'
import type { Letter, NewLetter } from '../../web/api/letters.ts'
import { Outbox } from '../../web/api/outbox.ts'
import { memoryShelf } from '../../web/api/shelves.ts'
import { startApp, type TestApp } from './harness.ts'
import { makeReason, makeRun, makeSetup, startStory } from './story.ts'

const riders = 12
const rounds = 5
/** How often the line breaks: before a letter arrives, or after it, with its answer. */
const cutShare = 0.45

/**
 * A practice over a line that breaks again and again, and a server that is stopped in the middle: two laptops with their
 * coaches, a phone for every rider, three screens that only listen. What every hand wrote is compared with what is there.
 */
describe('a practice over a bad line', () => {
  it('loses nothing and doubles nothing: turns in their order, runs on what was on the bike, words and reports once', async () => {
    const random = seededRandom(20)
    let t: TestApp = await startApp()
    const stories: Awaited<ReturnType<typeof startStory>>[] = []
    for (let i = 0; i < riders; i++) stories.push(await startStory(t))
    const tentId = uuid()
    const { date } = stories[0].day
    await t.put(`/tents/${tentId}`, {
      id: tentId,
      version: 0,
      name: 'Practice',
      date,
      trailId: stories[0].trail.id,
      schedule: [],
      note: '',
    })
    const tentRider = (i: number, over: Partial<TentRider> = {}): TentRider => ({
      id: stories[i].day.id,
      version: 1,
      tentId,
      number: i + 1,
      whereabouts: 'here',
      since: '2031-05-02T08:00:00.000Z',
      temper: 'number',
      named: false,
      ...over,
    })
    const tokens: string[] = []
    for (let i = 0; i < riders; i++) {
      await t.put(`/tent-riders/${stories[i].day.id}`, tentRider(i, { version: 0 }))
      tokens.push(GivenPadLink.parse((await t.put(`/tent-riders/${stories[i].day.id}/pad`, {})).body).token)
    }

    // Three screens: each hears the stream, and asks for what it was told of.
    const told: LiveEvent[][] = [[], [], []]
    const listen = () => told.forEach((mine) => t.events.on((e) => mine.push(e)))
    listen()

    let cuts = 0
    let up = true
    const paths: Partial<Record<Letter['kind'], (l: Letter) => string>> = {
      setup: (l) => `/setups/${l.params.id}`,
      run: (l) => `/runs/${l.params.id}`,
      feel: (l) => `/runs/${l.params.id}/feel`,
      tentRider: (l) => `/tent-riders/${l.params.id}`,
      padReport: (l) => `/pad/reports/${l.params.id}`,
    }
    const sendBy = (token: string | null) => async (l: Letter) => {
      const cut = random() < cutShare ? (random() < 0.5 ? 'before' : 'after') : null
      if (cut) cuts++
      if (cut === 'before' || !up) throw new ApiError('away', null)
      const body = l.kind === 'padReport' ? { report: l.body, phoneNow: '2031-05-02T12:00:00.000Z' } : l.body
      const answer = await t.send(
        'PUT',
        paths[l.kind]!(l),
        body,
        token ? { authorization: `Bearer ${token}` } : {},
      )
      if (cut === 'after') throw new ApiError('away', null)
      if (answer.status !== 200) throw new ApiError('no', answer.body as never)
      return answer.body
    }
    // Time of its own: what waits half a minute waits a moment.
    const outbox = (token: string | null) =>
      new Outbox({
        shelf: memoryShelf(),
        send: sendBy(token),
        channel: { post: () => {}, listen: () => {} },
        tab: uuid(),
        now: () => Date.now(),
        later: (act, ms) => setTimeout(act, ms / 1000),
        never: (timer) => clearTimeout(timer as ReturnType<typeof setTimeout>),
      })
    const laptops = [outbox(null), outbox(null)]
    const phones = tokens.map((token) => outbox(token))
    // Whoever writes builds on what is held: the version that was saved last.
    const saved = new Map<string, number>()
    for (const o of laptops)
      o.onSent((l, answer) => saved.set(l.key, (answer as { version?: number }).version ?? 0))
    const write = (
      to: Outbox,
      kind: Letter['kind'],
      id: string,
      body: unknown,
      params = {},
    ): Promise<Letter> =>
      to.write({
        kind,
        key: `${kind}:${id}`,
        params: { id, ...params },
        body,
        file: null,
      } satisfies NewLetter)

    const script = stories.map(() => ({
      setups: [] as Setup[],
      runs: [] as string[],
      reports: [] as string[],
    }))
    for (let round = 0; round < rounds; round++) {
      for (let i = 0; i < riders; i++) {
        const s = stories[i]
        const mine = script[i]
        const laptop = laptops[i % 2]
        const before = mine.setups.at(-1) ?? s.setup
        const setup = makeSetup(s.bike, [s.front, s.rear], {
          parentId: before.id,
          dayId: s.day.id,
          reason: makeReason('own-idea', { text: '', linked: false }),
        })
        setup.positions = before.positions.map((p, k) => (k === 1 ? { ...p, value: 6 - (round % 2) - 1 } : p))
        if (round % 2)
          setup.positions = before.positions.map((p, k) => (k === 3 ? { ...p, value: p.value + 1 } : p))
        mine.setups.push(setup)
        await write(laptop, 'setup', setup.id, setup)
        const at = `2031-05-02T1${round}:${String(10 + i).padStart(2, '0')}:00.000Z`
        const run = makeRun(s.day, setup.id, { startedAt: at })
        mine.runs.push(run.id)
        await write(laptop, 'run', run.id, run)
        await write(laptop, 'feel', run.id, {
          runId: run.id,
          version: 0,
          rating: 5 + (round % 3),
          marks: [],
          verdicts: [],
          answers: [],
          note: '',
        })
        await write(
          laptop,
          'tentRider',
          s.day.id,
          tentRider(i, {
            version: saved.get(`tentRider:${s.day.id}`) ?? 1,
            whereabouts: round % 2 ? 'here' : 'out',
          }),
        )
        // The phone does not know of the run yet.
        const report = {
          id: uuid(),
          at,
          runId: null,
          against: -1,
          sectionIds: [],
          words: [{ word: 'kicks', end: 'rear', strength: 2 }],
          stopped: null,
          text: `round ${round}`,
          voiceId: null,
        }
        mine.reports.push(report.id)
        await write(phones[i], 'padReport', report.id, report, { dayId: s.day.id })
      }
      await new Promise((r) => setTimeout(r, 30))
      // Twice the server stops under it, and is started again.
      if (round === 1 || round === 3) {
        up = false
        await new Promise((r) => setTimeout(r, 50))
        const { dir } = t
        await t.store.close()
        t = await startApp(dir)
        listen()
        up = true
      }
    }
    const all = [...laptops, ...phones]
    const deadline = Date.now() + 60_000
    while (all.some((o) => o.state().letters.some((l) => l.state === 'waiting')) && Date.now() < deadline)
      await new Promise((r) => setTimeout(r, 20))
    expect(
      all.flatMap((o) =>
        o.state().letters.map((l) => `${l.key} ${l.state} ${l.tries} ${l.problem?.detail ?? ''}`),
      ),
    ).toEqual([])
    expect(cuts).toBeGreaterThan(200)

    const tent = TentBundle.parse((await t.get(`/tents/${tentId}`)).body)
    for (let i = 0; i < riders; i++) {
      const s = stories[i]
      const mine = script[i]
      const b = DayBundle.parse((await t.get(`/days/${s.day.id}`)).body)
      expect(b.runs.map((r) => r.id)).toEqual([s.run.id, ...mine.runs])
      expect(b.runs.slice(1).map((r) => r.setupId)).toEqual(mine.setups.map((x) => x.id))
      expect(b.setups.map((x) => x.id)).toEqual([s.setup.id, ...mine.setups.map((x) => x.id)])
      for (const x of mine.setups)
        expect(b.setups.find((y) => y.id === x.id)!.positions.map((p) => p.value)).toEqual(
          x.positions.map((p) => p.value),
        )
      expect(b.bike.currentSetupId).toBe(mine.setups.at(-1)!.id)
      expect(b.feels.map((f) => [f.rating, f.version]).sort()).toEqual(
        [0, 1, 2, 3, 4].map((r) => [5 + (r % 3), 1]).sort(),
      )
      const reports = tent.reports.filter((r) => r.dayId === s.day.id)
      expect(reports.map((r) => r.report.id).sort()).toEqual([...mine.reports].sort())
      expect(tent.riders.find((r) => r.id === s.day.id)).toMatchObject({ whereabouts: 'out', version: 6 })
    }
    // Every screen was told of every rider's last turn.
    for (const mine of told) {
      const seen = new Set(mine.flatMap((e) => (e.type === 'setup' ? [e.setup.id] : [])))
      for (const m of script) expect(seen).toContain(m.setups.at(-1)!.id)
    }
    for (const o of all) await o.close()
    await t.store.close()
  }, 120_000)
})
