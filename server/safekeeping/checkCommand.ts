import { join, resolve } from 'node:path'
import { checkData } from './copyFile.ts'
import { placesOf } from './safeStart.ts'

/** `npm run check [-- file]`: whether a data file is sound, and what is in it. */
const file = process.argv[2] ? resolve(process.argv[2]) : placesOf(process.env).file
checkData(file, join(import.meta.dirname, 'migrations')).then(
  (c) =>
    console.log(
      `${file} is sound: ${c.riders} riders, ${c.bikes} bikes, ${c.days} days, ${c.runs} runs, ${c.recordings} recordings.`,
    ),
  (e: unknown) => {
    console.error(e instanceof Error ? e.message : e)
    process.exit(1)
  },
)
