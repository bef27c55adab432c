import type { Client, InStatement, InValue } from '@libsql/client'
import type { Store } from '../db/open.ts'
import { Refusal } from '../refusal.ts'
import { kinds } from './kinds.ts'
import { columnsOf } from './meet.ts'

/** What came with an import. `?1` is the import. */
const cameWith = (table: string) =>
  `(SELECT key FROM import_rows WHERE import_id = ?1 AND kind = '${table}' AND before IS NULL)`

/** What refers to something that came, without the data file knowing it, and did not come with it. */
const looseEnds = [
  `SELECT 1 FROM kept WHERE id IN ${cameWith('setups')} AND id NOT IN ${cameWith('kept')}`,
  `SELECT 1 FROM tent_riders WHERE id IN ${cameWith('days')} AND id NOT IN ${cameWith('tent_riders')}`,
  `SELECT 1 FROM tent_notes WHERE json_extract(body, '$.dayId') IN ${cameWith('days')} AND id NOT IN ${cameWith('tent_notes')}`,
  `SELECT 1 FROM setups WHERE parent_id IN ${cameWith('setups')} AND id NOT IN ${cameWith('setups')}`,
  `SELECT 1 FROM bikes WHERE current_setup_id IN ${cameWith('setups')} AND id NOT IN
     (SELECT key FROM import_rows WHERE import_id = ?1 AND kind = 'bikes')`,
  `SELECT 1 FROM setups WHERE id NOT IN ${cameWith('setups')} AND (json_extract(body, '$.frontUnitId') IN ${cameWith('units')}
     OR json_extract(body, '$.rearUnitId') IN ${cameWith('units')})`,
]

/**
 * Takes back what was brought in, and puts back what it took the place of: all of it, or nothing.
 * @throws Refusal 'record.not-found'; 'import.in-use' when something of it was changed or is needed since
 */
export function takeBack({ client, writes }: Store, id: string): Promise<void> {
  return writes.run(async () => {
    const { rows } = await client.execute({ sql: 'SELECT 1 FROM imports WHERE id = ?', args: [id] })
    if (rows.length === 0) throw new Refusal('record.not-found', 'There is no such import any more.')
    const changed = await changedSince(client, id)
    if (changed > 0)
      throw inUse(
        `Since then ${changed === 1 ? 'one record of it was changed' : `${changed} records of it were changed`}`,
      )
    for (const sql of looseEnds)
      if ((await client.execute({ sql: `${sql} LIMIT 1`, args: [id] })).rows.length > 0)
        throw inUse('Since then something was made that stands on it')
    if (await isNeeded(client, id)) throw inUse('Since then something was made that stands on it')
    const back: InStatement[] = [
      'PRAGMA defer_foreign_keys = ON',
      ...ofRecordings.map((table) => ({
        sql: `DELETE FROM ${table} WHERE recording_id IN ${cameWith('recordings')}`,
        args: [id],
      })),
      ...[...kinds].reverse().map(({ table, key }) => ({
        sql: `DELETE FROM ${table} WHERE ${key} IN ${cameWith(table)}`,
        args: [id],
      })),
      ...(await restorations(client, id)),
      { sql: 'DELETE FROM import_rows WHERE import_id = ?', args: [id] },
      { sql: 'DELETE FROM imports WHERE id = ?', args: [id] },
    ]
    await client.batch(back, 'write')
  })
}

/** Tables whose rows are part of a recording. */
const ofRecordings = ['recording_chunks', 'recording_originals']

const inUse = (what: string) =>
  new Refusal('import.in-use', `${what}; taking it back would lose that. Nothing was taken back.`)

/** Whether something that did not come with it refers to something that did. Asked first: a transaction is never begun to fail. */
async function isNeeded(client: Client, id: string): Promise<boolean> {
  const came = new Set(kinds.map((k) => k.table))
  const tables = await client.execute("SELECT name FROM sqlite_master WHERE type = 'table'")
  for (const table of tables.rows.map((r) => String(r.name))) {
    // Their rows go with their recording, and with the import.
    if (ofRecordings.includes(table) || table === 'import_rows') continue
    const own = kinds.find((k) => k.table === table)
    const { rows } = await client.execute(`SELECT "from", "table" FROM pragma_foreign_key_list('${table}')`)
    for (const r of rows.filter((x) => came.has(String(x.table)))) {
      const isOther = own ? `AND ${own.key} NOT IN ${cameWith(table)}` : ''
      const found = await client.execute({
        sql: `SELECT 1 FROM ${table} WHERE ${String(r.from)} IN ${cameWith(String(r.table))} ${isOther} LIMIT 1`,
        args: [id],
      })
      if (found.rows.length > 0) return true
    }
  }
  return false
}

async function changedSince(client: Client, id: string): Promise<number> {
  let changed = 0
  for (const { table, key } of kinds) {
    const columns = await columnsOf(client, table)
    const marks = [
      ['version', 'version'],
      ['deleted_at', 'deleted_at'],
      ['current_setup_id', 'pointer'],
    ].filter(([column]) => columns.includes(column))
    const [{ n }] = (
      await client.execute({
        sql: `SELECT count(*) AS n FROM import_rows r LEFT JOIN ${table} m ON m.${key} = r.key
          WHERE r.import_id = ? AND r.kind = '${table}'
            AND (m.${key} IS NULL ${marks.map(([column, mark]) => `OR m.${column} IS NOT r.${mark}`).join(' ')})`,
        args: [id],
      })
    ).rows
    changed += Number(n)
  }
  return changed
}

/** What stood in the place of a record that was replaced. */
async function restorations(client: Client, id: string): Promise<InStatement[]> {
  const { rows } = await client.execute({
    sql: 'SELECT kind, key, before FROM import_rows WHERE import_id = ? AND before IS NOT NULL',
    args: [id],
  })
  return rows.map((r) => {
    const kind = kinds.find((k) => k.table === r.kind)!
    const before = Object.entries(JSON.parse(String(r.before)) as Record<string, InValue>)
    return {
      sql: `UPDATE ${kind.table} SET ${before.map(([n]) => `${n} = ?`).join()} WHERE ${kind.key} = ?`,
      args: [...before.map(([, v]) => v), String(r.key)],
    }
  })
}
