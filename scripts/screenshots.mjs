// One current picture of each main view, from the demo world, into docs/screenshots. `npm run screenshots`
import { run, ensureChromium, ensurePackages, root } from './ensure.mjs'
import { join } from 'node:path'

ensurePackages()
process.env.CHROMIUM = ensureChromium()
await import('./build.mjs')
process.exit(run(process.execPath, [join(root, 'node_modules/tsx/dist/cli.mjs'), 'e2e/pictures.ts']))
