import { readFileSync } from 'node:fs'
import { join } from 'node:path'
import { readMigrationFiles } from 'drizzle-orm/migrator'

/** Names of the shapes that a data file has had, first to last: those of its migrations. */
export function shapeNames(migrationsFolder: string): string[] {
  const journal = JSON.parse(readFileSync(join(migrationsFolder, 'meta', '_journal.json'), 'utf8')) as {
    entries: { tag: string }[]
  }
  return journal.entries.map((e) => e.tag)
}

/** The statements that make the tables of a shape, and what the migrator then finds noted of them. */
export function statementsFor(migrationsFolder: string, shape: string): string[] {
  const files = readMigrationFiles({ migrationsFolder }).slice(
    0,
    shapeNames(migrationsFolder).indexOf(shape) + 1,
  )
  return [
    ...files.flatMap((m) => m.sql),
    'CREATE TABLE __drizzle_migrations (id SERIAL PRIMARY KEY, hash text NOT NULL, created_at numeric)',
    ...files.map(
      (m) => `INSERT INTO __drizzle_migrations (hash, created_at) VALUES ('${m.hash}', ${m.folderMillis})`,
    ),
  ]
}
