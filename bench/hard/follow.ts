import { spawnSync } from 'node:child_process'
import {
  existsSync,
  mkdtempSync,
  openSync,
  readFileSync,
  rmSync,
  statSync,
  writeSync,
  closeSync,
} from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import type { SafeCopy } from '#contract/data'
import { startProcess, type ServerProcess } from '../../e2e/server.ts'
import { makeRider, makeRun, startStory } from '../../server/test/story.ts'
import { lots, option } from './lots.ts'

/**
 * A copy that follows on another disk (docs/guide/data.md), while runs are saved, a copy is put back, a rider erased, the
 * server stopped, killed and started. Then all are killed and the data file wrecked: what was confirmed
 * before the copy's patience is in what is restored. `npm run follow -- --count 20 --seed 1`
 */
const count = option('count', 20)
const seed = option('seed', 1)
/** Litestream looks every second; twice that is its patience. */
const patienceMs = 2500
const draw = lots(seed)
const sleep = (ms: number) => new Promise((r) => setTimeout(r, ms))
const folder = () => mkdtempSync(join(tmpdir(), 'wild-spring-follow-'))
/** As when the power fails: the server, whoever runs Litestream, and Litestream itself. */
async function killAll(server: ServerProcess): Promise<void> {
  const below = (pid: number): number[] =>
    spawnSync('pgrep', ['-P', String(pid)], { encoding: 'utf8' })
      .stdout.split('\n')
      .filter((l) => l !== '')
      .flatMap((l) => [Number(l), ...below(Number(l))])
  for (const pid of below(server.process.pid!))
    try {
      process.kill(pid, 'SIGKILL')
    } catch {
      // Gone by itself meanwhile.
    }
  await server.stop('SIGKILL')
}

const faults: string[] = []
let confirmedLost = 0
let checked = 0
let largest = 0
let fromBefore = 0
const did: Record<string, number> = {}

for (let i = 0; i < count; i++) {
  const [dataDir, copyDir] = [folder(), folder()]
  const start = () => startProcess(dataDir, { env: { WILD_SPRING_FOLLOW: copyDir } })
  let server: ServerProcess = await start()
  const send = async (method: string, path: string, body?: unknown) => {
    const ask = async () => {
      const r = await fetch(`${server.base}/api/v1${path}`, {
        method,
        headers: { 'content-type': 'application/json' },
        ...(body === undefined ? {} : { body: JSON.stringify(body) }),
      })
      return { status: r.status, body: (await r.json()) as Record<string, unknown> }
    }
    // After a copy was put back everybody's connection is cut, as a page's is: it asks again.
    return ask().catch(() => sleep(300).then(ask))
  }
  const put = (path: string, body: unknown) => send('PUT', path, body)
  const s = await startStory({ put })
  const file = join(dataDir, 'wild-spring.sqlite')
  let runs: string[] = [s.run.id]
  const ride = async (n: number) => {
    for (let k = 0; k < n; k++) {
      const run = makeRun(s.day, s.setup.id, {
        startedAt: new Date(Date.UTC(2031, 4, 2, 12, runs.length)).toISOString(),
      })
      if ((await put(`/runs/${run.id}`, run)).status === 200) runs.push(run.id)
      if (draw.next() < 0.2) await sleep(draw.below(300))
    }
  }
  const acts = {
    putBack: async () => {
      const made = await send('PUT', '/data/copy')
      if (made.status !== 200) throw new Error(`no copy: ${JSON.stringify(made.body)}`)
      const then = [...runs]
      await ride(draw.below(10))
      const back = await send('PUT', `/data/copies/${(made.body as unknown as SafeCopy).name}/back`)
      if (back.status !== 200) throw new Error(`not put back: ${JSON.stringify(back.body)}`)
      runs = then
    },
    erase: async () => {
      const rider = makeRider({ name: 'Gone Tomorrow' })
      await put(`/riders/${rider.id}`, rider)
      await sleep(draw.below(1500))
      const erased = await put(`/riders/${rider.id}/erasure`, { name: rider.name, alsoCopies: false })
      if (erased.status !== 200) throw new Error(`not erased: ${JSON.stringify(erased.body)}`)
      for (const end of ['', '-wal'])
        if (existsSync(file + end) && readFileSync(file + end).includes(rider.name))
          faults.push(`round ${i}: an erased name is in ${end || 'the data file'}`)
    },
    restart: async () => {
      await server.stop()
      server = await start()
    },
    kill: async () => {
      await server.stop('SIGKILL')
      server = await start()
    },
  }
  const acted: string[] = []
  try {
    await ride(5 + draw.below(20))
    for (let k = draw.below(4); k > 0; k--) {
      const what = draw.one(Object.keys(acts) as (keyof typeof acts)[])
      await acts[what]()
      did[what] = (did[what] ?? 0) + 1
      acted.push(what)
      await ride(draw.below(20))
    }
    const sure = [...runs]
    await sleep(patienceMs)
    await ride(draw.below(8))
    await killAll(server)
    largest = Math.max(
      largest,
      Number(spawnSync('du', ['-sb', copyDir], { encoding: 'utf8' }).stdout.split('\t')[0]) /
        statSync(file).size,
    )
    const at = openSync(file, 'r+')
    writeSync(at, Buffer.alloc(8192), 0, 8192, 0)
    closeSync(at)
    const fresh = folder()
    const restored = spawnSync(process.execPath, ['dist/server/restore.js', copyDir], {
      env: { ...process.env, WILD_SPRING_DATA: fresh },
      encoding: 'utf8',
    })
    if (restored.status !== 0) throw new Error(`no restore: ${restored.stderr}`)
    if (restored.stdout.includes('from before')) fromBefore++
    server = await startProcess(fresh)
    const there = new Set(
      ((await send('GET', `/days/${s.day.id}`)).body as { runs: { id: string }[] }).runs.map((r) => r.id),
    )
    checked += sure.length
    for (const id of sure)
      if (!there.has(id)) faults.push(`round ${i}: run ${id} was confirmed and is not restored`)
    confirmedLost += runs.filter((id) => !there.has(id)).length
    await server.stop()
    rmSync(fresh, { recursive: true })
  } catch (e) {
    faults.push(`round ${i}, after ${acted.join(', ')}: ${String(e)}`)
    await killAll(server)
  }
  for (const dir of [dataDir, copyDir]) rmSync(dir, { recursive: true })
  console.error(`${i + 1} of ${count}, ${faults.length} faults`)
}
console.log(
  JSON.stringify(
    {
      seed,
      rounds: count,
      checked,
      ofTheLastSecond: confirmedLost,
      fromBefore,
      did,
      copyOverFile: Number(largest.toFixed(1)),
    },
    null,
    2,
  ),
)
for (const f of faults.slice(0, 40)) console.log(f)
console.log(`${faults.length} faults`)
process.exit(faults.length === 0 ? 0 : 1)
