import type { Client } from '@libsql/client'
import type { Became } from '#contract/data'
import { connect } from '../db/connect.ts'
import type { Store } from '../db/open.ts'
import { damaged } from '../db/schema.ts'
import { documentTables, type DocumentTable } from './documents.ts'

/** A safe copy to take a record from. */
interface Source {
  path: string
  at: string
}
interface Broken {
  id: string
  bytes: Uint8Array
}
/** So many of one kind at once are no damage of the disk but a fault of ours: nothing is touched then. */
const mostShare = 0.1
const mostAtAnyRate = 3

/**
 * Looks whether every record can be read, and mends what cannot, each by itself: one bad byte must cost one record. Its
 * bytes as they lay there are kept. The driver ends the whole process at text that is none, so records are read as bytes.
 * @param copies newest first
 * @returns how many were found
 * @throws Error where a record that others stand on can be had from nowhere, with the way out
 */
export async function mendRecords(store: Store, copies: readonly Source[], at: string): Promise<number> {
  let found = 0
  for (const kind of documentTables) {
    const { broken, whole } = await brokenOf(store.client, kind)
    if (broken.length > mostAtAnyRate && broken.length > mostShare * (broken.length + whole))
      throw new Error(
        `${broken.length} of ${broken.length + whole} records in ${kind.table} cannot be read. Put a safe copy in place with "npm run restore".`,
      )
    for (const b of broken) await mend(store, kind, b, copies, at)
    found += broken.length
  }
  return found
}

async function brokenOf(client: Client, { table, key, schema }: DocumentTable) {
  const { rows } = await client.execute(
    `SELECT CAST(${key} AS BLOB) AS id, CAST(body AS BLOB) AS body FROM ${table}`,
  )
  const broken: Broken[] = []
  for (const row of rows) {
    const id = new TextDecoder().decode(row.id as ArrayBuffer)
    const bytes = new Uint8Array(row.body as ArrayBuffer)
    if (!readable(bytes, schema)) broken.push({ id, bytes })
  }
  return { broken, whole: rows.length - broken.length }
}

const strict = new TextDecoder('utf-8', { fatal: true })

function readable(bytes: Uint8Array, schema: DocumentTable['schema']): boolean {
  try {
    return fits(strict.decode(bytes), schema)
  } catch {
    return false
  }
}

function fits(text: string, schema: DocumentTable['schema']): boolean {
  try {
    const value: unknown = JSON.parse(text)
    return schema ? schema.safeParse(value).success : typeof value === 'object' && value !== null
  } catch {
    return false
  }
}

async function mend(
  store: Store,
  kind: DocumentTable,
  { id, bytes }: Broken,
  copies: readonly Source[],
  at: string,
): Promise<void> {
  const { text, became, copiedAt } = await substitute(store.client, kind, id, bytes, copies)
  await store.db.insert(damaged).values({
    kind: kind.table,
    id,
    foundAt: at,
    became,
    copiedAt,
    bytes: Buffer.from(bytes),
  })
  const where = `WHERE ${kind.key} = ?`
  if (text === null) {
    await store.client.execute({ sql: `DELETE FROM ${kind.table} ${where}`, args: [id] })
    return
  }
  // Counted up: a device that holds what was lost must be asked, and not write over what took its place.
  const isVersioned = 'version' in (JSON.parse(text) as object)
  await store.client.execute({
    sql: isVersioned
      ? `UPDATE ${kind.table} SET version = version + 1, body = json_set(?, '$.version', version + 1) ${where}`
      : `UPDATE ${kind.table} SET body = ? ${where}`,
    args: [text, id],
  })
  if (became === 'emptied' && kind.isPutAway)
    await store.client.execute({ sql: `UPDATE ${kind.table} SET deleted_at = ? ${where}`, args: [at, id] })
}

/** What takes its place; `text` null: nothing. */
async function substitute(
  client: Client,
  kind: DocumentTable,
  id: string,
  bytes: Uint8Array,
  copies: readonly Source[],
): Promise<{ text: string | null; became: Became; copiedAt: string | null }> {
  const marked = new TextDecoder().decode(bytes)
  if (fits(marked, kind.schema)) return { text: marked, became: 'marked', copiedAt: null }
  for (const { path, at } of copies) {
    const text = await fromCopy(path, kind, id)
    if (text !== null) return { text, became: 'from-copy', copiedAt: at }
  }
  if (kind.isLeaf) return { text: null, became: 'left-out', copiedAt: null }
  const emptied = await emptiedOf(client, kind, id)
  if (emptied !== null && fits(emptied, kind.schema))
    return { text: emptied, became: 'emptied', copiedAt: null }
  throw new Error(
    `The record ${id} in ${kind.table} cannot be read, others stand on it, and no safe copy has it whole. Put an older copy in place with "npm run restore".`,
  )
}

async function emptiedOf(
  client: Client,
  { table, key, emptied }: DocumentTable,
  id: string,
): Promise<string | null> {
  if (!emptied) return null
  const sql = `SELECT ${emptied.columns} FROM ${table} WHERE ${key} = ?`
  const [columns] = (await client.execute({ sql, args: [id] })).rows
  return JSON.stringify(emptied.of({ ...columns }))
}

/** The document as a safe copy has it; null: not there, not whole there, or the copy is of another version. */
async function fromCopy(
  path: string,
  { table, key, schema }: DocumentTable,
  id: string,
): Promise<string | null> {
  const client = connect(path)
  try {
    const { rows } = await client.execute({
      sql: `SELECT CAST(body AS BLOB) AS body FROM ${table} WHERE ${key} = ?`,
      args: [id],
    })
    if (rows.length === 0) return null
    const bytes = new Uint8Array(rows[0].body as ArrayBuffer)
    return readable(bytes, schema) ? strict.decode(bytes) : null
  } catch {
    return null
  } finally {
    client.close()
  }
}
