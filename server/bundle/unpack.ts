import { rm, statfs } from 'node:fs/promises'
import { dirname } from 'node:path'
import type { Client, InValue } from '@libsql/client'
import { drizzle } from 'drizzle-orm/libsql'
import { migrate } from 'drizzle-orm/libsql/migrator'
import { z } from 'zod'
import { BundleHead } from '#contract/bundle'
import { connect } from '../db/connect.ts'
import { packPiece, pieceBytes } from '../ingest/pieces.ts'
import { Refusal } from '../refusal.ts'
import { isWhole } from '../whole.ts'
import { kinds } from './kinds.ts'
import { asRecords, asVoice, layout } from './layout.ts'
import type { OnProgress } from './pack.ts'
import type { Body } from './privacy.ts'
import { shapeNames, statementsFor } from './shapes.ts'
import { checkStaged } from './sound.ts'
import { unsound, ZipIn } from './zipIn.ts'

export interface UnpackJob {
  bundle: string
  /** Where a data file of what is in it is made. */
  to: string
  migrations: string
}

/** Room that is left on the disk whatever comes. */
const spareBytes = 50e6
const rowsAtOnce = 200

/**
 * Unpacks a bundle into a data file of its own, in the tables of the version that wrote it; today's migrations then lift
 * it like any other. What comes out is sound: every record as the contract has it, nothing that refers to nothing.
 * @throws Refusal 'bundle.unsound', 'bundle.newer', 'storage.full'; nothing is left behind then
 */
export async function unpackBundle(
  { bundle, to, migrations }: UnpackJob,
  onProgress: OnProgress,
): Promise<BundleHead> {
  await forgetStaged(to)
  const zip = await ZipIn.open(bundle)
  try {
    const head = headOf(await zip.text(layout.head, 100_000), migrations)
    const { bavail, bsize } = await statfs(dirname(to))
    if (bavail * bsize < zip.unpackedBytes + spareBytes)
      throw new Refusal(
        'storage.full',
        `Unpacked it takes ${Math.ceil(zip.unpackedBytes / 1e6)} MB, and there is less room on the disk.`,
      )
    const client = connect(to)
    try {
      // Thrown away when anything goes wrong: it need not survive a power cut.
      await client.execute('PRAGMA synchronous = OFF')
      await client.execute('PRAGMA foreign_keys = OFF')
      await client.batch(statementsFor(migrations, head.shape), 'write')
      await stageRecords(client, zip, head)
      await stageRecordings(client, zip, onProgress)
      onProgress(0.95, 'Looking whether it is sound')
      await migrate(drizzle(client), { migrationsFolder: migrations })
      await checkStaged(client, head)
    } finally {
      client.close()
    }
    return head
  } catch (e) {
    await forgetStaged(to)
    // Nested beyond all measure.
    throw e instanceof RangeError ? unsound('A record in it cannot be read.') : e
  } finally {
    await zip.close()
  }
}

export async function forgetStaged(path: string): Promise<void> {
  for (const end of ['', '-journal', '-wal', '-shm']) await rm(`${path}${end}`, { force: true })
}

/** @throws Refusal 'bundle.newer' before anything else is asked of it */
function headOf(text: string, migrations: string): BundleHead {
  let head: unknown
  try {
    head = JSON.parse(text)
  } catch {
    throw unsound('Its bundle.json cannot be read.')
  }
  const said = head as { format?: unknown; version?: unknown; shape?: unknown; by?: unknown }
  if (said?.format !== 'wild-spring-bundle') throw unsound('This is a zip, and no bundle of Wild Spring.')
  const isNewer =
    (typeof said.version === 'number' && said.version > 1) ||
    (typeof said.shape === 'string' && !shapeNames(migrations).includes(said.shape))
  if (isNewer)
    throw new Refusal(
      'bundle.newer',
      `A newer version of Wild Spring made this bundle (${String(said.by).slice(0, 40)}); bring this one up to date first.`,
    )
  const checked = BundleHead.safeParse(head)
  if (!checked.success || !isWhole(head)) throw unsound('Its bundle.json does not say what it has to.')
  return checked.data
}

/** @throws Refusal 'bundle.unsound' */
async function stageRecords(client: Client, zip: ZipIn, head: BundleHead): Promise<void> {
  const named = new Set(zip.names(asRecords).map((n) => asRecords.exec(n)![1]))
  for (const kind of kinds) {
    if (!named.delete(kind.table)) continue
    const columns = new Set(
      (await client.execute(`SELECT name FROM pragma_table_info('${kind.table}')`)).rows.map((r) =>
        String(r.name),
      ),
    )
    columns.delete('seq')
    // Bytes come as files of their own.
    columns.delete('bytes')
    if (columns.size === 0) throw unsound(`The version that made it had no ${kind.table}.`)
    let rows: { sql: string; args: InValue[] }[] = []
    const flush = async () => {
      await client.batch(rows, 'write').catch((e: unknown) => {
        if (!String((e as { code?: string }).code).startsWith('SQLITE_CONSTRAINT')) throw e
        throw unsound(`A record of ${kind.table} is in it twice, or says too little.`)
      })
      rows = []
    }
    let count = 0
    for await (const line of zip.lines(layout.records(kind.table))) {
      count++
      const given = Object.entries(parsed(line, kind.table)).map(([name, value]): [string, InValue] => {
        if (!columns.has(name))
          throw unsound(`A record of ${kind.table} has a field "${name.slice(0, 40)}" that is none.`)
        return [name, valueOf(name, value, kind.table)]
      })
      if (kind.table === 'voices')
        given.push(['bytes', await voiceOf(zip, String(given.find(([n]) => n === 'id')?.[1]))])
      rows.push({
        sql: `INSERT INTO ${kind.table} (${given.map(([n]) => n).join()}) VALUES (${given.map(() => '?').join()})`,
        args: given.map(([, v]) => v),
      })
      if (rows.length >= rowsAtOnce) await flush()
    }
    if (rows.length > 0) await flush()
    if (count !== (head.counts[kind.table] ?? 0))
      throw unsound(`It says another number of ${kind.table} than are in it.`)
  }
  const [stranger] = named
  if (stranger !== undefined) throw unsound(`There is no kind of record called "${stranger}".`)
}

