import { connect } from '../db/connect.ts'

/** Every record as it lies in the file, by table and key. */
export async function dump(file: string) {
  const client = connect(file)
  try {
    const tables = await client.execute(
      "SELECT name FROM sqlite_master WHERE type = 'table' AND name NOT LIKE 'sqlite_%' AND name NOT LIKE '\\_\\_%' ESCAPE '\\'",
    )
    const out: Record<string, string[]> = {}
    for (const { name } of tables.rows) {
      const rows = await client.execute(`SELECT * FROM ${String(name)}`)
      out[String(name)] = rows.rows
        .map((r) =>
          JSON.stringify(r, (_, v: unknown) =>
            v instanceof ArrayBuffer ? Buffer.from(v).toString('base64') : v,
          ),
        )
        .sort()
    }
    return out
  } finally {
    client.close()
  }
}
