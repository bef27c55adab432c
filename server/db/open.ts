import { mkdirSync } from 'node:fs'
import { dirname } from 'node:path'
import { createClient, type Client } from '@libsql/client'
import { drizzle, type LibSQLDatabase } from 'drizzle-orm/libsql'
import { migrate } from 'drizzle-orm/libsql/migrator'
import * as schema from './schema.ts'
import { WriteQueue } from './writeQueue.ts'

export type Db = LibSQLDatabase<typeof schema>

export interface Store {
  db: Db
  client: Client
  /** Every write of the process goes through here, one at a time. */
  writes: WriteQueue
  close: () => void
}

/**
 * Opens the data file, brings its tables up to date and checks it.
 * @param file path of the SQLite file; its folder is made when missing
 * @throws Error when the file is damaged or the safety settings do not hold
 */
export async function openStore(file: string, migrationsFolder: string): Promise<Store> {
  mkdirSync(dirname(file), { recursive: true })
  const client = createClient({ url: `file:${file}` })
  const db = drizzle(client, { schema })
  await client.execute('PRAGMA journal_mode = WAL')
  await migrate(db, { migrationsFolder })
  // FULL: a confirmed ride note survives a power cut.
  await client.execute('PRAGMA synchronous = FULL')
  await client.execute('PRAGMA foreign_keys = ON')
  await client.execute('PRAGMA busy_timeout = 5000')
  await assertPragmas(client)
  const check = await client.execute('PRAGMA quick_check(1)')
  if (check.rows[0]?.[0] !== 'ok')
    throw new Error(`The data file ${file} is damaged: ${String(check.rows[0]?.[0])}. Restore a backup.`)
  return { db, client, writes: new WriteQueue(), close: () => client.close() }
}

const wanted = { journal_mode: 'wal', synchronous: 2, foreign_keys: 1 }

export async function assertPragmas(client: Client): Promise<void> {
  for (const [name, value] of Object.entries(wanted)) {
    const got = (await client.execute(`PRAGMA ${name}`)).rows[0]?.[0]
    if (String(got) !== String(value)) throw new Error(`SQLite ${name} is ${String(got)}, needed ${value}.`)
  }
}