function parsed(line: string, table: string): Record<string, unknown> {
  let record: unknown
  try {
    record = JSON.parse(line)
  } catch {
    record = null
  }
  if (typeof record !== 'object' || record === null || Array.isArray(record))
    throw unsound(`A record of ${table} is no JSON object.`)
  // Half a letter would be no text in the data file.
  if (!isWhole(record)) throw unsound(`A record of ${table} holds half a letter.`)
  return record as Record<string, unknown>
}

function valueOf(name: string, value: unknown, table: string): InValue {
  if (name === 'body' && typeof value === 'object' && value !== null) return JSON.stringify(value)
  if (name !== 'body' && (value === null || typeof value === 'string' || typeof value === 'number'))
    return value
  throw unsound(`A record of ${table} has no ${name} that can be read.`)
}

async function voiceOf(zip: ZipIn, id: string): Promise<Buffer> {
  const name = layout.voice(id)
  if (!asVoice.test(name)) throw unsound('A spoken note in it has no name.')
  const pieces: Uint8Array[] = []
  for await (const piece of zip.bytes(name)) pieces.push(piece)
  return Buffer.concat(pieces)
}

/** Sensor files and channels, into compressed pieces as they are kept. */
async function stageRecordings(client: Client, zip: ZipIn, onProgress: OnProgress): Promise<void> {
  const { rows } = await client.execute('SELECT id, body FROM recordings')
  // Earlier versions kept a file with each recording it was put on; their migrations come after this.
  const once =
    (await client.execute("SELECT 1 FROM sqlite_master WHERE name = 'original_chunks'")).rows.length > 0
  const channels = new Map<string, string[]>()
  for (const name of zip.names(/^channels\//)) {
    const [, id] = name.split('/')
    channels.set(id, [...(channels.get(id) ?? []), name])
  }
  for (const [i, row] of rows.entries()) {
    const id = String(row.id)
    const body = JSON.parse(String(row.body)) as Body
    const files = filesOf(body)
    for (const [part, sha] of files) {
      if (!once) await stagePieces(client, zip, layout.file(sha), intoChunks, [id, part])
      else if (await isFirst(client, id, part, sha))
        await stagePieces(client, zip, layout.file(sha), intoOriginals, [sha])
    }
    for (const name of channels.get(id) ?? []) {
      const part = decodeURIComponent(name.split('/')[2].slice(0, -'.f32'.length))
      await stagePieces(client, zip, name, intoChunks, [id, part])
    }
    channels.delete(id)
    onProgress((0.9 * (i + 1)) / rows.length, 'Unpacking')
  }
  if (channels.size > 0) throw unsound('There are channels in it of a recording that is not.')
}

/**
 * Parts of a recording that are files, each with its hash; what else it has to say is looked at later.
 * @throws Refusal 'bundle.unsound'
 */
function filesOf({ sha256, addedFiles }: Body): (readonly [part: string, sha256: string])[] {
  const said = FilesOf.safeParse({ sha256, addedFiles })
  if (!said.success) throw unsound('A recording in it does not say which files it came from.')
  const first = said.data.sha256
  return [
    ...(first === undefined ? [] : [['original', first] as const]),
    ...said.data.addedFiles.map((f) => [`original:${f.id}`, f.sha256] as const),
  ]
}
const FilesOf = z.object({
  sha256: z.string().optional(),
  addedFiles: z.array(z.object({ id: z.string(), sha256: z.string() })).default([]),
})

const intoChunks = 'INSERT INTO recording_chunks (recording_id, part, seq, bytes) VALUES (?, ?, ?, ?)'
const intoOriginals = 'INSERT INTO original_chunks (sha256, seq, bytes) VALUES (?, ?, ?)'

/** Notes what file a part is. @returns whether its bytes are not there yet */
async function isFirst(client: Client, id: string, part: string, sha256: string): Promise<boolean> {
  const { rows } = await client.execute({
    sql: 'SELECT 1 FROM recording_originals WHERE sha256 = ? LIMIT 1',
    args: [sha256],
  })
  await client.execute({
    sql: 'INSERT INTO recording_originals (recording_id, part, sha256) VALUES (?, ?, ?)',
    args: [id, part, sha256],
  })
  return rows.length === 0
}

/** @param key what the rows of pieces go by, before their number */
async function stagePieces(
  client: Client,
  zip: ZipIn,
  name: string,
  sql: string,
  key: readonly string[],
): Promise<void> {
  let seq = 0
  let rest = Buffer.alloc(0)
  const keep = async (piece: Buffer) => {
    await client.execute({ sql, args: [...key, seq++, Buffer.from(packPiece(piece))] })
  }
  for await (const piece of zip.bytes(name)) {
    rest = Buffer.concat([rest, piece])
    for (; rest.length >= pieceBytes; rest = rest.subarray(pieceBytes))
      await keep(rest.subarray(0, pieceBytes))
  }
  if (rest.length > 0 || seq === 0) await keep(rest)
}
