import type { Client, InStatement } from '@libsql/client'
import type { Body } from '../bundle/privacy.ts'

/** Records in which a rider's name may stand: a table, its key, and which of them. */
export type Place = readonly [table: string, key: string, where: string]

/**
 * What has to be written where a name is put in the place of another in every text of the records at some places.
 * @param bare what else goes of a record before; null: nothing of it is left
 */
export async function renamedAt(
  client: Client,
  places: readonly Place[],
  rename: (value: unknown) => unknown,
  bare: (table: string, body: Body) => Body | null = (_, body) => body,
): Promise<InStatement[]> {
  const changes: InStatement[] = []
  for (const [table, key, where] of places) {
    const { rows } = await client.execute(`SELECT * FROM ${table} WHERE ${where}`)
    for (const row of rows) {
      const before = JSON.parse(String(row.body)) as Body
      const id = String(row[key])
      const left = bare(table, JSON.parse(String(row.body)) as Body)
      if (!left) {
        changes.push({ sql: `DELETE FROM ${table} WHERE ${key} = ?`, args: [id] })
        continue
      }
      const body = rename(left) as Body
      if (JSON.stringify(body) !== JSON.stringify(before))
        changes.push(saved(table, key, id, body, row.version))
    }
  }
  return changes
}

/** A record written over, one version further where it has versions. */
export function saved(table: string, key: string, id: string, body: Body, version: unknown): InStatement {
  if (typeof version !== 'number')
    return { sql: `UPDATE ${table} SET body = ? WHERE ${key} = ?`, args: [JSON.stringify(body), id] }
  const next = version + 1
  return {
    sql: `UPDATE ${table} SET body = ?, version = ? WHERE ${key} = ?`,
    args: [JSON.stringify({ ...body, version: next }), next, id],
  }
}

/** Parts of a name that are long enough to be one. */
export const partsOf = (name: string) => name.split(/\s+/).filter((p) => p.length >= 3)

/**
 * Puts another name in the place of a rider's, in every text of a record: the whole name however it is written, and each
 * part of it of three letters or more as it stands.
 */
export function renaming(name: string, called: string): (value: unknown) => unknown {
  const escaped = (text: string) => text.replace(/[.*+?^${}()|[\]\\]/g, '\\$&')
  const alone = (text: string, flags: string) =>
    new RegExp(`(?<![\\p{L}\\p{N}])${escaped(text)}(?![\\p{L}\\p{N}])`, flags)
  const patterns = [alone(name, 'giu'), ...partsOf(name).map((p) => alone(p, 'gu'))]
  // A longer name must still fit where the shorter one stood.
  const short = 'a rider'
  const walk = (value: unknown, key: string): unknown => {
    if (typeof value === 'string')
      return patterns
        .reduce((text, p) => text.replace(p, key === 'name' ? called : short), value)
        .slice(0, Math.max(80, value.length))
    if (Array.isArray(value)) return value.map((v) => walk(v, key))
    if (typeof value !== 'object' || value === null) return value
    return Object.fromEntries(Object.entries(value).map(([k, v]) => [k, walk(v, k)]))
  }
  return (value) => walk(value, '')
}
