import { existsSync, readFileSync, writeFileSync } from 'node:fs'
import { hostname } from 'node:os'
import { join } from 'node:path'
import type { Client } from '@libsql/client'
import { v7 as uuid } from 'uuid'

/** So long it holds without being renewed, s. */
const leaseS = 30
const renewEveryMs = 8000
/** What others may take for themselves is not written on any more, so much before: their clock decides, not ours. */
const marginMs = 8000

const table = `CREATE TABLE IF NOT EXISTS libsql_lease (
  one INTEGER PRIMARY KEY CHECK (one = 1), holder TEXT NOT NULL, folder TEXT NOT NULL, place TEXT NOT NULL, until INTEGER NOT NULL)`

/**
 * What tells a data folder from every other, wherever they lie. One process has a folder at a time, so that after a kill the
 * next one on it need not wait.
 */
function folderId(dataDir: string): string {
  const file = join(dataDir, 'libsql-folder')
  if (!existsSync(file)) writeFileSync(file, uuid(), { mode: 0o600 })
  return readFileSync(file, 'utf8')
}

/**
 * The right to write to a libSQL server, held by one Wild Spring at a time: versions are looked at before a record is
 * written, which is one step only where nobody else writes. By the clock of the libSQL server.
 */
export class Lease {
  private timer: ReturnType<typeof setInterval> | undefined
  private renewedAt = performance.now()

  private constructor(
    private readonly primary: Client,
    private readonly holder: string,
  ) {}

  /** @throws Error where another holds it, with where it runs */
  static async take(primary: Client, dataDir: string): Promise<Lease> {
    await primary.execute(table)
    const lease = new Lease(primary, uuid())
    const place = `${hostname()}, ${dataDir}`
    const folder = folderId(dataDir)
    const taken = await primary.execute({
      sql: `INSERT INTO libsql_lease VALUES (1, ?, ?, ?, unixepoch() + ${leaseS}) ON CONFLICT (one) DO UPDATE
        SET holder = excluded.holder, folder = excluded.folder, place = excluded.place, until = excluded.until
        WHERE until < unixepoch() OR folder = excluded.folder`,
      args: [lease.holder, folder, place],
    })
    if (taken.rowsAffected === 0) {
      const [other] = (await primary.execute('SELECT place FROM libsql_lease')).rows
      throw new Error(
        `Another Wild Spring keeps its data at this libSQL server (${String(other.place)}). Two at once would write over each other: use the one that runs, or end it and wait ${leaseS} s.`,
      )
    }
    lease.timer = setInterval(() => void lease.renew(), renewEveryMs)
    lease.timer.unref()
    return lease
  }

  /** Whether this process may write just now. */
  get holds(): boolean {
    return performance.now() - this.renewedAt < leaseS * 1000 - marginMs
  }

  /** Tries to go on holding it; also after the server was away, as long as nobody else took it. */
  async renew(): Promise<void> {
    const asked = performance.now()
    const done = await this.primary
      .execute({
        sql: `UPDATE libsql_lease SET until = unixepoch() + ${leaseS} WHERE holder = ?`,
        args: [this.holder],
      })
      .catch(() => null)
    if (done && done.rowsAffected > 0) this.renewedAt = asked
  }

  /** Lets the next one in at once. */
  async giveBack(): Promise<void> {
    clearInterval(this.timer)
    await this.primary
      .execute({ sql: 'DELETE FROM libsql_lease WHERE holder = ?', args: [this.holder] })
      .catch(() => undefined)
  }
}
