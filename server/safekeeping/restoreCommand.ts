import { existsSync, rmSync, statSync } from 'node:fs'
import { join, resolve } from 'node:path'
import { listCopies } from './copies.ts'
import { beginnings, isFollowing, putTogether } from './followed.ts'
import { litestreamProgram } from './litestream.ts'
import { takeFolder } from './onlyOne.ts'
import { putInPlace } from './putInPlace.ts'
import { placesOf } from './safeStart.ts'

const migrations = join(import.meta.dirname, 'migrations')

/** `npm run restore -- file`: puts a safe copy in the place of the data; without a file it says which there are. */
async function main(): Promise<void> {
  process.umask(0o077)
  const { dataDir, file, copiesDir, followDir } = placesOf(process.env)
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
    if (followDir && isFollowing(followDir)) console.log(`A copy that follows is in ${followDir}.`)
    console.log('Put one in place with "npm run restore -- <name or path>".')
    return
  }
  if (process.env.WILD_SPRING_LIBSQL_URL)
    throw new Error(
      'With WILD_SPRING_LIBSQL_URL the data are kept by a libSQL server: a copy is laid under it there, see docs/guide/scale.md.',
    )
  const path = copies.some((c) => c.name === asked) ? join(copiesDir, asked) : resolve(asked)
  if (!existsSync(path)) throw new Error(`There is no file ${path}.`)
  if (statSync(path).isDirectory() && !isFollowing(path))
    throw new Error(`There is no copy in ${path}: name the file of one, or the folder of one that follows.`)
  const release = await takeFolder(dataDir)
  const fetched = join(dataDir, 'followed.sqlite')
  try {
    if (isFollowing(path)) await fetchFollowed(path, fetched)
    const { setAside, doorKept } = await putInPlace(
      isFollowing(path) ? fetched : path,
      file,
      migrations,
      new Date().toISOString(),
    )
    console.log(`${path} is in place.`)
    if (setAside) console.log(`What was there before lies in ${setAside}`)
    if (setAside && !doorKept) console.log('Passphrase and sign-ins are those of the copy.')
  } finally {
    for (const end of ['', '-wal', '-shm']) rmSync(`${fetched}${end}`, { force: true })
    release()
  }
}

/**
 * The newest state of a copy that follows that is sound, as a data file; of an earlier beginning where the last is not.
 * @throws Error when none can be put together
 */
async function fetchFollowed(folder: string, to: string): Promise<void> {
  const program = litestreamProgram(process.env.WILD_SPRING_LITESTREAM)
  const faults: string[] = []
  for (const generation of beginnings(folder)) {
    try {
      await putTogether(program, folder, generation, to, migrations)
      if (faults.length > 0)
        console.log(
          `The last state of it is not sound; this is one from before (${faults.length} ${faults.length === 1 ? 'was' : 'were'} left out).`,
        )
      return
    } catch (e) {
      faults.push(e instanceof Error ? e.message : String(e))
    }
  }
  throw new Error(`The copy in ${folder} cannot be put together: ${faults[0] ?? 'there is nothing in it'}.`)
}

main().catch((e: unknown) => {
  console.error(e instanceof Error ? e.message : e)
  process.exit(1)
})
