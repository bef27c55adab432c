// One current picture of each main view, from the demo world, into docs/screenshots. `npm run screenshots`
import { run, ensureChromium, ensurePackages, root } from './ensure.mjs'
import { existsSync } from 'node:fs'
import { join } from 'node:path'

ensurePackages()
// Letters stand as on a screen only in the one that has windows.
const whole = '/usr/bin/chromium'
process.env.CHROMIUM ??= existsSync(whole) ? whole : ensureChromium()
await import('./build.mjs')
process.exit(run(process.execPath, [join(root, 'node_modules/tsx/dist/cli.mjs'), 'e2e/pictures.ts']))
