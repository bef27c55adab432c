import { existsSync, linkSync, mkdirSync, renameSync, rmSync, statSync } from 'node:fs'
import { basename, dirname, join } from 'node:path'
import { connect } from '../db/connect.ts'
import { openStore } from '../db/open.ts'
import { checkData, placeWhole } from './copyFile.ts'
import { mendRecords } from './mend.ts'

/** The lock of the door and who is signed in are no data: they stay as they are now. */
const ofTheDoor = ['locks', 'sessions', 'passes', 'attempts'] as const

/**
 * Puts a safe copy in the place of the data file, lifted to today's tables. The data of now is set aside beside it, never
 * overwritten. Nobody may have the data file open.
 * @param at now, UTC, ISO 8601
 * @returns where the data of now lies; null when there was none
 * @throws Error when the copy is not sound; nothing has been changed then
 */
export async function putInPlace(
  copy: string,
  file: string,
  migrationsFolder: string,
  at: string,
): Promise<{ setAside: string | null; doorKept: boolean }> {
  await checkData(copy, migrationsFolder)
  const staged = `${file}.new`
  for (const end of ['', '-wal', '-shm']) rmSync(`${staged}${end}`, { force: true })
  mkdirSync(dirname(file), { recursive: true })
  placeWhole(copy, staged)
  const store = await openStore(staged, migrationsFolder)
  let doorKept: boolean
  try {
    // What could not be served is refused here, while the data of now is still in its place.
    await mendRecords(store, [], at)
    doorKept = existsSync(file) && (await keepDoor(store.client, file))
  } finally {
    await store.close()
  }

  const folder = join(dirname(file), 'set-aside')
  const aside = join(folder, `${at.slice(0, 19).replace(/[-:]/g, '')}Z-${basename(file)}`)
  mkdirSync(folder, { recursive: true, mode: 0o700 })
  // Entries beside a file are of that file alone: under another they would spoil it.
  if (sizeOf(`${file}-wal`) > 0) renameSync(`${file}-wal`, `${aside}-wal`)
  for (const end of ['-wal', '-shm']) rmSync(`${file}${end}`, { force: true })
  const hadData = existsSync(file)
  if (hadData) setAside(file, aside)
  renameSync(staged, file)
  return { setAside: hadData ? aside : null, doorKept }
}

/** A second name first, so that the first is never without a file; not every disk knows second names. */
function setAside(file: string, aside: string): void {
  try {
    linkSync(file, aside)
  } catch {
    renameSync(file, aside)
  }
}

/** @returns whether it could be read from the data of now */
async function keepDoor(client: ReturnType<typeof connect>, present: string): Promise<boolean> {
  try {
    // A wrecked file must not be opened under the new one.
    const look = connect(present)
    try {
      for (const table of ofTheDoor) await look.execute(`SELECT count(*) FROM ${table}`)
    } finally {
      look.close()
    }
    await client.execute({ sql: 'ATTACH DATABASE ? AS present', args: [present] })
    await client.batch(
      ofTheDoor.flatMap((table) => [
        `DELETE FROM main.${table}`,
        `INSERT INTO main.${table} SELECT * FROM present.${table}`,
      ]),
      'write',
    )
    await client.execute('DETACH DATABASE present')
    return true
  } catch {
    return false
  }
}

const sizeOf = (path: string): number => statSync(path, { throwIfNoEntry: false })?.size ?? 0
