// Measures speed and memory; ratios within one run. `npm run bench`, `npm run bench -- --json`
import { join } from 'node:path'
import { ensurePackages, root, run } from './ensure.mjs'

ensurePackages()
const code = run(process.execPath, [
  '--expose-gc',
  '--import',
  join(root, 'node_modules/tsx/dist/esm/index.mjs'),
  'bench/run.ts',
  ...process.argv.slice(2),
])
if (code === 0 && process.argv.includes('--write'))
  run(join(root, 'node_modules', '.bin', 'prettier'), [
    '--write',
    '--log-level',
    'warn',
    'docs/benchmarks.md',
  ])
process.exit(code)
