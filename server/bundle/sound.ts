import type { Client } from '@libsql/client'
import type { z } from 'zod'
import type { BundleHead } from '#contract/bundle'
import { Id, Instant } from '#contract/common'
import { Recording, RememberedMapping } from '#contract/recording'
import { documentTables } from '../safekeeping/documents.ts'
import { asKeptToday } from '../services/recordings/kept.ts'
import { kinds, type Kind } from './kinds.ts'
import type { Body } from './privacy.ts'
import { unsound } from './zipIn.ts'

const schemas = new Map(documentTables.map((d) => [d.table, d.schema]))

/** Columns that are of the row and not of the record, and what each has to be. */
const rowColumns: Record<string, z.ZodType> = {
  deleted_at: Instant.nullable(),
  current_setup_id: Id.nullable(),
  day_id: Id.nullable(),
  taken_for: Id.nullable(),
  dropped_at: Instant.nullable(),
  said_at: Instant,
  came_at: Instant,
  fingerprint: RememberedMapping.shape.fingerprint,
}

/** What refers to something without the data file knowing it: none of these finds anything in a sound one. */
const looseEnds = [
  [
    'a bike',
    `SELECT 1 FROM bikes b WHERE b.current_setup_id IS NOT NULL AND NOT EXISTS
     (SELECT 1 FROM setups s WHERE s.id = b.current_setup_id AND s.bike_id = b.id)`,
  ],
  ['a kept setup', 'SELECT 1 FROM kept WHERE id NOT IN (SELECT id FROM setups)'],
  ['a rider of a tent', 'SELECT 1 FROM tent_riders WHERE id NOT IN (SELECT id FROM days)'],
  [
    'a decision in a tent',
    `SELECT 1 FROM tent_notes WHERE json_extract(body, '$.dayId') NOT IN (SELECT id FROM days)`,
  ],
  [
    'a setup',
    `SELECT 1 FROM setups WHERE json_extract(body, '$.frontUnitId') NOT IN (SELECT id FROM units)
     OR json_extract(body, '$.rearUnitId') NOT IN (SELECT id FROM units)`,
  ],
] as const

/**
 * Holds what was unpacked to the contract, record by record, and to itself.
 * @throws Refusal 'bundle.unsound' with the first thing that is not right
 */
export async function checkStaged(client: Client, head: BundleHead): Promise<void> {
  for (const kind of kinds) {
    const columns = kind.table === 'voices' ? 'id, day_id, came_at' : '*'
    const { rows } = await client.execute(`SELECT ${columns} FROM ${kind.table}`)
    for (const row of rows) checkRow(kind, { ...row })
  }
  const [loose] = (await client.execute('PRAGMA foreign_key_check')).rows
  if (loose) throw unsound(`A record of ${String(loose[0])} refers to something that is not in it.`)
  for (const [what, find] of looseEnds)
    if ((await client.execute(`${find} LIMIT 1`)).rows.length > 0)
      throw unsound(`In it, ${what} refers to something that is not there.`)
  await checkWithheld(client, head)
}

function checkRow({ table, key, mirrors }: Kind, row: Record<string, unknown>): void {
  const fault = (what: string) =>
    unsound(`A record of ${table} (${String(row[key]).slice(0, 40)}) is not right: ${what}`)
  for (const [column, value] of Object.entries(row)) {
    if (column === 'body' || column in mirrors) continue
    const wanted = column === 'id' ? Id : rowColumns[column]
    if (wanted && !wanted.safeParse(value).success) throw fault(`its ${column}.`)
  }
  if (row.body === undefined) return
  let body = JSON.parse(String(row.body)) as Body
  const schema = table === 'recordings' ? null : schemas.get(table)
  if (schema) {
    const said = schema.safeParse(body)
    if (!said.success) {
      const [issue] = said.error.issues
      throw fault(`${issue.path.join('.')}: ${issue.message}`)
    }
    body = said.data as Body
  } else if (table === 'recordings' && !isRecording(body)) throw fault('it is no recording.')
  for (const [column, field] of Object.entries(mirrors)) {
    const [inRow, inBody] = [row[column] ?? null, body[field] ?? null]
    const isSame = typeof inBody === 'boolean' ? Number(inBody) === inRow : inBody === inRow
    if (!isSame) throw fault(`${column} says something else than the record.`)
  }
}

/** Figures of an older core are made again; what a damaged one left behind has a name and nothing else. */
function isRecording(body: Body): boolean {
  if (Object.keys(body).every((k) => k === 'id' || k === 'fileName')) return true
  try {
    return Recording.safeParse(asKeptToday(body as never)).success
  } catch {
    return false
  }
}

/** What its head says is not in it, is not in it: nobody is handed a weight that says it is none. */
async function checkWithheld(client: Client, head: BundleHead): Promise<void> {
  const none = async (sql: string) => (await client.execute(`${sql} LIMIT 1`)).rows.length === 0
  const isSo =
    (head.with.voices || (await none('SELECT 1 FROM voices'))) &&
    (head.with.weights ||
      (await none(`SELECT 1 FROM riders WHERE json_extract(body, '$.bodyMassKg') IS NOT NULL`)))
  if (!isSo) throw unsound('It holds what it says it leaves out.')
}
