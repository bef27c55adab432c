import { spawn, type ChildProcess } from 'node:child_process'
import { rmSync, writeFileSync } from 'node:fs'
import { basename, dirname, join } from 'node:path'
import { connect } from '../db/connect.ts'
import { beginnings, putTogether } from './followed.ts'
import type { FollowJob, FollowNews } from './follower.ts'

/**
 * Entry of the process that runs Litestream: it ends when whoever asked is gone, which Litestream by itself would not. What
 * was copied is put together again and checked, soon and then four times a day; a copy that is not sound is begun anew.
 */
const { program, file, folder, isAnew } = JSON.parse(process.argv[2]) as FollowJob
process.umask(0o077)
const patienceMs = 10_000
const firstCheckMs = 5_000
/** As long as it takes Litestream to look at the data file for the first time. */
const firstLookMs = 5_000
const checkEveryMs = 6 * 3_600_000
/** How far back the copy itself leads. */
const retention = { retention: '72h', 'snapshot-interval': '24h' }
const migrations = join(import.meta.dirname, 'migrations')
const settings = join(dirname(file), 'follow.yml')
const tried = join(folder, 'tried.sqlite')

let child: ChildProcess | null = null
let isEnding = false
/** Something was written to the copy, so that what comes at the end goes there, too. */
let hasLooked = false
const tell = (news: FollowNews) => void (process.connected && process.send!(news))
const sleep = (ms: number) => new Promise((resolve) => setTimeout(resolve, ms))

/** Whoever followed before, and whose server was killed, is just looking a last time. @returns what holds the turn */
async function takeTurn(): Promise<unknown> {
  const client = connect(join(folder, 'follower.lock'))
  await client.execute(`PRAGMA busy_timeout = ${2 * patienceMs}`)
  return client.transaction('write')
}

/** What Litestream noted of the data file; without it, it begins a new copy. */
const forgetNotes = () =>
  rmSync(join(dirname(file), `.${basename(file)}-litestream`), { recursive: true, force: true })

/** What went wrong, from a line of Litestream; null: nothing did. */
function faultIn(line: string): string | null {
  if (!line.includes(' ERROR ')) return null
  return /error="((?:[^"\\]|\\.)*)"/.exec(line)?.[1] ?? line.slice(0, 200)
}

function follow(): void {
  const own = spawn(program, ['replicate', '-config', settings], { stdio: ['ignore', 'ignore', 'pipe'] })
  child = own
  let rest = ''
  own.stderr.on('data', (piece: Buffer) => {
    const lines = (rest + piece.toString()).split('\n')
    rest = lines.pop()!.slice(-2000)
    for (const line of lines) {
      const fault = faultIn(line)
      // What was written is word that all is well again.
      if (line.includes(' written ')) hasLooked = true
      if (fault !== null || line.includes(' written ')) tell({ fault })
    }
  })
  own.on('error', (e) => {
    tell({ fault: e.message })
    process.exit(1)
  })
  own.on('exit', (code) => {
    if (child === own) process.exit(code ?? 1)
  })
}

/** Lets Litestream look a last time. */
const ended = (own: ChildProcess): Promise<void> =>
  new Promise((resolve) => {
    own.on('exit', () => resolve())
    own.kill('SIGTERM')
    setTimeout(() => own.kill('SIGKILL'), patienceMs).unref()
  })

/** What was saved since the last look is brought along; whoever just began looks once at least. */
async function end(): Promise<void> {
  if (isEnding) return
  isEnding = true
  for (let waitedMs = 0; child && !hasLooked && waitedMs < firstLookMs; waitedMs += 100) await sleep(100)
  if (child) child.kill('SIGTERM')
  else process.exit()
  setTimeout(() => child?.kill('SIGKILL'), patienceMs).unref()
}

async function isSound(): Promise<boolean> {
  const [newest] = beginnings(folder)
  if (newest === undefined) return false
  try {
    await putTogether(program, folder, newest, tried, migrations)
    rmSync(tried, { force: true })
    return true
  } catch {
    return false
  }
}

async function checkAgainAndAgain(): Promise<void> {
  for (let waitMs = firstCheckMs; ;) {
    await sleep(waitMs)
    if (isEnding) return
    // What is just being written is no whole yet: it is looked at twice.
    if ((await isSound()) || (await sleep(firstCheckMs), await isSound())) {
      tell({ checkedAt: new Date().toISOString() })
      waitMs = checkEveryMs
      continue
    }
    if (isEnding) return
    tell({ fault: 'What was copied is not sound; it is begun anew.' })
    const own = child!
    child = null
    await ended(own)
    forgetNotes()
    follow()
    waitMs = firstCheckMs
  }
}

async function main(): Promise<void> {
  const turn = await takeTurn()
  const replicas = [{ type: 'file', path: folder, ...retention }]
  // JSON is YAML.
  writeFileSync(settings, JSON.stringify({ dbs: [{ path: file, replicas }] }), { mode: 0o600 })
  if (isAnew) forgetNotes()
  process.on('disconnect', () => void end())
  process.on('SIGTERM', () => void end())
  // Told to the whole group when somebody presses Ctrl-C: the server says when.
  process.on('SIGINT', () => undefined)
  follow()
  if (!process.connected) void end()
  await checkAgainAndAgain()
  // Held as long as this process lives.
  void turn
}

void main()
