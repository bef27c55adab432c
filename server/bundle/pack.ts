import { createHash } from 'node:crypto'
import { createWriteStream } from 'node:fs'
import { rename, rm, stat } from 'node:fs/promises'
import { Readable, Writable } from 'node:stream'
import { gunzipSync } from 'node:zlib'
import { ZipWriter } from '@zip.js/zip.js'
import type { Row } from '@libsql/client'
import { z } from 'zod'
import type { BundleHead, BundleOrder, BundleWith } from '#contract/bundle'
import { Recording } from '#contract/recording'
import { connect } from '../db/connect.ts'
import { documentTables } from '../safekeeping/documents.ts'
import { kinds, type Kind } from './kinds.ts'
import { layout } from './layout.ts'
import { asGuest, saysWithoutVoice, withoutSecrets, type Body } from './privacy.ts'
import { reachOf, type Asker, type Reach } from './reach.ts'
import { shapeNames } from './shapes.ts'

export interface PackJob {
  /** The data file, in use or not. */
  file: string
  to: string
  order: BundleOrder
  migrations: string
  by: string
  /** UTC now, ISO 8601. */
  at: string
}
export type OnProgress = (share: number, doing: string) => void

/** Rows asked for at once. */
const rowsAtOnce = 100

/**
 * Writes a bundle: one moment of the data file, whatever is saved meanwhile. It bears its name once it is whole.
 * @returns what it is, and its size in bytes
 * @throws Error when it cannot be written; nothing is left behind
 */
export async function packBundle(
  job: PackJob,
  onProgress: OnProgress,
): Promise<{ head: BundleHead; bytes: number }> {
  const part = `${job.to}.part`
  const client = connect(job.file)
  try {
    // Nothing is written, whatever comes.
    await client.execute('PRAGMA query_only = ON')
    const moment = await client.transaction('deferred')
    try {
      const zip = new Pack(part, job.at)
      const head = await packMoment(moment, job, zip, onProgress)
      await zip.close()
      await rename(part, job.to)
      return { head, bytes: (await stat(job.to)).size }
    } finally {
      moment.close()
    }
  } finally {
    client.close()
    await rm(part, { force: true })
  }
}

async function packMoment(ask: Asker, job: PackJob, zip: Pack, onProgress: OnProgress): Promise<BundleHead> {
  const { order } = job
  const reach = await reachOf(ask, order.scope)
  if (!order.with.voices) await withoutVoices(ask, reach)
  const there = kinds.filter((k) => reach.keys.get(k.table)?.size)
  const shapes = shapeNames(job.migrations)
  const head: BundleHead = {
    format: 'wild-spring-bundle',
    version: 1,
    shape: shapes[(await migrationsRun(ask)) - 1],
    by: job.by,
    madeAt: job.at,
    scope: { kind: order.scope.kind, name: reach.name },
    with: order.with,
    counts: Object.fromEntries(there.map((k) => [k.table, reach.keys.get(k.table)!.size])),
  }
  await zip.text(layout.head, [JSON.stringify(head, null, 2)])
  const countOf = (table: string) => reach.keys.get(table)?.size ?? 0
  const total = there.reduce((n, k) => n + countOf(k.table), 0) + countOf('recordings') + countOf('voices')
  let done = 0
  const step = () => onProgress(++done / Math.max(1, total), 'Writing the bundle')
  for (const kind of there) {
    await zip.bytes(layout.records(kind.table), linesOf(ask, kind, reach, order.with, step))
    await zip.text(layout.schema(kind.table), [JSON.stringify(schemaOf(kind.table), null, 2)])
  }
  const written = new Set<string>()
  for (const id of reach.keys.get('recordings') ?? []) {
    await packRecording(ask, zip, id, written)
    step()
  }
  for (const id of reach.keys.get('voices') ?? []) {
    const [row] = (await ask.execute({ sql: 'SELECT bytes FROM voices WHERE id = ?', args: [id] })).rows
    await zip.bytes(layout.voice(id), [new Uint8Array(row.bytes as ArrayBuffer)])
    step()
  }
  return head
}

const migrationsRun = async (ask: Asker): Promise<number> =>
  Number((await ask.execute('SELECT count(*) FROM __drizzle_migrations')).rows[0][0])

/** Rows of a kind, in the order they were saved. */
async function* rowsOf(ask: Asker, { table, key }: Kind, reach: Reach): AsyncGenerator<Row> {
  const columns = table === 'voices' ? 'id, day_id, came_at' : '*'
  // Lists without an order of their own are shown in this one.
  const order = await ask.execute(`SELECT ${key} FROM ${table} ORDER BY rowid`)
  const along = reach.keys.get(table)!
  const keys = order.rows.map((r) => String(r[0])).filter((k) => along.has(k))
  for (let i = 0; i < keys.length; i += rowsAtOnce) {
    const page = keys.slice(i, i + rowsAtOnce)
    const { rows } = await ask.execute({
      sql: `SELECT ${columns} FROM ${table} WHERE ${key} IN (${page.map(() => '?').join()})`,
      args: page,
    })
    const byKey = new Map(rows.map((r) => [String(r[key]), r]))
    for (const k of page) yield byKey.get(k)!
  }
}

type Line = Record<string, unknown>

async function* linesOf(
  ask: Asker,
  kind: Kind,
  reach: Reach,
  w: BundleWith,
  step: () => void,
): AsyncGenerator<Uint8Array> {
  const encoder = new TextEncoder()
  for await (const row of rowsOf(ask, kind, reach)) {
    yield encoder.encode(`${JSON.stringify(lineOf(kind, row, reach, w))}\n`)
    step()
  }
}

