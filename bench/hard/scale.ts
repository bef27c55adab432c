import { readFileSync, rmSync, statSync } from 'node:fs'
import { join } from 'node:path'
import { createClient } from '@libsql/client'
import type { Browser, Locator, Page } from '@playwright/test'
import { v7 as uuid } from 'uuid'
import type { SafeCopy } from '#contract/data'
import { startProcess, type ServerProcess } from '../../e2e/server.ts'
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
import { builtBrowser } from '../builtBrowser.ts'
import { option } from './lots.ts'

/**
 * How large a world may become on one machine: 10, 100 and 1,000 riders with five days, ten runs and two recordings each.
 * Pages, sizes, copies and memory; docs/guide/scale.md. `npm run scale -- --most 1000`
 */
const most = option('most', 1000)
const daysEach = 5
const runsEachDay = 2
const recordingsEach = 2
/** Two minutes at 500 Hz. */
const rows = 60_000
const hands = 6
const median = (of: number[]) => of.sort((a, b) => a - b)[of.length >> 1]

function speaker(server: ServerProcess) {
  const send = async (method: string, path: string, body?: unknown, headers: Record<string, string> = {}) => {
    const isRaw = typeof body === 'string'
    const r = await fetch(`${server.base}/api/v1${path}`, {
      method,
      headers: { 'content-type': 'application/json', ...headers },
      ...(body === undefined ? {} : { body: isRaw ? body : JSON.stringify(body) }),
    })
    const text = await r.text()
    if (!r.ok) throw new Error(`${method} ${path}: ${text}`)
    return { status: r.status, body: JSON.parse(text) as unknown, bytes: text.length }
  }
  return { send, put: (path: string, body: unknown) => send('PUT', path, body) }
}

async function fill(dataDir: string, riders: number): Promise<void> {
  const server = await startProcess(dataDir)
  const { put, send } = speaker(server)
  const withRecording: string[] = []
  let next = 0
  const hand = async () => {
    for (let n = next++; n < riders; n = next++) {
      const s = await startStory({ put })
      await put(`/riders/${s.rider.id}`, { ...s.rider, version: 1, name: `Rider ${n}` })
      let parentId = s.setup.id
      for (let d = 0; d < daysEach; d++) {
        // A day begins with a setup of its own.
        const setup = makeSetup(s.bike, [s.front, s.rear], {
          parentId,
          reason: makeReason('own-idea'),
        })
        await put(`/setups/${setup.id}`, setup)
        parentId = setup.id
        const date = new Date(Date.UTC(2026, 0, 1 + ((n * daysEach + d) % 320))).toISOString().slice(0, 10)
        const day = { ...s.day, id: uuid(), version: 0, date, startSetupId: setup.id }
        await put(`/days/${day.id}`, day)
        for (let r = 0; r < runsEachDay; r++) {
          const run = makeRun(day, setup.id, { startedAt: `${date}T1${r}:00:00.000Z` })
          await put(`/runs/${run.id}`, run)
          await put(`/runs/${run.id}/feel`, makeFeel(run.id, { rating: 4 + ((n + d + r) % 10) / 2 }))
          if (withRecording.length < (n + 1) * recordingsEach) withRecording.push(run.id)
        }
      }
    }
  }
  await Promise.all(Array.from({ length: hands }, hand))
  const [first, ...others] = withRecording
  const id = uuid()
  await importFile({ put, send }, id, makeUpload(first), makeFile(rows))
  await server.stop()
  // What the others would have been read as: the same numbers, kept as files of their own.
  const client = createClient({ url: `file:${join(dataDir, 'wild-spring.sqlite')}` })
  for (let i = 0; i < others.length; i += 50)
    await client.batch(
      others.slice(i, i + 50).flatMap((runId, k) => {
        const own = uuid()
        const sha = String(i + k).padStart(64, '0')
        const args = { id, own, runId, sha }
        return [
          {
            sql: `INSERT INTO recordings (id, run_id, sha256, body) SELECT :own, :runId, :sha,
              json_set(body, '$.id', :own, '$.runId', :runId, '$.sha256', :sha) FROM recordings WHERE id = :id`,
            args,
          },
          {
            sql: 'INSERT INTO recording_chunks SELECT :own, part, seq, bytes FROM recording_chunks WHERE recording_id = :id',
            args: { id, own },
          },
          {
            sql: `INSERT INTO original_chunks SELECT :sha, seq, bytes FROM original_chunks WHERE sha256 =
              (SELECT sha256 FROM recordings WHERE id = :id)`,
            args: { id, sha },
          },
          {
            sql: "INSERT INTO recording_originals VALUES (:own, 'original', :sha)",
            args: { own, sha },
          },
        ]
      }),
      'write',
    )
  client.close()
}

