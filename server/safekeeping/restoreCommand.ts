import { existsSync } from 'node:fs'
import { join, resolve } from 'node:path'
import { listCopies } from './copies.ts'
import { takeFolder } from './onlyOne.ts'
import { putInPlace } from './putInPlace.ts'
import { placesOf } from './safeStart.ts'

/** `npm run restore -- file`: puts a safe copy in the place of the data; without a file it says which there are. */
async function main(): Promise<void> {
  process.umask(0o077)
  const { dataDir, file, copiesDir } = placesOf(process.env)
  const [asked] = process.argv.slice(2)
  const copies = listCopies(copiesDir)
  if (!asked) {
    console.log(
      copies.length
        ? `Safe copies in ${copiesDir}, newest first:`
        : `There are no safe copies in ${copiesDir}.`,
    )
    for (const c of copies) {
      const holds = c.counts
        ? `${c.counts.riders} riders, ${c.counts.days} days, ${c.counts.runs} runs`
        : 'not looked into'
      console.log(`  ${c.name}  ${(c.bytes / 1e6).toFixed(1)} MB, ${holds}`)
    }
    console.log('Put one in place with "npm run restore -- <name or path>".')
    return
  }
  const path = copies.some((c) => c.name === asked) ? join(copiesDir, asked) : resolve(asked)
  if (!existsSync(path)) throw new Error(`There is no file ${path}.`)
  const release = await takeFolder(dataDir)
  try {
    const { setAside, doorKept } = await putInPlace(
      path,
      file,
      join(import.meta.dirname, 'migrations'),
      new Date().toISOString(),
    )
    console.log(`${path} is in place.`)
    if (setAside) console.log(`What was there before lies in ${setAside}`)
    if (setAside && !doorKept) console.log('Passphrase and sign-ins are those of the copy.')
  } finally {
    release()
  }
}

main().catch((e: unknown) => {
  console.error(e instanceof Error ? e.message : e)
  process.exit(1)
})
