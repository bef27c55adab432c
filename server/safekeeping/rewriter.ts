import { rewriteFile } from '../db/rewriteFile.ts'
import { answerOnce } from './childTask.ts'

/** Entry of the process that writes the data file anew: once, then done. */
const [file] = process.argv.slice(2)
answerOnce(() => rewriteFile(file).then(() => null))
