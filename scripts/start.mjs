// Serves Wild Spring on its own, real data. `npm start`
import { existsSync } from 'node:fs'
import { join } from 'node:path'
import { ensurePackages, root } from './ensure.mjs'

ensurePackages()
if (!existsSync(join(root, 'dist/server/index.js')) || process.argv.includes('--build'))
  await import('./build.mjs')
await import('../dist/server/index.js')
