// Runs one of the benchmarks: `npm run bench`, `npm run bench:adviser` [-- --json | --write | …]
import { join } from 'node:path'
import { ensurePackages, root, run } from './ensure.mjs'

ensurePackages()
const [file, ...options] = process.argv.slice(2)
const code = run(process.execPath, [
  '--expose-gc',
  '--import',
  join(root, 'node_modules/tsx/dist/esm/index.mjs'),
  file,
  ...options,
])
if (code === 0 && options.includes('--write'))
  run(join(root, 'node_modules', '.bin', 'prettier'), [
    '--write',
    '--log-level',
    'warn',
    'docs/benchmarks.md',
  ])
process.exit(code)
