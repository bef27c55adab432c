import { spawn } from 'node:child_process'
import { connect } from '../db/open.ts'

/**
 * Entry of the process that runs Litestream: it ends when whoever asked is gone, which Litestream by itself would not.
 * Arguments: the program, its settings, a file that says the copy is taken.
 */
const [program, settings, lock] = process.argv.slice(2)
process.umask(0o077)
const patienceMs = 10_000

/** Whoever followed before, and whose server was killed, is just looking a last time. @returns what holds the turn */
async function takeTurn(): Promise<unknown> {
  const client = connect(lock)
  await client.execute(`PRAGMA busy_timeout = ${2 * patienceMs}`)
  return client.transaction('write')
}

/** What went wrong, from a line of Litestream; null: nothing did. */
function faultIn(line: string): string | null {
  if (!line.includes(' ERROR ')) return null
  return /error="((?:[^"\\]|\\.)*)"/.exec(line)?.[1] ?? line.slice(0, 200)
}

async function main(): Promise<void> {
  const turn = await takeTurn()
  const child = spawn(program, ['replicate', '-config', settings], { stdio: ['ignore', 'ignore', 'pipe'] })
  const end = () => {
    child.kill('SIGTERM')
    setTimeout(() => child.kill('SIGKILL'), patienceMs).unref()
  }
  if (!process.connected) end()
  process.on('disconnect', end)
  process.on('SIGTERM', end)
  // Told to the whole group when somebody presses Ctrl-C: the server says when.
  process.on('SIGINT', () => undefined)
  let rest = ''
  child.stderr.on('data', (piece: Buffer) => {
    const lines = (rest + piece.toString()).split('\n')
    rest = lines.pop()!.slice(-2000)
    for (const line of lines.filter((l) => l !== '')) {
      const fault = faultIn(line)
      // A segment that was written is word that all is well again.
      if (process.connected && (fault !== null || line.includes('written'))) process.send!({ fault })
    }
  })
  child.on('error', (e) => {
    if (process.connected) process.send!({ fault: e.message })
    process.exit(1)
  })
  child.on('exit', (code) => process.exit(turn ? (code ?? 1) : 1))
}

void main()
