import type { Client } from '@libsql/client'
import type { DataCounts } from '#contract/data'

const countedTables = ['riders', 'bikes', 'days', 'runs', 'recordings'] as const

/** How many of each kind a data file holds, without what was put away. Works on older shapes, too. */
export async function countsOf(client: Client): Promise<DataCounts> {
  const counts = { riders: 0, bikes: 0, days: 0, runs: 0, recordings: 0 }
  for (const table of countedTables) {
    const [row] = (await client.execute(`SELECT count(*) AS n FROM ${table} WHERE deleted_at IS NULL`)).rows
    counts[table] = Number(row.n)
  }
  return counts
}
