import { createHash } from 'node:crypto'
import { readdirSync, readFileSync } from 'node:fs'
import { join } from 'node:path'
import { strFromU8, strToU8, unzipSync, zipSync } from 'fflate'
import { v7 as uuid } from 'uuid'
import type { Recording, RecordingUpload } from '#contract/recording'
import { startProcess } from '../../e2e/server.ts'
import { makeFeel, makeFile, makeRun, makeUpload, startStory } from '../../server/test/story.ts'
import { lots, option } from './lots.ts'
import { mutateBytes, mutateJson } from './mutate.ts'

/**
 * Files, bundles and requests as nobody should send them. Each has to be taken or refused in one sentence, soon, and none may
 * be a fault of ours. `npm run fuzz -- --count 10000 --seed 1`
 */
const count = option('count', 10_000)
const seed = option('seed', 1)
const slowMs = 5000
const server = await startProcess()
const api = `${server.base}/api/v1`
const draw = lots(seed)

const send = async (method: string, path: string, body?: unknown, type = 'application/json') => {
  const isRaw = body instanceof Uint8Array || typeof body === 'string'
  const r = await fetch(api + path, {
    method,
    headers: { 'content-type': type },
    ...(body === undefined ? {} : { body: (isRaw ? body : JSON.stringify(body)) as BodyInit }),
  })
  const text = await r.text()
  return {
    status: r.status,
    body: (text.startsWith('{') ? JSON.parse(text) : text) as Record<string, unknown>,
  }
}
const put = (path: string, body: unknown) => send('PUT', path, body)
const bytesType = 'application/octet-stream'

const s = await startStory({ put })
const feel = makeFeel(s.run.id, { note: 'it kicks' })
await put(`/runs/${s.run.id}/feel`, feel)
const upload = makeUpload(s.run.id)
const file = strToU8(makeFile(1500))
await send('PUT', `/uploads/${upload.uploadId}`, file, bytesType)
const recordingId = uuid()
const recording = (await put(`/recordings/${recordingId}`, upload)).body as unknown as Recording
const bundleId = uuid()
await put(`/data/bundles/${bundleId}`, {
  scope: { kind: 'everything' },
  with: { weights: true, voices: true, inside: true },
})
const bundle = new Uint8Array(await (await fetch(`${api}/data/bundles/${bundleId}`)).arrayBuffer())

