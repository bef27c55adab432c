import type { Client, InStatement, Row } from '@libsql/client'
import type { NamedElsewhere } from '#contract/erasure'
import type { Body } from '../bundle/privacy.ts'
import { documentTables } from '../safekeeping/documents.ts'
import { partsOf, renaming, saved, type Place } from './withoutName.ts'

/** What a record with a name of its own is called; everything else is a record of somebody. */
const called: Partial<Record<string, string>> = {
  trails: 'trail',
  profiles: 'profile',
  gauges: 'gauge',
  stock: 'spare part',
  tents: 'event',
  letterheads: 'head of the cards',
  bikes: 'bike',
  units: 'fork or shock',
  kept: 'kept setup',
}

/**
 * Records beside a rider's own in which the name stands: a trail called after them, a note of somebody else. They stay as
 * they are; whoever looks decides whether this rider is meant. Who turned a dial is not among them, see `authored`.
 *
 * @param known places whose records go, or lose the name anyway
 */
export async function namedElsewhere(
  client: Client,
  name: string,
  known: readonly Place[],
): Promise<NamedElsewhere[]> {
  const rename = renaming(name, '')
  const found: NamedElsewhere[] = []
  for (const { table, body } of await beside(client, name, known)) {
    const text = JSON.stringify(withoutAuthor(body, name))
    if (JSON.stringify(rename(JSON.parse(text))) === text) continue
    const what = called[table]
    found.push(what ? { what, name: String(body.name ?? '') } : { what: 'record of somebody else', name: '' })
  }
  return found
}

/**
 * What has to be written where a rider turned, read or said something on what is somebody else's: that it was done stays,
 * who did it goes.
 */
export async function authored(
  client: Client,
  name: string,
  known: readonly Place[],
): Promise<InStatement[]> {
  const { rows } = await client.execute({
    sql: `SELECT count(*) FROM riders WHERE json_extract(body, '$.name') = ?`,
    args: [name],
  })
  // Of two riders with one name nobody can say which it was.
  if (Number(rows[0][0]) > 1) return []
  return (await beside(client, name, known)).flatMap(({ table, key, row, body }) => {
    const left = withoutAuthor(body, name) as Body
    return JSON.stringify(left) === JSON.stringify(body)
      ? []
      : [saved(table, key, String(row[key]), left, row.version)]
  })
}

/** Records of no known place in which the letters of a name stand somewhere. */
async function beside(client: Client, name: string, known: readonly Place[]) {
  const out: { table: string; key: string; row: Row; body: Body }[] = []
  const letters = [name, ...partsOf(name)].map((p) => `%${p.replace(/[\\%_]/g, (c) => `\\${c}`)}%`)
  const like = letters.map(() => `body LIKE ? ESCAPE '\\'`).join(' OR ')
  for (const { table, key } of documentTables) {
    if (table === 'riders') continue
    const theirs = known.filter(([t]) => t === table).map(([, , where]) => `AND NOT coalesce((${where}), 0)`)
    const { rows } = await client.execute({
      sql: `SELECT * FROM ${table} WHERE (${like}) ${theirs.join(' ')}`,
      args: letters,
    })
    for (const row of rows) out.push({ table, key, row, body: JSON.parse(String(row.body)) as Body })
  }
  return out
}

/** A record without the name where it says who did something. */
function withoutAuthor(value: unknown, name: string): unknown {
  if (Array.isArray(value)) return value.map((v) => withoutAuthor(v, name))
  if (typeof value !== 'object' || value === null) return value
  return Object.fromEntries(
    Object.entries(value).map(([k, v]) => [k, k === 'by' && v === name ? 'a rider' : withoutAuthor(v, name)]),
  )
}
