import { spawnSync } from 'node:child_process'
import { existsSync, readdirSync } from 'node:fs'
import { join } from 'node:path'
import { v7 as uuid } from 'uuid'
import type { SafeCopy } from '#contract/data'
import { startProcess, type ServerProcess } from '../../e2e/server.ts'
import { makeFeel, makeFile, makeRider, makeRun, makeUpload, startStory } from '../../server/test/story.ts'
import { lots, option } from './lots.ts'

/**
 * A server that is killed again and again while it saves, reads files, copies, puts a copy back, writes bundles and brings them in.
 * What it confirmed is there afterwards, what it did not finish left nothing. `npm run kills -- --count 200 --seed 1`
 */
const count = option('count', 200)
const seed = option('seed', 1)
const draw = lots(seed)
let server: ServerProcess = await startProcess()
const { dataDir } = server

const send = async (method: string, path: string, body?: unknown, type = 'application/json') => {
  const isRaw = body instanceof Uint8Array || typeof body === 'string'
  const r = await fetch(`${server.base}/api/v1${path}`, {
    method,
    headers: { 'content-type': type },
    ...(body === undefined ? {} : { body: (isRaw ? body : JSON.stringify(body)) as BodyInit }),
  })
  return { status: r.status, body: (await r.json()) as Record<string, unknown> }
}
const put = (path: string, body: unknown) => send('PUT', path, body)
const s = await startStory({ put })
const bundleId = uuid()
await put(`/data/bundles/${bundleId}`, {
  scope: { kind: 'everything' },
  with: { weights: true, voices: true, inside: true },
})
const bundle = new Uint8Array(
  await (await fetch(`${server.base}/api/v1/data/bundles/${bundleId}`)).arrayBuffer(),
)

/** What was confirmed since the last time an earlier state was put back: where it is found, and what has to be there. */
let confirmed: { what: string; isThere: () => Promise<boolean> }[] = []
const faults: string[] = []
const did: Record<string, number> = {}
const isOk = async (path: string) => (await send('GET', path)).status === 200

const acts: Record<string, () => Promise<void>> = {
  async saves() {
    const run = makeRun(s.day, s.setup.id)
    if ((await put(`/runs/${run.id}`, run)).status !== 200) return
    confirmed.push({ what: `run ${run.id}`, isThere: () => runIs(run.id) })
    const feel = makeFeel(run.id, { rating: 1 + draw.below(10) })
    if ((await put(`/runs/${run.id}/feel`, feel)).status === 200)
      confirmed.push({ what: `feel ${run.id}`, isThere: () => feelIs(run.id, feel.rating) })
  },
  async files() {
    const run = makeRun(s.day, s.setup.id)
    if ((await put(`/runs/${run.id}`, run)).status !== 200) return
    const meta = makeUpload(run.id, { again: true })
    const sent = await send(
      'PUT',
      `/uploads/${meta.uploadId}`,
      makeFile(1000 + draw.below(2000)),
      'application/octet-stream',
    )
    if (sent.status !== 200) return
    const id = uuid()
    if ((await put(`/recordings/${id}`, meta)).status === 200)
      confirmed.push({
        what: `recording ${id}`,
        isThere: async () => (await fetch(`${server.base}/api/v1/recordings/${id}/original`)).status === 200,
      })
  },
  async copies() {
    const made = await send('PUT', '/data/copy')
    if (made.status !== 200) return
    const { name } = made.body as unknown as SafeCopy
    const then = new Set(confirmed)
    if (draw.next() < 0.3) {
      // Another moment: what came after it is rightly gone, also what others were told while it was put in place.
      const ofThen = () => void (confirmed = confirmed.filter((c) => then.has(c)))
      ofThen()
      await send('PUT', `/data/copies/${name}/back`).finally(ofThen)
    } else if (draw.next() < 0.5) await send('DELETE', `/data/copies/${name}`)
  },
  async bundles() {
    const id = uuid()
    await put(`/data/bundles/${id}`, {
      scope: { kind: 'everything' },
      with: { weights: true, voices: true, inside: true },
    })
    const came = uuid()
    await send('PUT', `/data/arrivals/${came}`, bundle, 'application/zip')
    if ((await send('PUT', `/data/arrivals/${came}/look`)).status !== 200) return
    const done = await put(`/data/arrivals/${came}/take`, { differing: 'theirs', except: [], taken: [] })
    if (done.status === 200 && draw.next() < 0.5) await send('DELETE', `/data/imports/${came}`)
  },
  async riders() {
    const rider = makeRider({ name: `Rider ${draw.below(1e6)}` })
    if ((await put(`/riders/${rider.id}`, rider)).status !== 200) return
    if (draw.next() < 0.3) await put(`/riders/${rider.id}/erasure`, { name: rider.name, alsoCopies: false })
    else confirmed.push({ what: `rider ${rider.id}`, isThere: () => isOk(`/riders/${rider.id}/erasure`) })
  },
}
const day = async () =>
  (await send('GET', `/days/${s.day.id}`)).body as {
    runs?: { id: string }[]
    feels?: { runId: string; rating: number | null }[]
  }
let held: Awaited<ReturnType<typeof day>> | null = null
const heldDay = async () => (held ??= await day())
const runIs = async (id: string) => (await heldDay()).runs?.some((r) => r.id === id) ?? false
const feelIs = async (id: string, rating: number | null) =>
  (await heldDay()).feels?.some((f) => f.runId === id && f.rating === rating) ?? false

let checks = 0
for (let i = 0; i < count; i++) {
  let isKilled = false
  const hands = Object.entries(acts).map(async ([name, act]) => {
    while (!isKilled) {
      await act().catch(() => undefined)
      if (!isKilled) did[name] = (did[name] ?? 0) + 1
      await new Promise((r) => setTimeout(r, draw.below(30)))
    }
  })
  await new Promise((r) => setTimeout(r, 300 + draw.below(1500)))
  isKilled = true
  await server.stop('SIGKILL')
  await Promise.all(hands)
  const check = spawnSync(process.execPath, ['dist/server/check.js'], {
    env: { ...process.env, WILD_SPRING_DATA: dataDir },
    encoding: 'utf8',
  })
  if (check.status !== 0) faults.push(`kill ${i}: ${check.stderr.trim()}`)
  server = await startProcess(dataDir)
  held = null
  for (const c of confirmed) {
    checks++
    if (!(await c.isThere().catch(() => false)))
      faults.push(`kill ${i}: ${c.what} was confirmed and is not there`)
  }
  confirmed = confirmed.slice(-60)
  const incoming = readdirSync(join(dataDir, 'incoming'))
  const copies = join(dataDir, 'safe-copies')
  const parts = existsSync(copies) ? readdirSync(copies).filter((n) => n.includes('.part')) : []
  const staged = readdirSync(dataDir).filter((n) => n.includes('.new'))
  const left = [...incoming, ...parts, ...staged]
  if (left.length > 0) faults.push(`kill ${i}: left behind ${left.join()}`)
  if (i % 20 === 19) console.error(`${i + 1} of ${count} kills, ${faults.length} faults`)
}
await server.stop()
console.log(JSON.stringify({ seed, kills: count, checks, did }, null, 2))
for (const f of faults.slice(0, 40)) console.log(f)
console.log(`${faults.length} faults`)
process.exit(faults.length === 0 ? 0 : 1)
