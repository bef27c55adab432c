import { createWriteStream, mkdirSync, readdirSync, rmSync } from 'node:fs'
import { createHash } from 'node:crypto'
import { lstat, readdir, rename, rm } from 'node:fs/promises'
import { join } from 'node:path'
import { Readable, Transform } from 'node:stream'
import { pipeline } from 'node:stream/promises'
import type { ReadableStream as NodeStream } from 'node:stream/web'
import { limits } from '#contract/limits'
import { Refusal } from '../refusal.ts'

/** Empties what a killed process left behind; nothing in there was ever confirmed. */
export function clearIncoming(dir: string): void {
  mkdirSync(dir, { recursive: true })
  for (const name of readdirSync(dir)) rmSync(join(dir, name), { force: true })
}

/** Removes uploads that nobody named for too long: a page that was left must not fill the disk. */
export async function forgetUnnamed(dir: string, nowMs: number): Promise<void> {
  const oldest = nowMs - limits.uploadKeptHours * 3_600_000
  for (const name of await readdir(dir)) {
    const path = join(dir, name)
    // Another request may have taken it meanwhile. The age of the entry itself counts, not of what a link points to.
    const kept = await lstat(path).catch(() => null)
    if (kept && kept.mtimeMs < oldest) await rm(path, { force: true })
  }
}

/** Where the bytes of an upload wait until they are read. The id is a UUID, checked by the contract. */
export const uploadedFile = (dir: string, uploadId: string) => join(dir, `upload-${uploadId}`)

/** How large something may be, what it is called, and what else can be done. */
export interface Most {
  bytes: number
  what: string
  way: string
}
export const sensorFile: Most = {
  bytes: limits.uploadBytes,
  what: 'A sensor file',
  way: 'split the recording',
}
export const tooLarge = ({ bytes, what, way }: Most): Refusal =>
  new Refusal('request.too-large', `${what} may be at most ${Math.round(bytes / 1024 / 1024)} MB; ${way}.`)

/** Half files that are being written. */
const underWay = new Set<string>()
/** Sent again while the first connection still hangs: each comes in by itself. */
function freeName(dir: string, name: string): string {
  let path = join(dir, `${name}.part`)
  for (let n = 2; underWay.has(path); n++) path = join(dir, `${name}.${n}.part`)
  return path
}

/**
 * Streams an upload to a file, never holding it in memory.
 * @throws Refusal 'request.too-large', 'upload.cancelled'; the half file is removed
 */
export async function spool(
  body: ReadableStream<Uint8Array>,
  dir: string,
  name: string,
  signal: AbortSignal,
  most: Most = sensorFile,
): Promise<{ byteLength: number; sha256: string }> {
  const arriving = freeName(dir, name)
  underWay.add(arriving)
  const hash = createHash('sha256')
  let seen = 0
  const limit = new Transform({
    transform(chunk: Buffer, _encoding, done) {
      seen += chunk.length
      hash.update(chunk)
      done(seen > most.bytes ? tooLarge(most) : null, chunk)
    },
  })
  try {
    await pipeline(Readable.fromWeb(body as unknown as NodeStream), limit, createWriteStream(arriving), {
      signal,
    })
    // Whole, or not there at all: a half file never bears the name that a reader looks for.
    await rename(arriving, uploadedFile(dir, name))
    return { byteLength: seen, sha256: hash.digest('hex') }
  } catch (e) {
    await rm(arriving, { force: true })
    if (e instanceof Refusal) throw e
    if (signal.aborted || (e instanceof Error && 'code' in e && e.code === 'ECONNRESET'))
      throw new Refusal('upload.cancelled', 'The upload was cancelled; nothing was kept.')
    throw e
  } finally {
    underWay.delete(arriving)
  }
}
