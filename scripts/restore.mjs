// Puts a safe copy in the place of the data; without a file it lists which there are. `npm run restore [-- name or path]`
import { ensurePackages, isBuilt } from './ensure.mjs'

ensurePackages()
if (!isBuilt()) await import('./build.mjs')
await import('../dist/server/restore.js')
