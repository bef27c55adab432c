import { join } from 'node:path'
import { answerOnce } from './childTask.ts'
import { copyData } from './copyFile.ts'

/** Entry of the copying process: one copy, then done. */
const [file, to] = process.argv.slice(2)
answerOnce(() => copyData(file, to, join(import.meta.dirname, 'migrations')))
