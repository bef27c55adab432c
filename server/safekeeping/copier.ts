import { join } from 'node:path'
import { copyData } from './copyFile.ts'

/** Entry of the copying process: one copy, then done. */
const [file, to] = process.argv.slice(2)
process.umask(0o077)
// Whoever asked is gone: a copy that nobody waits for must not appear later.
process.on('disconnect', () => process.exit())
/** Said to the end, then gone. */
const done = () => process.exit()
copyData(file, to, join(import.meta.dirname, 'migrations')).then(
  (counts) => process.send!({ counts }, undefined, {}, done),
  (e: unknown) => process.send!({ fault: e instanceof Error ? e.message : String(e) }, undefined, {}, done),
)