/** Spoken notes stay here, and reports that are nothing else. */
async function withoutVoices(ask: Asker, { keys }: Reach): Promise<void> {
  keys.delete('voices')
  const reports = keys.get('pad_reports')
  for (const id of [...(reports ?? [])]) {
    const [row] = (await ask.execute({ sql: 'SELECT body FROM pad_reports WHERE id = ?', args: [id] })).rows
    if (!saysWithoutVoice(JSON.parse(String(row.body)) as Body)) reports!.delete(id)
  }
}

/** A row as it stands in the bundle. */
function lineOf({ table }: Kind, row: Row, reach: Reach, w: BundleWith): Line {
  const { seq: _order, ...line } = { ...row } as Line
  if (typeof line.body !== 'string') return line
  let body = withoutSecrets(table, JSON.parse(line.body) as Body, w)
  if (table === 'riders' && reach.guests.has(String(line.id))) body = asGuest(body)
  return { ...line, body: loosened(table, body, reach) }
}

/** Nothing points to an owner or a unit that is not in the bundle. */
function loosened(table: string, body: Body, reach: Reach): Body {
  const lacks = (kind: string, id: unknown) => typeof id === 'string' && !reach.keys.get(kind)?.has(id)
  if (table === 'units' && lacks('riders', body.ownerId)) return { ...body, ownerId: null }
  if (table === 'stock' && lacks('units', body.unitId)) return { ...body, unitId: null }
  return body
}

const schemas = new Map(documentTables.map((d) => [d.table, d.table === 'recordings' ? Recording : d.schema]))
/** What the `body` of a line has to be, as JSON Schema. */
function schemaOf(table: string): unknown {
  const schema = schemas.get(table)
  return schema ? z.toJSONSchema(schema, { unrepresentable: 'any', io: 'input' }) : {}
}

/** The files and channels of a recording, whose bytes lie in compressed pieces. */
async function packRecording(ask: Asker, zip: Pack, id: string, written: Set<string>): Promise<void> {
  const [row] = (await ask.execute({ sql: 'SELECT body FROM recordings WHERE id = ?', args: [id] })).rows
  const recording = JSON.parse(String(row.body)) as Body
  const added = (recording.addedFiles ?? []) as { id: string; sha256: string }[]
  const shas = new Map([
    ['original', String(recording.sha256)],
    ...added.map((f) => [`original:${f.id}`, f.sha256] as const),
  ])
  const table = await partsTable(ask)
  const parts = await ask.execute({
    sql: `SELECT DISTINCT part FROM ${table} WHERE recording_id = ? ORDER BY part`,
    args: [id],
  })
  for (const part of parts.rows.map((r) => String(r.part))) {
    const sha = shas.get(part)
    const name = sha === undefined ? layout.channel(id, part) : layout.file(sha)
    // The same file on two runs is in there once.
    if (written.has(name)) continue
    written.add(name)
    await zip.bytes(name, piecesOf(ask, table, id, part))
  }
}

/** Where channels and files lie; a data file of an earlier version has them in one table. */
async function partsTable(ask: Asker): Promise<string> {
  const { rows } = await ask.execute("SELECT 1 FROM sqlite_master WHERE name = 'recording_parts'")
  return rows.length > 0 ? 'recording_parts' : 'recording_chunks'
}

async function* piecesOf(ask: Asker, table: string, id: string, part: string): AsyncGenerator<Uint8Array> {
  for (let seq = 0; ; seq++) {
    const { rows } = await ask.execute({
      sql: `SELECT bytes FROM ${table} WHERE recording_id = ? AND part = ? AND seq = ?`,
      args: [id, part, seq],
    })
    if (rows.length === 0) return
    yield gunzipSync(new Uint8Array(rows[0].bytes as ArrayBuffer))
  }
}

/** A zip that is written piece by piece, and knows what it holds by hash. */
class Pack {
  private readonly zip: ZipWriter<unknown>
  private readonly sums: string[] = []

  constructor(path: string, at: string) {
    const out = Writable.toWeb(createWriteStream(path, { mode: 0o600 })) as WritableStream
    this.zip = new ZipWriter(out, { useWebWorkers: false, level: 5, lastModDate: new Date(at) })
  }

  /** Lines of text, each with its end. */
  text(name: string, lines: readonly string[]): Promise<void> {
    const encoder = new TextEncoder()
    return this.bytes(
      name,
      lines.map((l) => encoder.encode(`${l}\n`)),
    )
  }

  async bytes(name: string, pieces: Iterable<Uint8Array> | AsyncIterable<Uint8Array>): Promise<void> {
    const hash = createHash('sha256')
    const readable = Readable.toWeb(Readable.from(hashed(pieces, hash))) as ReadableStream
    await this.zip.add(name, { readable })
    this.sums.push(`${hash.digest('hex')}  ${name}`)
  }

  async close(): Promise<void> {
    await this.text(layout.checksums, this.sums)
    await this.zip.close()
  }
}

async function* hashed(
  pieces: Iterable<Uint8Array> | AsyncIterable<Uint8Array>,
  hash: ReturnType<typeof createHash>,
): AsyncGenerator<Uint8Array> {
  for await (const piece of pieces) {
    hash.update(piece)
    yield piece
  }
}
