// Builds everything, fills a data file with the demo world over HTTP and serves it. `npm run demo`
// `--large` is a coach's world of 40 riders and 200 days, beside the small one; `--live` lets the riders of the practice come and go; `--fresh` forgets what was changed in the demo before; WILD_SPRING_PORT chooses the port.
import { spawn } from 'node:child_process'
import { existsSync, rmSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { ensurePackages, root, run } from './ensure.mjs'

ensurePackages()
console.log('Building …')
await import('./build.mjs')

const large = process.argv.includes('--large')
const dataDir = process.env.WILD_SPRING_DATA ?? join(root, 'data', large ? 'demo-large' : 'demo')
// The mark is set last: a demo that was stopped half-filled begins again. Data without it may be somebody's own.
const mark = join(dataDir, 'filled')
const marked = existsSync(mark)
if (!marked && existsSync(join(dataDir, 'wild-spring.sqlite')) && process.env.WILD_SPRING_DATA) {
  console.error(`${dataDir} holds data that is not the demo’s; choose another folder for the demo.`)
  process.exit(1)
}
const filled = marked && !process.argv.includes('--fresh')
const tsx = (...args) => run(process.execPath, ['node_modules/tsx/dist/cli.mjs', ...args])
if (!filled) {
  // Another demo may be running on it, or just be filling it.
  if (existsSync(dataDir) && tsx('scripts/freeFolder.ts', dataDir) !== 0) process.exit(1)
  forget()
}

function forget() {
  for (const name of [
    'wild-spring.sqlite',
    'wild-spring.sqlite-wal',
    'wild-spring.sqlite-shm',
    'incoming',
    'safe-copies',
    'filled',
  ]) {
    rmSync(join(dataDir, name), { recursive: true, force: true })
  }
}

/** First address a program prints. */
function addressOf(child) {
  return new Promise((resolve) => {
    let text = ''
    child.stdout.on('data', (chunk) => {
      text += chunk
      const hits = [...text.matchAll(/http:\/\/\S+/g)].map((m) => m[0])
      if (hits.length >= (child.addresses ?? 1)) resolve(hits)
    })
    child.on('exit', () => resolve([]))
  })
}

// Devices to try: without them (their port may be taken) the demo runs all the same.
const loggers = spawn(process.execPath, ['dist/logger/index.js'], {
  cwd: root,
  env: { WILD_SPRING_LOGGER_PORT: '0', ...process.env },
  stdio: ['ignore', 'pipe', 'inherit'],
})
loggers.addresses = 2
const loggerAddresses = await addressOf(loggers)

const server = spawn(process.execPath, ['dist/server/index.js'], {
  cwd: root,
  env: {
    WILD_SPRING_LOG: 'errors',
    ...process.env,
    WILD_SPRING_DATA: dataDir,
    WILD_SPRING_LOGGERS: loggerAddresses.join(','),
  },
  stdio: ['ignore', 'pipe', 'inherit'],
})
for (const signal of ['SIGINT', 'SIGTERM'])
  process.on(signal, () => {
    loggers.kill(signal)
    server.kill(signal)
  })
server.on('exit', (code) => {
  loggers.kill()
  process.exit(code ?? 0)
})

const [address] = await addressOf(server)
if (!filled) {
  console.log('Filling the demo world …')
  if (tsx('demo/fill.ts', address, ...(large ? ['--large'] : [])) !== 0) {
    server.removeAllListeners('exit')
    server.on('exit', () => {
      forget()
      loggers.kill()
      process.exit(1)
    })
    server.kill()
    await new Promise(() => {})
  }
  writeFileSync(mark, '')
}
if (process.argv.includes('--live')) {
  const live = spawn(process.execPath, ['node_modules/tsx/dist/cli.mjs', 'demo/live.ts', address], {
    cwd: root,
    stdio: ['ignore', 'inherit', 'inherit'],
  })
  process.on('exit', () => live.kill())
  console.log('Its riders come and go: open the tent from Today.')
}
console.log(`\nWild Spring with its demo world is at ${address}\nStop it with Ctrl+C.`)
