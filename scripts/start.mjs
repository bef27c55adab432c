// Serves Wild Spring on its own, real data; builds first when something changed. `npm start`
import { ensurePackages, isBuilt } from './ensure.mjs'

ensurePackages()
if (!isBuilt()) {
  console.log('Building …')
  await import('./build.mjs')
}
await import('../dist/server/index.js')
