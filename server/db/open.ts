import { chmodSync, closeSync, existsSync, mkdirSync, openSync } from 'node:fs'
import { dirname } from 'node:path'
import type { Client } from '@libsql/client'
import { drizzle, type LibSQLDatabase } from 'drizzle-orm/libsql'
import { migrate } from 'drizzle-orm/libsql/migrator'
import { connect } from './connect.ts'
import { rewriteFile } from './rewriteFile.ts'
import * as schema from './schema.ts'
import { toDisk } from './toDisk.ts'
import { WriteQueue } from './writeQueue.ts'

export type Db = LibSQLDatabase<typeof schema>

export interface Store {
  /** The data file; of data kept elsewhere the copy to read from. */
  file: string
  /** Address of the libSQL server that keeps the data; null: the file does. */
  keptAt: string | null
  db: Db
  client: Client
  /** Every write of the process goes through here, one at a time. */
  writes: WriteQueue
  /** Writes the whole file anew: nothing of before lies in its free space any more, and it is as short as it can be. */
  rewrite: () => Promise<void>
  /** Waits for writes under way, brings all into the one file and lets go of it. */
  close: () => Promise<void>
}

/** Writes a data file in use anew; where it does so is its own business. */
export type Rewriter = (file: string) => Promise<void>

/**
 * Opens the data file, brings its tables up to date and checks it.
 * @param file path of the SQLite file; its folder is made when missing
 * @throws Error when the file is damaged or the safety settings do not hold
 */
export async function openStore(
  file: string,
  migrationsFolder: string,
  rewriter: Rewriter = rewriteFile,
): Promise<Store> {
  mkdirSync(dirname(file), { recursive: true })
  // Masses and names of people are nobody else's on this machine. SQLite gives its other files the same mode. A file that
  // is there is never opened by other means: closing it would take away every lock this process has on it, and whoever
  // comes next would remove the -wal file under us.
  if (existsSync(file)) chmodSync(file, 0o600)
  else closeSync(openSync(file, 'wx', 0o600))
  const client = connect(file)
  const db = drizzle(client, { schema })
  await client.execute('PRAGMA journal_mode = WAL')
  await migrate(db, { migrationsFolder })
  // A confirmed ride note survives a power cut: the queue brings it to the disk before it is answered, many at once.
  await client.execute('PRAGMA synchronous = NORMAL')
  await client.execute('PRAGMA foreign_keys = ON')
  await assertPragmas(client)
  const check = await client.execute('PRAGMA quick_check(1)')
  if (check.rows[0]?.[0] !== 'ok')
    throw new Error(
      `The data file ${file} is damaged: ${String(check.rows[0]?.[0])}. Put a safe copy in its place with "npm run restore".`,
    )
  const writes = new WriteQueue(() => toDisk(file))
  const close = async () => {
    if (client.closed) return
    // A statement that failed is let go of by the driver when it pleases, and holds this up. What is confirmed lies safely
    // in the -wal file then, as after a kill.
    await writes.run(() => checkpoint(client)).catch(() => undefined)
    client.close()
  }
  return { file, keptAt: null, db, client, writes, rewrite: () => rewriter(file), close }
}

/** Brings what lies in the -wal file into the data file, so that the one file holds everything. */
async function checkpoint(client: Client): Promise<void> {
  await client.execute('PRAGMA wal_checkpoint(TRUNCATE)')
}

const wanted = { journal_mode: 'wal', synchronous: 1, foreign_keys: 1, busy_timeout: 5000 }

export async function assertPragmas(client: Client): Promise<void> {
  for (const [name, value] of Object.entries(wanted)) {
    const got = (await client.execute(`PRAGMA ${name}`)).rows[0]?.[0]
    if (String(got) !== String(value)) throw new Error(`SQLite ${name} is ${String(got)}, needed ${value}.`)
  }
}