type Answer = Awaited<ReturnType<typeof send>>
/** A sensor file that was damaged, with the mapping of the whole one, or with a mapping that was. */
async function sensorFile(): Promise<Answer> {
  const run = makeRun(s.day, s.setup.id)
  await put(`/runs/${run.id}`, run)
  const meta: RecordingUpload = makeUpload(run.id, { again: true })
  await send('PUT', `/uploads/${meta.uploadId}`, mutateBytes(file, draw), bytesType)
  const mapping = draw.next() < 0.3 ? mutateJson(meta.mapping, draw) : meta.mapping
  const answer = await put(`/recordings/${uuid()}`, { ...meta, mapping })
  // A day of thousands of runs would make a bundle of it the slowest of all.
  await send('DELETE', `/runs/${run.id}`)
  return answer
}
/** A bundle damaged as bytes, or one whose records were changed by somebody who knows about checksums. */
async function damagedBundle(): Promise<Answer> {
  const id = uuid()
  await send(
    'PUT',
    `/data/arrivals/${id}`,
    draw.next() < 0.5 ? mutateBytes(bundle, draw) : changed(),
    'application/zip',
  )
  const answer = await send('PUT', `/data/arrivals/${id}/look`)
  const taken =
    answer.status === 200 && draw.next() < 0.5
      ? await put(`/data/arrivals/${id}/take`, {
          differing: draw.one(['ours', 'theirs']),
          except: [],
          taken: [],
        })
      : answer
  await send('DELETE', `/data/arrivals/${id}`)
  return taken
}
function changed(): Uint8Array {
  const files = unzipSync(bundle)
  const name = draw.one(Object.keys(files).filter((n) => /jsonl$|^bundle/.test(n)))
  const lines = strFromU8(files[name]).trimEnd()
  const list = name === 'bundle.json' ? [lines] : lines.split('\n')
  const at = draw.below(list.length)
  list[at] = JSON.stringify(mutateJson(JSON.parse(list[at]), draw))
  files[name] = strToU8(list.join('\n') + '\n')
  files['checksums.sha256'] = strToU8(
    Object.entries(files)
      .filter(([n]) => n !== 'checksums.sha256')
      .map(([n, b]) => `${createHash('sha256').update(b).digest('hex')}  ${n}\n`)
      .join(''),
  )
  return zipSync(files)
}
const requests: [string, unknown][] = [
  [`/riders/${s.rider.id}`, { ...s.rider, version: 1 }],
  [`/units/${s.front.id}`, { ...s.front, version: 1 }],
  [`/bikes/${s.bike.id}`, { ...s.bike, version: 1 }],
  [`/trails/${s.trail.id}`, { ...s.trail, version: 1 }],
  [`/days/${s.day.id}`, { ...s.day, version: 1 }],
  [`/setups/${uuid()}`, { ...s.setup, parentId: s.setup.id, dayId: s.day.id }],
  [`/runs/${uuid()}`, makeRun(s.day, s.setup.id)],
  [`/runs/${s.run.id}/feel`, { ...feel, version: 1 }],
  [`/recordings/${recordingId}/spans`, { spans: [], lineS: recording.lineS }],
  [
    `/bikes/${s.bike.id}/noted`,
    { setups: [{ ...s.setup, reason: { ...s.setup.reason, source: 'noted' } }], kept: [] },
  ],
  [
    `/data/bundles/${uuid()}`,
    { scope: { kind: 'day', id: s.day.id }, with: { weights: false, voices: false, inside: false } },
  ],
]
async function request(): Promise<Answer> {
  const [path, body] = draw.one(requests)
  return put(path, mutateJson(body, draw))
}

const kinds = { sensorFile, damagedBundle, request }
const told: Record<string, { tries: number; taken: number; refused: number; slowestMs: number }> = {}
const faults: string[] = []
const residentMb = () =>
  Number(/VmRSS:\s+(\d+)/.exec(readFileSync(`/proc/${server.process.pid}/status`, 'utf8'))![1]) / 1024
const mbBefore = residentMb()
let mbMost = mbBefore
for (let i = 0; i < count; i++) {
  const [name, act] = draw.one(Object.entries(kinds))
  const began = performance.now()
  const answer = await act().catch((e: unknown) => ({
    status: 0,
    body: { detail: String(e) } as Record<string, unknown>,
  }))
  const ms = performance.now() - began
  const t = (told[name] ??= { tries: 0, taken: 0, refused: 0, slowestMs: 0 })
  t.tries++
  if (answer.status === 200) t.taken++
  else t.refused++
  t.slowestMs = Math.max(t.slowestMs, Math.round(ms))
  const detail = String(answer.body.detail ?? '')
  const isSentence = answer.status === 200 || /^\S.*[.?!]$|: .+/s.test(detail)
  if (answer.status >= 500 || answer.status === 0 || ms > slowMs || !isSentence)
    faults.push(`no. ${i}, ${name}: ${answer.status} after ${Math.round(ms)} ms: ${detail.slice(0, 200)}`)
  if (i % 100 === 0) mbMost = Math.max(mbMost, residentMb())
  if (i % 1000 === 999) console.error(`${i + 1} of ${count}, ${faults.length} faults`)
}
const left = readdirSync(join(server.dataDir, 'incoming')).filter(
  (n) => !n.startsWith('bundle-') && !n.startsWith('upload-'),
)
if (left.length > 0) faults.push(`left behind: ${left.join()}`)
const health = await send('GET', '/health')
if (health.status !== 200) faults.push(`health: ${health.status}`)
await server.stop()
console.log(
  JSON.stringify({ seed, count, told, mbBefore: Math.round(mbBefore), mbMost: Math.round(mbMost) }, null, 2),
)
for (const f of faults.slice(0, 40)) console.log(f)
console.log(`${faults.length} faults`)
process.exit(faults.length === 0 ? 0 : 1)
