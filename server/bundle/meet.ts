import { createHash } from 'node:crypto'
import type { Client, Row } from '@libsql/client'
import type { BundleHead, BundleLook, DifferingRecord } from '#contract/bundle'
import { documentTables } from '../safekeeping/documents.ts'
import { differences } from './differences.ts'
import { kinds, type Kind } from './kinds.ts'
import { likeRecords, type Like } from './like.ts'
import { namesOf, type Lookup } from './names.ts'
import { withoutSecrets, type Body } from './privacy.ts'

/** What the bundle would do here, in full; what a person is shown of it is `look`. */
export interface Meeting {
  look: Omit<BundleLook, 'id'>
  /** Rows that differ, by kind and key. */
  differing: Map<string, Pair>
  like: Like[]
  /** The same again, as long as nothing that it says has changed. */
  digest: string
}
export interface Pair {
  kind: Kind
  key: string
  ours: Row
  theirs: Row
}

export const keyOf = (kind: string, key: string) => `${kind} ${key}`
const mostShown = 300
const mostFields = 12
/** Of the row and not of the record, and worth a person's choice. */
const rowFields: Record<string, string> = {
  deleted_at: 'put away',
  current_setup_id: 'on the bike',
  taken_for: 'taken for',
  dropped_at: 'dropped',
}
/** Of a recording, what people say of it: figures are made again, and bytes do not change. */
const saidOfRecordings = ['fileName', 'spans', 'lineS']

const schemas = new Map(documentTables.map((d) => [d.table, d.schema]))

/** A record with today's usual values, without what a bundle withholds: two of them can be held against each other. */
function comparable(table: string, text: unknown, head: BundleHead): Body {
  const raw = JSON.parse(String(text)) as Body
  const { version: _counted, ...body } = (schemas.get(table)?.safeParse(raw).data ?? raw) as Body
  if (table === 'recordings') return Object.fromEntries(saidOfRecordings.map((f) => [f, body[f]]))
  return withoutSecrets(table, body, head.with)
}

/** Columns of a table, without its order of saving. */
export async function columnsOf(client: Client, table: string): Promise<string[]> {
  const { rows } = await client.execute(`SELECT name FROM pragma_table_info('${table}', 'main')`)
  return rows.map((r) => String(r.name)).filter((n) => n !== 'seq')
}

/** Holds what was unpacked, attached as `came`, against what is here. Reads only. */
export async function meet(client: Client, head: BundleHead): Promise<Meeting> {
  const differing = new Map<string, Pair>()
  const shown: DifferingRecord[] = []
  const counted: BundleLook['kinds'] = []
  const hash = createHash('sha256')
  const bodies = new Map<string, Promise<Body | null>>()
  const look: Lookup = (table, key) => {
    const at = keyOf(table, key)
    bodies.set(at, bodies.get(at) ?? bodyOf(client, table, key))
    return bodies.get(at)!
  }
  for (const kind of kinds) {
    const { table, key } = kind
    const columns = await columnsOf(client, table)
    const fields = Object.keys(rowFields).filter((c) => columns.includes(c))
    const hasBody = columns.includes('body')
    const [{ n }] = (await client.execute(`SELECT count(*) AS n FROM came.${table}`)).rows
    const fresh = (
      await client.execute(
        `SELECT ${key} FROM came.${table} WHERE ${key} NOT IN (SELECT ${key} FROM main.${table}) ORDER BY ${key}`,
      )
    ).rows.map((r) => String(r[0]))
    fresh.forEach((k) => hash.update(keyOf(table, k)))
    let differs = 0
    // Alike letter by letter is alike; what is left is read.
    const unlike = [...(hasBody ? ['c.body <> m.body'] : []), ...fields.map((f) => `c.${f} IS NOT m.${f}`)]
    const candidates = unlike.length
      ? await client.execute(
          `SELECT c.${key} FROM came.${table} c JOIN main.${table} m ON m.${key} = c.${key} WHERE ${unlike.join(' OR ')}`,
        )
      : { rows: [] }
    for (const [k] of candidates.rows.map((r) => [String(r[0])])) {
      const [ours, theirs] = await Promise.all(
        ['main', 'came'].map(async (db) => {
          const sql = `SELECT ${columns.filter((c) => c !== 'bytes').join()} FROM ${db}.${table} WHERE ${key} = ?`
          return (await client.execute({ sql, args: [k] })).rows[0]
        }),
      )
      const found = differences(comparable(table, ours.body, head), comparable(table, theirs.body, head))
      for (const f of fields)
        if (ours[f] !== theirs[f])
          found.push({
            path: rowFields[f],
            ours: await rowFieldWords(f, ours[f], look),
            theirs: await rowFieldWords(f, theirs[f], look),
          })
      if (found.length === 0) continue
      differs++
      differing.set(keyOf(table, k), { kind, key: k, ours, theirs })
      hash.update(JSON.stringify([table, k, ours.version, found]))
      if (shown.length < mostShown)
        shown.push({
          kind: table,
          key: k,
          ...(await namesOf(table, JSON.parse(String(ours.body)) as Body, look)),
          fields: found.slice(0, mostFields),
          more: Math.max(0, found.length - mostFields),
        })
    }
    if (Number(n) > 0)
      counted.push({
        kind: table,
        fresh: fresh.length,
        same: Number(n) - fresh.length - differs,
        differing: differs,
      })
  }
  const like = await likeRecords(client)
  hash.update(JSON.stringify(like.map((l) => [l.key, l.asKey, l.isAlike])))
  return {
    look: {
      head,
      kinds: counted,
      differing: shown,
      like: like.map(({ ids: _ids, ...shownOfIt }) => shownOfIt),
    },
    differing,
    like,
    digest: hash.digest('hex'),
  }
}

async function bodyOf(client: Client, table: string, key: string): Promise<Body | null> {
  const { key: column } = kinds.find((k) => k.table === table)!
  for (const db of ['main', 'came']) {
    const { rows } = await client.execute({
      sql: `SELECT body FROM ${db}.${table} WHERE ${column} = ?`,
      args: [key],
    })
    if (rows.length > 0) return JSON.parse(String(rows[0].body)) as Body
  }
  return null
}

async function rowFieldWords(field: string, value: unknown, look: Lookup): Promise<string> {
  if (value === null) return field === 'current_setup_id' ? 'nothing is known' : 'no'
  if (field === 'current_setup_id') {
    const setup = await look('setups', String(value))
    return setup ? (await namesOf('setups', setup, look)).name : '?'
  }
  if (field === 'taken_for') {
    const run = await look('runs', String(value))
    return run ? (await namesOf('runs', run, look)).name : '?'
  }
  return `${String(value).slice(0, 16).replace('T', ' ')} UTC`
}
