// Builds everything, fills a data file with the demo world over HTTP and serves it. `npm run demo`
// `--fresh` forgets what was changed in the demo before; WILD_SPRING_PORT chooses the port.
import { spawn } from 'node:child_process'
import { existsSync, rmSync } from 'node:fs'
import { join } from 'node:path'
import { ensurePackages, root, run } from './ensure.mjs'

ensurePackages()
console.log('Building …')
await import('./build.mjs')

const dataDir = process.env.WILD_SPRING_DATA ?? join(root, 'data', 'demo')
if (process.argv.includes('--fresh')) rmSync(dataDir, { recursive: true, force: true })
const filled = existsSync(join(dataDir, 'wild-spring.sqlite'))
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
    server.kill()
    rmSync(dataDir, { recursive: true, force: true })
    process.exit(1)
  }
}
console.log(`\nWild Spring with its demo world is at ${address}\nStop it with Ctrl+C.`)
