// Builds everything, fills a data file with the demo world over HTTP and serves it. `npm run demo`
// `--fresh` forgets what was changed in the demo before; WILD_SPRING_PORT chooses the port.
import { spawn } from 'node:child_process'
import { existsSync, rmSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { ensurePackages, root, run } from './ensure.mjs'

ensurePackages()
console.log('Building …')
await import('./build.mjs')

const dataDir = process.env.WILD_SPRING_DATA ?? join(root, 'data', 'demo')
// The mark is set last: a demo that was stopped half-filled begins again. Data without it may be somebody's own.
const mark = join(dataDir, 'filled')
const marked = existsSync(mark)
if (!marked && existsSync(join(dataDir, 'wild-spring.sqlite')) && process.env.WILD_SPRING_DATA) {
  console.error(`${dataDir} holds data that is not the demo’s; choose another folder for the demo.`)
  process.exit(1)
}
const filled = marked && !process.argv.includes('--fresh')
if (!filled) forget()

function forget() {
  for (const name of [
    'wild-spring.sqlite',
    'wild-spring.sqlite-wal',
    'wild-spring.sqlite-shm',
    'incoming',
    'filled',
  ]) {
    rmSync(join(dataDir, name), { recursive: true, force: true })
  }
}

const server = spawn(process.execPath, ['dist/server/index.js'], {
  cwd: root,
  env: { ...process.env, WILD_SPRING_DATA: dataDir },
  stdio: ['ignore', 'pipe', 'inherit'],
})
process.on('SIGINT', () => server.kill('SIGINT'))
process.on('SIGTERM', () => server.kill('SIGTERM'))
server.on('exit', (code) => process.exit(code ?? 0))

const address = await new Promise((resolve) => {
  let text = ''
  server.stdout.on('data', (chunk) => {
    text += chunk
    const hit = /http:\/\/\S+/.exec(text)
    if (hit) resolve(hit[0])
  })
})
if (!filled) {
  console.log('Filling the demo world …')
  if (run(process.execPath, ['node_modules/tsx/dist/cli.mjs', 'demo/fill.ts', address]) !== 0) {
    server.removeAllListeners('exit')
    server.on('exit', () => {
      forget()
      process.exit(1)
    })
    server.kill()
    await new Promise(() => {})
  }
  writeFileSync(mark, '')
}
console.log(`\nWild Spring with its demo world is at ${address}\nStop it with Ctrl+C.`)
