// Measures speed and memory; ratios within one run. `npm run bench`, `npm run bench -- --json`
import { join } from 'node:path'
import { ensurePackages, root, run } from './ensure.mjs'

ensurePackages()
process.exit(
  run(process.execPath, [
    '--expose-gc',
    '--import',
    join(root, 'node_modules/tsx/dist/esm/index.mjs'),
    'bench/run.ts',
    ...process.argv.slice(2),
  ]),
)
