import { eq, getTableName, sql } from 'drizzle-orm'
import type { BatchItem } from 'drizzle-orm/batch'
import type { SQLiteColumn, SQLiteTable } from 'drizzle-orm/sqlite-core'
import type { Db, Store } from '../db/open.ts'
import { prepared } from '../db/prepared.ts'
import { Refusal } from '../refusal.ts'

interface Editable {
  version: number
}

interface EditableTable extends SQLiteTable {
  version: SQLiteColumn
  body: SQLiteColumn
}

/** Reads the record of `:id`. */
const ofId = (db: Db, table: SQLiteTable, idColumn: SQLiteColumn) =>
  prepared(db, idColumn, () =>
    db
      .select()
      .from(table)
      .where(eq(idColumn, sql.placeholder('id')))
      .prepare(),
  )

/** Whether there is a record of `:id`; nothing of it is read. */
const isThere = (db: Db, table: SQLiteTable & { id: SQLiteColumn }) =>
  prepared(db, `${getTableName(table)} is there`, () =>
    db
      .select({ id: table.id })
      .from(table)
      .where(eq(table.id, sql.placeholder('id')))
      .prepare(),
  )

/** Writes a first version, unless there is one already; its key columns and its body are filled in. */
const fresh = (db: Db, table: EditableTable, idColumn: SQLiteColumn, columns: string[]) =>
  prepared(db, `${getTableName(table)}: ${columns.join()}`, () => {
    const filled = [...columns, 'body'].map((name) => [name, sql.placeholder(name)])
    return db
      .insert(table)
      .values({ ...Object.fromEntries(filled), version: 1 } as never)
      .onConflictDoNothing({ target: idColumn })
      .prepare()
  })

/** Same content, whatever the version says. Both sides come out of one schema, so key order is stable. */
export function sameBody(a: Editable, b: Editable): boolean {
  return JSON.stringify({ ...a, version: 0 }) === JSON.stringify({ ...b, version: 0 })
}

/**
 * Saves an editable record under optimistic versions. Version 0 creates; the version that was read updates; a
 * replayed save that already arrived is answered as if it were new; anything else is stale.
 *
 * @param columns key columns kept beside the body
 * @param along   further writes that an update brings with it: all of them happen, or none
 * @returns the record as stored, version counted up
 * @throws Refusal 'record.stale' with both versions, 'record.not-found' when it was put away
 */
export async function saveRecord<T extends Editable>(
  store: Store,
  table: EditableTable,
  idColumn: SQLiteColumn,
  id: string,
  sent: T,
  columns: Record<string, unknown>,
  along: (held: T) => Promise<BatchItem<'sqlite'>[]> = async () => [],
): Promise<T> {
  if (sent.version === 0) {
    const body = { ...sent, version: 1 }
    const written = await fresh(store.db, table, idColumn, Object.keys(columns)).run({ ...columns, body })
    if (written.rowsAffected > 0) return body
  }
  const [held] = (await ofId(store.db, table, idColumn).all({ id })) as {
    version: number
    body: T
    deletedAt?: string | null
  }[]
  if (!held) throw new Refusal('record.not-found', 'It is not here any more; save it as new.')
  if (held.deletedAt)
    throw new Refusal('record.not-found', 'It was put away; bring it back before changing it.')
  if (sameBody(held.body, sent) && (sent.version === held.version || sent.version === held.version - 1))
    return held.body
  if (sent.version !== held.version) {
    throw new Refusal('record.stale', 'It was changed elsewhere in the meantime; look at both and choose.', {
      current: held.body,
      sent,
    })
  }
  const body = { ...sent, version: held.version + 1 }
  const update = store.db
    .update(table)
    .set({ ...columns, version: body.version, body } as never)
    .where(eq(idColumn, id))
  await store.db.batch([update, ...(await along(held.body))])
  return body
}

export interface SoftTable extends SQLiteTable {
  id: SQLiteColumn
  deletedAt: SQLiteColumn
}

/** Puts a record away, or brings it back. @throws Refusal 'record.not-found' */
export async function setDeleted(
  store: Store,
  table: SoftTable,
  id: string,
  at: string | null,
): Promise<void> {
  const result = await store.db
    .update(table)
    .set({ deletedAt: at } as never)
    .where(eq(table.id, id))
  if (result.rowsAffected === 0) throw new Refusal('record.not-found', 'There is nothing with that id.')
}

/** @throws Refusal 'reference.missing' */
export async function mustExist(
  store: Store,
  table: SQLiteTable & { id: SQLiteColumn },
  id: string,
  path: string,
  what: string,
): Promise<void> {
  const rows = await isThere(store.db, table).all({ id })
  if (rows.length === 0)
    throw new Refusal('reference.missing', `The ${what} it refers to is not saved yet.`, { path })
}
