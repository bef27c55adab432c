import { v7 as uuid } from 'uuid'
import { DayBundle } from '#contract/endpoints'
import { GivenPadLink } from '#contract/pad'
import { TentBundle } from '#contract/tent'
import { startProcess } from '../../e2e/server.ts'
import {
  importFile,
  makeFeel,
  makeFile,
  makeReason,
  makeRun,
  makeSetup,
  makeUpload,
  startStory,
} from '../../server/test/story.ts'
import { slowConnection } from '../slowConnection.ts'
import { lots, option } from './lots.ts'

/**
 * A practice for as long as one likes: riders come and go, their phones speak, screens listen; then every fact on the
 * server is held against what was done. `npm run load -- --minutes 10 --riders 12 --screens 3 --seed 1`.
 * With `--pause 0` every hand works flat out, and with `--slow 100` so many connections drip beside them.
 */
const minutes = option('minutes', 10)
const riders = option('riders', 12)
const screens = option('screens', 3)
/** From run to run of one rider, s, at most. */
const pauseS = option('pause', 8)
const slow = option('slow', 0)
/** A phone may send a hundred reports a day; who rides more often says no more of it. */
const mostReports = 90
const seed = option('seed', 1)

const server = await startProcess()
const api = `${server.base}/api/v1`
const faults: string[] = []
const took = new Map<string, number[]>()
const note = (what: string, ms: number) => void took.set(what, [...(took.get(what) ?? []), ms])

async function send(method: string, path: string, body?: unknown, headers: Record<string, string> = {}) {
  const isRaw = typeof body === 'string' || body instanceof Uint8Array
  const answer = await fetch(api + path, {
    method,
    headers: { 'content-type': 'application/json', ...headers },
    ...(body === undefined ? {} : { body: (isRaw ? body : JSON.stringify(body)) as BodyInit }),
  })
  return { status: answer.status, body: (await answer.json()) as unknown }
}
const put = (path: string, body: unknown, headers?: Record<string, string>) =>
  send('PUT', path, body, headers)
/** A write that has to be taken. */
async function save(what: string, path: string, body: unknown, headers?: Record<string, string>) {
  const start = performance.now()
  const answer = await put(path, body, headers)
  note(what, performance.now() - start)
  if (answer.status !== 200) faults.push(`${what} ${path}: ${answer.status} ${JSON.stringify(answer.body)}`)
  return answer
}

/** What screens have not been told of yet, by what tells it apart, and since when. */
const untold = Array.from({ length: screens }, () => new Map<string, number>())
const late: number[] = []
const expectOnScreens = (key: string) => untold.forEach((u) => u.set(key, performance.now()))

/** One screen: it listens until the end, and ticks off what it is told. */
async function listen(mine: Map<string, number>, signal: AbortSignal): Promise<void> {
  const answer = await fetch(`${api}/events`, { signal })
  const text = new TextDecoder()
  let rest = ''
  for await (const piece of answer.body!) {
    rest += text.decode(piece as Uint8Array, { stream: true })
    const events = rest.split('\n\n')
    rest = events.pop()!
    for (const e of events) {
      const data = /^data: (.*)$/m.exec(e)?.[1]
      const told = data ? (JSON.parse(data) as Record<string, Record<string, string>>) : {}
      const { run, feel, setup } = told
      const key = run
        ? `run ${run.id}`
        : feel
          ? `feel ${feel.runId} ${feel.version}`
          : setup && `setup ${setup.id}`
      const since = key === undefined ? undefined : mine.get(key)
      if (since === undefined) continue
      late.push(performance.now() - since)
      mine.delete(key!)
    }
  }
}

const tentId = uuid()
let trailId: string | null = null
/** A rider with a bike, a day in the tent and a phone. */
async function arrive(number: number) {
  const story = await startStory({ put })
  if (trailId === null) {
    trailId = story.trail.id
    await save('tent', `/tents/${tentId}`, {
      id: tentId,
      version: 0,
      name: 'Practice',
      date: story.day.date,
      trailId,
      schedule: [],
      note: '',
    })
  }
  const day = story.day.trailId === trailId ? story.day : { ...story.day, trailId, version: 1 }
  if (day !== story.day) await save('day', `/days/${day.id}`, day)
  await save('rider of the tent', `/tent-riders/${day.id}`, {
    id: day.id,
    version: 0,
    tentId,
    number,
    whereabouts: 'here',
    since: new Date().toISOString(),
    temper: 'reasons',
    named: false,
  })
  const { token } = GivenPadLink.parse((await save('link', `/tent-riders/${day.id}/pad`, {})).body)
  return { ...story, day, token, draw: lots(seed * 100 + number) }
}
type Here = Awaited<ReturnType<typeof arrive>>

/** What was done with one rider, as the server has to hold it in the end. */
const done = new Map<
  string,
  { runs: Map<string, number>; setups: string[]; files: number; worded: string[] }
>()

