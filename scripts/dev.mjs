// Page with hot reload on 5173, server on 4870 from source. `npm run dev`
import { spawn } from 'node:child_process'
import { ensurePackages, root } from './ensure.mjs'

ensurePackages()
await import('./build.mjs')
const children = [
  spawn(process.execPath, ['dist/server/index.js'], { cwd: root, stdio: 'inherit' }),
  spawn('npx', ['vite'], { cwd: root, stdio: 'inherit' }),
]
for (const c of children) c.on('exit', () => children.forEach((x) => x.kill()))