/** MB, from the system. */
const memory = (pid: number, what: 'VmRSS' | 'VmHWM') =>
  Number(new RegExp(`${what}:\\s+(\\d+)`).exec(readFileSync(`/proc/${pid}/status`, 'utf8'))![1]) / 1024

async function firstContentMs(browser: Browser, url: string, wanted: (p: Page) => Locator): Promise<number> {
  const took: number[] = []
  for (let i = 0; i < 4; i++) {
    const context = await browser.newContext({ viewport: { width: 1280, height: 800 } })
    const page = await context.newPage()
    const began = performance.now()
    await page.goto(url, { waitUntil: 'commit' })
    await wanted(page).first().waitFor({ timeout: 120_000 })
    if (i > 0) took.push(performance.now() - began)
    await context.close()
  }
  return median(took)
}

const browser = (await builtBrowser())!
const table: Record<string, string | number>[] = []
for (const riders of [10, 100, 1000].filter((n) => n <= most)) {
  const empty = await startProcess()
  await empty.stop()
  const { dataDir } = empty
  await fill(dataDir, riders)
  const began = performance.now()
  const server = await startProcess(dataDir)
  const startMs = performance.now() - began
  const { send } = speaker(server)
  const answerMs = async (path: string) => {
    const took: number[] = []
    let kB = 0
    for (let i = 0; i < 7; i++) {
      const asked = performance.now()
      kB = (await send('GET', path)).bytes / 1000
      if (i > 0) took.push(performance.now() - asked)
    }
    return { ms: median(took), kB }
  }
  const atStart = memory(server.process.pid!, 'VmRSS')
  const garage = await answerMs('/garage')
  const list = await answerMs('/days')
  const [{ id }] = (await send('GET', '/days')).body as { id: string }[]
  const day = await answerMs(`/days/${id}`)
  const today = await firstContentMs(browser, `${server.base}/`, (p) => p.locator('main a[href^="/day"]'))
  const garagePage = await firstContentMs(browser, `${server.base}/garage`, (p) =>
    p.getByRole('button', { name: /^Rider / }),
  )
  const data = await answerMs('/data')
  const copied = performance.now()
  const copy = (await send('PUT', '/data/copy')).body as SafeCopy
  const copyS = (performance.now() - copied) / 1000
  table.push({
    riders,
    days: riders * daysEach,
    runs: riders * daysEach * runsEachDay,
    recordings: riders * recordingsEach,
    'file MB': Math.round(statSync(join(dataDir, 'wild-spring.sqlite')).size / 1e6),
    'start ms': Math.round(startMs),
    'garage kB': Math.round(garage.kB),
    'garage ms': Math.round(garage.ms),
    'days kB': Math.round(list.kB),
    'days ms': Math.round(list.ms),
    'one day ms': Math.round(day.ms),
    'what is kept ms': Math.round(data.ms),
    'Today ms': Math.round(today),
    'Garage ms': Math.round(garagePage),
    'safe copy s': Number(copyS.toFixed(1)),
    'copy MB': Math.round(copy.bytes / 1e6),
    'memory MB': Math.round(atStart),
    'most memory MB': Math.round(memory(server.process.pid!, 'VmHWM')),
  })
  console.error(JSON.stringify(table.at(-1)))
  await server.stop()
  rmSync(dataDir, { recursive: true })
}
await browser.close()
console.table(table)
