import type { Client, InStatement, InValue } from '@libsql/client'
import type { BundleChoices, BundleHead, Import } from '#contract/bundle'
import { Refusal } from '../refusal.ts'
import { kinds, type Kind } from './kinds.ts'
import { columnsOf, keyOf, type Meeting, type Pair } from './meet.ts'
import { withOurSecrets, type Body } from './privacy.ts'

/** Tables and columns in which one record of ours may stand for one of theirs. */
const refersTo: Record<string, { bodies: string[]; columns: [table: string, column: string][] }> = {
  riders: {
    bodies: ['days', 'bikes', 'units', 'stock'],
    columns: [
      ['days', 'rider_id'],
      ['bikes', 'rider_id'],
    ],
  },
  trails: {
    bodies: ['days', 'tents', 'feels', 'recordings', 'pad_reports', 'proposals'],
    columns: [['days', 'trail_id']],
  },
  units: {
    bodies: ['bikes', 'setups', 'services', 'stock', 'benches', 'baselines', 'proposals'],
    columns: [
      ['bikes', 'front_unit_id'],
      ['bikes', 'rear_unit_id'],
    ],
  },
  gauges: { bodies: ['benches', 'setups', 'baselines'], columns: [] },
}

/**
 * Brings in what was unpacked, attached as `came`: all of it in one transaction, or nothing. What was there before is kept
 * beside it, so that it can be taken back.
 * @throws Refusal 'request.invalid' for a choice that was not offered
 */
export async function takeIn(
  client: Client,
  head: BundleHead,
  meeting: Meeting,
  choices: BundleChoices,
  id: string,
  at: string,
): Promise<Import> {
  const stands = standsFor(meeting, choices)
  const replaced = chosen(meeting, choices)
  await client.execute('DROP TABLE IF EXISTS temp.fresh')
  await client.execute('CREATE TEMP TABLE fresh (kind TEXT, key TEXT, PRIMARY KEY (kind, key))')
  for (const { table, key } of kinds)
    await client.execute({
      sql: `INSERT INTO temp.fresh SELECT ?1, ${key} FROM came.${table}
        WHERE ${key} NOT IN (SELECT ${key} FROM main.${table})`,
      args: [table],
    })
  for (const s of stands)
    await client.execute({ sql: 'DELETE FROM temp.fresh WHERE kind = ? AND key = ?', args: [s.kind, s.key] })
  const fresh = Number((await client.execute('SELECT count(*) FROM temp.fresh')).rows[0][0])
  const done: Import = { id, at, head, fresh, replaced: replaced.length }
  await client.batch(
    [
      'PRAGMA defer_foreign_keys = ON',
      {
        sql: 'INSERT INTO imports (id, at, head, fresh, replaced) VALUES (?, ?, ?, ?, ?)',
        args: [id, at, JSON.stringify(head), fresh, replaced.length],
      },
      ...stands.flatMap(renamed),
      ...(await freeNumbers(client)),
      ...(await Promise.all(kinds.map((k) => insertion(client, k, id)))).flat(),
      ...['recording_chunks', 'recording_originals'].map(
        (table) => `INSERT INTO main.${table} SELECT c.* FROM came.${table} c
         WHERE c.recording_id IN (SELECT key FROM temp.fresh WHERE kind = 'recordings')`,
      ),
      // A file that is here already is the same one.
      `INSERT OR IGNORE INTO main.original_chunks SELECT c.* FROM came.original_chunks c
         WHERE c.sha256 IN (SELECT sha256 FROM main.recording_originals)`,
      ...replaced.flatMap((p) => replacement(p, head, stands, id)),
    ],
    'write',
  )
  await client.execute('DROP TABLE temp.fresh')
  return done
}

type Stand = Meeting['like'][number]

/** Records of theirs that are taken for ours. */
function standsFor(meeting: Meeting, choices: BundleChoices): Stand[] {
  return choices.taken.map((t) => {
    const offered = meeting.like.find((l) => l.kind === t.kind && l.key === t.key && l.asKey === t.asKey)
    if (!offered) throw new Refusal('request.invalid', 'taken: that one was not offered.', { path: 'taken' })
    return offered
  })
}

/** Records of ours that theirs take the place of. */
function chosen(meeting: Meeting, choices: BundleChoices): Pair[] {
  const except = new Set(choices.except.map((e) => keyOf(e.kind, e.key)))
  for (const key of except)
    if (!meeting.differing.has(key))
      throw new Refusal('request.invalid', 'except: that record does not differ.', { path: 'except' })
  return [...meeting.differing].flatMap(([key, pair]) =>
    (choices.differing === 'theirs') !== except.has(key) ? [pair] : [],
  )
}

