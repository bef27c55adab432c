import { spawn, type ChildProcess } from 'node:child_process'
import { cpSync, mkdtempSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { startHosted } from './hosted.ts'

export interface RunningServer {
  base: string
  dataDir: string
  /** What it has printed so far. */
  said: () => string
  stop: () => Promise<void>
}

/** One that can be killed: stop('SIGKILL'). */
export interface ServerProcess extends RunningServer {
  process: ChildProcess
  stop: (signal?: NodeJS.Signals) => Promise<void>
}

interface Further {
  loggers?: readonly string[]
  /** Settings. */
  env?: Record<string, string>
  /** On the command line. */
  words?: readonly string[]
}

const newFolder = () => mkdtempSync(join(tmpdir(), 'wild-spring-e2e-'))

const settings = (dataDir: string, { loggers = [], env = {} }: Further) => ({
  ...process.env,
  WILD_SPRING_DATA: dataDir,
  WILD_SPRING_PORT: '0',
  WILD_SPRING_LOG: 'errors',
  WILD_SPRING_LOGGERS: loggers.join(','),
  ...env,
})

/** The built server on a data folder of its own, on a free port, in the process that this worker's servers share. */
export async function startServer(dataDir = newFolder(), further: Further = {}): Promise<RunningServer> {
  const { base, said, stop } = await startHosted(settings(dataDir, further), further.words ?? [])
  return { base, dataDir, said: () => said, stop }
}

/** The same in a process of its own: for what is killed, or tried as people start it. */
export async function startProcess(dataDir = newFolder(), further: Further = {}): Promise<ServerProcess> {
  const child = spawn(process.execPath, ['dist/server/index.js', ...(further.words ?? [])], {
    env: settings(dataDir, further),
    stdio: ['ignore', 'pipe', 'inherit'],
  })
  let text = ''
  const base = await new Promise<string>((resolve, reject) => {
    child.stdout!.on('data', (chunk: Buffer) => {
      text += chunk.toString()
      const hit = /https?:\/\/\S+/.exec(text)
      if (hit) resolve(hit[0])
    })
    child.on('exit', (code) => reject(new Error(`the server ended with ${code}`)))
  })
  return {
    base,
    dataDir,
    process: child,
    said: () => text,
    stop: (signal = 'SIGTERM') =>
      new Promise((resolve) => {
        if (child.exitCode !== null || child.signalCode !== null) return resolve()
        child.removeAllListeners('exit')
        child.on('exit', () => resolve())
        child.kill(signal)
      }),
  }
}

/** Both stand-in loggers on free ports, riding fast. */
export async function startLoggers(): Promise<{ addresses: string[]; stop: () => void }> {
  const child = spawn(process.execPath, ['dist/logger/index.js'], {
    env: { ...process.env, WILD_SPRING_LOGGER_PORT: '0', WILD_SPRING_LOGGER_PACE: '30' },
    stdio: ['ignore', 'pipe', 'inherit'],
  })
  const addresses = await new Promise<string[]>((resolve, reject) => {
    let text = ''
    child.stdout.on('data', (chunk: Buffer) => {
      text += chunk.toString()
      const hits = [...text.matchAll(/http:\/\/\S+/g)].map((m) => m[0])
      if (hits.length === 2) resolve(hits)
    })
    child.on('exit', (code) => reject(new Error(`the loggers ended with ${code}`)))
  })
  return { addresses, stop: () => void child.kill() }
}

/** A copy of the demo world, which was filled once before all tests. */
function demoFolder(size: 'small' | 'large'): string {
  const world = size === 'large' ? process.env.WILD_SPRING_LARGE_WORLD : process.env.WILD_SPRING_DEMO_WORLD
  if (!world)
    throw new Error('the demo world was not filled: playwright.config.ts does it in e2e/fillOnce.ts')
  const dataDir = newFolder()
  cpSync(world, dataDir, { recursive: true })
  return dataDir
}

/** A server on a copy of the demo world. */
export const startDemo = (
  loggers: readonly string[] = [],
  size: 'small' | 'large' = 'small',
): Promise<RunningServer> => startServer(demoFolder(size), { loggers })

/** The same in a process of its own. */
export const startDemoProcess = (): Promise<ServerProcess> => startProcess(demoFolder('small'))

/** Fills a running server with the demo world. */
export function fillDemo(base: string, size: 'small' | 'large' = 'small'): Promise<void> {
  return new Promise((resolve, reject) => {
    const child = spawn(
      process.execPath,
      ['node_modules/tsx/dist/cli.mjs', 'demo/fill.ts', base, `--${size}`],
      {
        stdio: 'inherit',
      },
    )
    child.on('exit', (code) =>
      code === 0 ? resolve() : reject(new Error(`demo/fill.ts ended with ${code}`)),
    )
  })
}
