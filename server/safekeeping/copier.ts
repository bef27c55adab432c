import { join } from 'node:path'
import { copyData } from './copyFile.ts'

/** Entry of the copying process: one copy, then done. */
const [file, to] = process.argv.slice(2)
process.umask(0o077)
copyData(file, to, join(import.meta.dirname, 'migrations')).then(
  (counts) => process.send!({ counts }),
  (e: unknown) => process.send!({ fault: e instanceof Error ? e.message : String(e) }),
)