/** Within `came`: theirs goes by our id, and what referred to it refers to ours. */
function renamed({ kind, ids }: Stand): InStatement[] {
  const { bodies, columns } = refersTo[kind]
  const [[theirs, ours]] = ids
  return [
    { sql: `UPDATE came.${kind} SET id = ?2 WHERE id = ?1`, args: [theirs, ours] },
    ...ids.flatMap(([from, to]) =>
      bodies.map((table) => ({
        sql: `UPDATE came.${table} SET body = replace(body, ?1, ?2) WHERE instr(body, ?1) > 0`,
        args: [`"${from}"`, `"${to}"`],
      })),
    ),
    ...columns.map(([table, column]) => ({
      sql: `UPDATE came.${table} SET ${column} = ?2 WHERE ${column} = ?1`,
      args: [theirs, ours],
    })),
  ]
}

/** No two riders of a tent have one number: whoever comes into a tent that is here gets a free one. */
async function freeNumbers(client: Client): Promise<InStatement[]> {
  const { rows } = await client.execute(
    `SELECT id, tent_id, json_extract(body, '$.number') AS number FROM came.tent_riders
       WHERE id IN (SELECT key FROM temp.fresh WHERE kind = 'tent_riders')`,
  )
  const taken = new Set(
    (
      await client.execute(`SELECT tent_id, json_extract(body, '$.number') AS number FROM main.tent_riders`)
    ).rows.map((r) => `${String(r.tent_id)} ${Number(r.number)}`),
  )
  return rows.flatMap((r) => {
    let number = Number(r.number)
    const isTaken = () => taken.has(`${String(r.tent_id)} ${number}`)
    if (isTaken()) for (number = 1; isTaken(); number++);
    taken.add(`${String(r.tent_id)} ${number}`)
    if (number === Number(r.number)) return []
    return [
      {
        sql: `UPDATE came.tent_riders SET body = json_set(body, '$.number', ?) WHERE id = ?`,
        args: [number, String(r.id)],
      },
    ]
  })
}

/** What lets a row be known again when the import is to be taken back. */
const marksOf = (columns: readonly string[], of: string) =>
  ['version', 'deleted_at', 'current_setup_id']
    .map((c) => (columns.includes(c) ? `${of}.${c}` : 'NULL'))
    .join()

async function insertion(client: Client, { table, key }: Kind, importId: string): Promise<InStatement[]> {
  const columns = await columnsOf(client, table)
  const names = columns.join()
  const isFresh = `c.${key} IN (SELECT key FROM temp.fresh WHERE kind = '${table}')`
  return [
    {
      sql: `INSERT INTO import_rows (import_id, kind, key, before, version, deleted_at, pointer)
        SELECT ?, '${table}', c.${key}, NULL, ${marksOf(columns, 'c')} FROM came.${table} c WHERE ${isFresh}`,
      args: [importId],
    },
    `INSERT INTO main.${table} (${names}) SELECT ${columns.map((c) => `c.${c}`).join()} FROM came.${table} c
       WHERE ${isFresh} ORDER BY c.rowid`,
  ]
}

/** Theirs in the place of ours, with a version of its own: pages that hold ours are told so when they save. */
function replacement(
  { kind, key, ours, theirs }: Pair,
  head: BundleHead,
  stands: Stand[],
  importId: string,
): InStatement[] {
  const own = JSON.parse(String(ours.body)) as Body
  let text = String(theirs.body)
  for (const [from, to] of stands.flatMap((s) => s.ids)) text = text.replaceAll(`"${from}"`, `"${to}"`)
  const came = JSON.parse(text) as Body
  let body: Body =
    kind.table === 'recordings'
      ? {
          ...own,
          fileName: came.fileName,
          spans: came.spans,
          lineS: came.lineS,
          analysis: null,
          figures: 'renewing',
        }
      : withOurSecrets(kind.table, came, own, head.with)
  const row: Record<string, InValue> = {}
  for (const [column, value] of Object.entries(theirs)) {
    const field = kind.mirrors[column]
    if (column === 'body' || column === kind.key || column === 'sha256') continue
    row[column] = field === undefined ? (value as InValue) : mirrored(body[field])
  }
  if (typeof ours.version === 'number') {
    row.version = ours.version + 1
    body = { ...body, version: row.version }
  }
  row.body = JSON.stringify(body)
  const names = Object.keys(row)
  return [
    {
      sql: `INSERT INTO import_rows (import_id, kind, key, before, version, deleted_at, pointer) VALUES (?, ?, ?, ?, ?, ?, ?)`,
      args: [
        importId,
        kind.table,
        key,
        JSON.stringify(ours),
        row.version ?? null,
        row.deleted_at ?? null,
        row.current_setup_id ?? null,
      ],
    },
    {
      sql: `UPDATE main.${kind.table} SET ${names.map((n) => `${n} = ?`).join()} WHERE ${kind.key} = ?`,
      args: [...names.map((n) => row[n]), key],
    },
  ]
}

const mirrored = (value: unknown): InValue =>
  typeof value === 'boolean' ? Number(value) : ((value ?? null) as InValue)
