// Looks whether a data file is sound. `npm run check [-- file]`
import { ensurePackages, isBuilt } from './ensure.mjs'

ensurePackages()
if (!isBuilt()) await import('./build.mjs')
await import('../dist/server/check.js')