async function practise(r: Here, untilMs: number): Promise<void> {
  const facts = {
    runs: new Map([[r.run.id, Number.NaN]]),
    setups: [r.setup.id],
    files: 0,
    worded: [] as string[],
  }
  done.set(r.day.id, facts)
  const phone = { authorization: `Bearer ${r.token}` }
  const pause = (share = 1) =>
    new Promise((go) => setTimeout(go, share * pauseS * 1000 * (0.5 + r.draw.next() / 2)))
  let setup = r.setup
  while (performance.now() < untilMs) {
    const run = makeRun(r.day, setup.id, { startedAt: new Date().toISOString() })
    expectOnScreens(`run ${run.id}`)
    await save('run', `/runs/${run.id}`, run)
    await pause(0.3)
    // Phone and laptop speak of the same run; either may be first, so that a stale version is met as a page meets it.
    const rating = 1 + r.draw.below(10)
    const id = uuid()
    const report = {
      id,
      at: new Date().toISOString(),
      runId: run.id,
      against: null,
      sectionIds: [],
      words: [{ word: 'kicks', end: 'rear', strength: 1 }],
      stopped: null,
      text: '',
      voiceId: null,
    }
    const told = { report, phoneNow: report.at }
    const speaks = facts.worded.length < mostReports
    const byPhone = speaks && save('report of a phone', `/pad/reports/${id}`, told, phone)
    const byLaptop = rate(run.id, rating)
    await Promise.all([byPhone, byLaptop])
    // An answer that was lost on the way: the phone says it again.
    if (speaks && r.draw.next() < 0.2) await save('report said again', `/pad/reports/${id}`, told, phone)
    facts.runs.set(run.id, rating)
    if (speaks) facts.worded.push(run.id)
    await pause(0.3)
    if (r.draw.next() < 0.5) {
      const changed = makeSetup({ ...r.bike, currentSetupId: setup.id }, [r.front, r.rear], {
        parentId: setup.id,
        dayId: r.day.id,
        madeAt: new Date().toISOString(),
        positions: setup.positions.map((p, i) => (i === 1 ? { ...p, value: p.value === 6 ? 7 : 6 } : p)),
        reason: makeReason('own-idea', { text: 'slower' }),
      })
      expectOnScreens(`setup ${changed.id}`)
      await save('change', `/setups/${changed.id}`, changed)
      facts.setups.push(changed.id)
      setup = changed
    }
    if (r.draw.next() < 0.15) {
      const start = performance.now()
      const answer = await importFile(
        { put, send },
        uuid(),
        makeUpload(run.id, { again: true }),
        makeFile(2000 + r.draw.below(4000)),
      )
      note('sensor file', performance.now() - start)
      if (answer.status === 200) facts.files++
      else faults.push(`file: ${answer.status} ${JSON.stringify(answer.body)}`)
    }
    await pause(0.4)
  }
}

/** As the page does it: what is stale is looked at, and said again over it. */
async function rate(runId: string, rating: number): Promise<void> {
  const start = performance.now()
  let feel = makeFeel(runId, { rating })
  for (let tries = 0; tries < 4; tries++) {
    const answer = await put(`/runs/${runId}/feel`, feel)
    if (answer.status === 200) {
      note('rating', performance.now() - start)
      return
    }
    const { current } = answer.body as { current?: typeof feel }
    if (!current) break
    feel = { ...current, rating }
  }
  faults.push(`the rating of run ${runId} was not taken`)
}

const here: Here[] = []
for (let n = 1; n <= riders; n++) here.push(await arrive(n))
const cancel = new AbortController()
const listening = untold.map((u) => listen(u, cancel.signal).catch(() => undefined))
const dripping = Array.from({ length: slow }, () => slowConnection(server.base))
await new Promise((go) => setTimeout(go, 500))
const untilMs = performance.now() + minutes * 60_000
await Promise.all(here.map((r) => practise(r, untilMs)))
await new Promise((go) => setTimeout(go, 2000))
dripping.forEach((socket) => socket.destroy())
cancel.abort()
await Promise.all(listening)

untold.forEach((u, i) => {
  if (u.size > 0)
    faults.push(`screen ${i + 1} was not told of ${u.size}: ${[...u.keys()].slice(0, 3).join(', ')}`)
})
let facts = 0
const tent = TentBundle.parse((await send('GET', `/tents/${tentId}`)).body)
for (const r of here) {
  const was = done.get(r.day.id)!
  const is = DayBundle.parse((await send('GET', `/days/${r.day.id}`)).body)
  const hold = (what: string, got: unknown, wanted: unknown) => {
    facts++
    if (JSON.stringify(got) !== JSON.stringify(wanted))
      faults.push(`rider ${r.day.id}, ${what}: ${JSON.stringify(got)}, was ${JSON.stringify(wanted)}`)
  }
  hold('runs', is.runs.map((x) => x.id).sort(), [...was.runs.keys()].sort())
  hold('setups', is.setups.map((x) => x.id).sort(), [...was.setups].sort())
  hold('on the bike', is.bike.currentSetupId, was.setups.at(-1))
  hold('sensor files', is.recordings.length, was.files)
  hold('reports', tent.reports.filter((x) => x.dayId === r.day.id).length, was.worded.length)
  for (const [runId, rating] of was.runs) {
    if (Number.isNaN(rating)) continue
    const feel = is.feels.find((f) => f.runId === runId)
    hold(`rating of ${runId}`, feel?.rating, rating)
    hold(
      `word of ${runId}`,
      feel?.marks.map((m) => m.word),
      ['kicks'],
    )
  }
}
const p95 = (of: readonly number[]) => [...of].sort((a, b) => a - b)[Math.floor(of.length * 0.95)]
console.log(
  `${riders} riders with phones, ${screens} screens, ${slow} that drip, ${minutes} min, pause ≤ ${pauseS} s, seed ${seed}`,
)
for (const [what, of] of took)
  if (of.length > riders)
    console.log(`${what}: ${of.length}, p95 ${p95(of).toFixed(1)} ms, worst ${Math.max(...of).toFixed(0)} ms`)
console.log(
  `told on a screen: ${late.length}, p95 ${p95(late).toFixed(1)} ms, worst ${Math.max(...late).toFixed(0)} ms`,
)
console.log(`${facts} facts held against what was done, ${faults.length} faults`)
faults.slice(0, 20).forEach((f) => console.log(f))
await server.stop()
process.exitCode = faults.length === 0 ? 0 : 1
