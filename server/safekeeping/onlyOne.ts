import { mkdirSync } from 'node:fs'
import { join } from 'node:path'
import { connect } from '../db/connect.ts'

/**
 * Takes a data folder for this process alone. The system itself holds the lock (SQLite's own, on a file beside the data),
 * so a killed process leaves none behind.
 * @returns the way to give it back
 * @throws Error when another process has it, or it cannot be written
 */
export async function takeFolder(dataDir: string): Promise<() => void> {
  const client = lockFile(dataDir)
  try {
    await client.execute('PRAGMA busy_timeout = 0')
    const held = await client.transaction('write')
    return () => {
      held.close()
      client.close()
    }
  } catch (e) {
    client.close()
    if ((e as { code?: string }).code !== 'SQLITE_BUSY') throw notWritable(dataDir, e)
    throw new Error(
      `Wild Spring already runs on the data in ${dataDir}. Two at once would write over each other: use the one that runs, end it first, or choose another folder with WILD_SPRING_DATA.`,
      { cause: e },
    )
  }
}

function lockFile(dataDir: string) {
  try {
    mkdirSync(dataDir, { recursive: true })
    return connect(join(dataDir, 'wild-spring.lock'))
  } catch (e) {
    throw notWritable(dataDir, e)
  }
}

const notWritable = (dataDir: string, cause: unknown) =>
  new Error(
    `The folder ${dataDir} cannot be written. Give whoever runs Wild Spring the right to, or choose another with WILD_SPRING_DATA.`,
    { cause },
  )
