import type { Client } from '@libsql/client'
import { readMigrationFiles } from 'drizzle-orm/migrator'

/** What tables a data file has, against those of this version. */
export type Shape = 'empty' | 'older' | 'current' | 'newer' | 'foreign'

/** @param migrationsFolder of this version */
export async function shapeOf(client: Client, migrationsFolder: string): Promise<Shape> {
  const tables = await client.execute("SELECT name FROM sqlite_master WHERE type = 'table'")
  // Who may write to a libSQL server is noted there before there are tables.
  const names = tables.rows.map((r) => String(r.name)).filter((name) => name !== 'libsql_lease')
  if (names.length === 0) return 'empty'
  if (!names.includes('__drizzle_migrations')) return 'foreign'
  const ours = new Set(readMigrationFiles({ migrationsFolder }).map((m) => m.hash))
  const had = (await client.execute('SELECT hash FROM __drizzle_migrations')).rows.map((r) => String(r.hash))
  if (had.length === 0) return 'empty'
  if (had.some((hash) => !ours.has(hash))) return 'newer'
  return had.length < ours.size ? 'older' : 'current'
}
