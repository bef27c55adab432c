import { closeSync, existsSync, openSync, readSync, statSync } from 'node:fs'
import { connect } from '../db/connect.ts'
import { shapeOf } from '../db/shape.ts'

const wayBack = 'Put a safe copy in its place with "npm run restore"'
const magic = 'SQLite format 3\0'

/**
 * Looks at a data file before anything is written to it.
 * @param copies how many safe copies there are of it
 * @returns 'new' where there is none yet; 'older' needs its tables brought up to date
 * @throws Error with one sentence and the way out for what must not be opened
 */
export async function lookFirst(
  file: string,
  migrationsFolder: string,
  copies: number,
): Promise<'new' | 'older' | 'current'> {
  if (!existsSync(file)) {
    if (sizeOf(`${file}-wal`) > 0)
      throw new Error(
        `${file} is missing, but its newest entries lie beside it in ${file}-wal. Bring the file back to where it was, or move the -wal file away.`,
      )
    if (copies > 0)
      throw new Error(
        `${file} is missing, and ${copies} safe ${copies === 1 ? 'copy' : 'copies'} of it are there. ${wayBack}, or begin with nothing: "npm start -- --begin-empty".`,
      )
    return 'new'
  }
  const size = sizeOf(file)
  if (size === 0 && sizeOf(`${file}-wal`) === 0)
    throw new Error(
      `${file} is empty: it was cut off, or never written. ${wayBack}, or remove it to begin with nothing.`,
    )
  if (size > 0 && beginOf(file) !== magic)
    throw new Error(`${file} is damaged, or not a data file of Wild Spring. ${wayBack}.`)
  const client = connect(file)
  try {
    const shape = await shapeOf(client, migrationsFolder)
    switch (shape) {
      case 'older':
      case 'current':
        await mustBeWritable(client, file)
        return shape
      case 'newer':
        throw new Error(
          `${file} was written by a newer version of Wild Spring, and this one would strip what it does not know. Start the newer version, or restore a copy from before it.`,
        )
      case 'foreign':
        throw new Error(
          `${file} holds the tables of another program. Choose another folder with WILD_SPRING_DATA.`,
        )
      case 'empty':
        throw new Error(
          `${file} holds no tables: it was perhaps copied without the -wal file beside it. ${wayBack}, or remove it to begin with nothing.`,
        )
    }
  } catch (e) {
    if (
      (e as { code?: string }).code === 'SQLITE_NOTADB' ||
      (e as { code?: string }).code === 'SQLITE_CORRUPT'
    )
      throw new Error(`${file} is damaged. ${wayBack}.`, { cause: e })
    throw e
  } finally {
    client.close()
  }
}

async function mustBeWritable(client: ReturnType<typeof connect>, file: string): Promise<void> {
  try {
    // Takes the right to write, and writes nothing.
    await client.batch(['SELECT 1'], 'write')
  } catch (e) {
    if (!String((e as { code?: string }).code).startsWith('SQLITE_READONLY')) throw e
    throw new Error(
      `${file} can be read but not written: every save would fail. Give whoever runs Wild Spring the right to write it and its folder.`,
      { cause: e },
    )
  }
}

const sizeOf = (path: string): number => statSync(path, { throwIfNoEntry: false })?.size ?? 0

/** Only while nothing of this process is connected to the file: to open and close it drops every lock on it. */
function beginOf(path: string): string {
  const at = openSync(path, 'r')
  try {
    const bytes = Buffer.alloc(magic.length)
    readSync(at, bytes, 0, bytes.length, 0)
    return bytes.toString('latin1')
  } finally {
    closeSync(at)
  }
}
