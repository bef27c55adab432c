// The adviser on virtual riders: `npm run bench:adviser` [-- --json | --write | --riders 200 | --set tuning]
import { join } from 'node:path'
import { ensurePackages, root, run } from './ensure.mjs'

ensurePackages()
const code = run(process.execPath, [
  '--import',
  join(root, 'node_modules/tsx/dist/esm/index.mjs'),
  'bench/adviser/run.ts',
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
