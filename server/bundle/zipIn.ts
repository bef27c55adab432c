import { createHash } from 'node:crypto'
import { open, type FileHandle } from 'node:fs/promises'
import { Reader, ZipReader, type FileEntry } from '@zip.js/zip.js'
import { limits } from '#contract/limits'
import { Refusal } from '../refusal.ts'
import { asChannel, asFile, asRecords, asSchema, asVoice, layout } from './layout.ts'

export const unsound = (why: string) => new Refusal('bundle.unsound', why)

/** Reads where it is asked to: a bundle of gigabytes never stands in memory. */
class FromDisk extends Reader<FileHandle> {
  constructor(private readonly file: FileHandle) {
    super(file)
  }
  override async init() {
    await super.init?.()
    this.size = (await this.file.stat()).size
  }
  override async readUint8Array(index: number, length: number) {
    const bytes = new Uint8Array(Math.max(0, Math.min(length, this.size - index)))
    const { bytesRead } = await this.file.read(bytes, 0, bytes.length, index)
    return bytes.subarray(0, bytesRead)
  }
}

const known = [asRecords, asSchema, asFile, asChannel, asVoice]
const isKnown = (name: string) =>
  name === layout.head || name === layout.checksums || known.some((k) => k.test(name))

/** A bundle that is being read. Every byte that comes out of it is held to its checksum. */
export class ZipIn {
  private sums = new Map<string, string>()

  private constructor(
    private readonly file: FileHandle,
    private readonly entries: ReadonlyMap<string, FileEntry>,
    readonly unpackedBytes: number,
  ) {}

  /** @throws Refusal 'bundle.unsound' when it is no zip, cut short, or holds what no bundle does */
  static async open(path: string): Promise<ZipIn> {
    const file = await open(path, 'r')
    try {
      const listed = await new ZipReader(new FromDisk(file), { useWebWorkers: false })
        .getEntries()
        .catch(() => {
          throw unsound('This is no bundle of Wild Spring, or it was cut short on its way.')
        })
      if (listed.length > limits.bundleEntries) throw unsound('There are more files in it than a bundle has.')
      const entries = new Map<string, FileEntry>()
      let unpackedBytes = 0
      for (const e of listed) {
        if (e.directory || e.encrypted || !isKnown(e.filename))
          throw unsound(`"${e.filename.slice(0, 60)}" does not belong into a bundle.`)
        if (entries.has(e.filename)) throw unsound(`${e.filename} is in it twice.`)
        entries.set(e.filename, e)
        unpackedBytes += e.uncompressedSize
      }
      if (unpackedBytes > limits.bundleUnpackedBytes) throw unsound('It is larger than a bundle may be.')
      if (!entries.has(layout.head))
        throw unsound('This is a zip, and no bundle: there is no bundle.json in it.')
      const zip = new ZipIn(file, entries, unpackedBytes)
      await zip.readSums()
      return zip
    } catch (e) {
      await file.close()
      throw e
    }
  }

  close(): Promise<void> {
    return this.file.close()
  }

  names(pattern: RegExp): string[] {
    return [...this.entries.keys()].filter((n) => pattern.test(n))
  }

  has(name: string): boolean {
    return this.entries.has(name)
  }

  private async readSums(): Promise<void> {
    if (!this.entries.has(layout.checksums))
      throw unsound('Its checksums are missing: it was changed by hand.')
    for (const line of (await this.text(layout.checksums, 40_000_000)).split('\n')) {
      const found = /^([0-9a-f]{64}) {2}(.+)$/.exec(line)
      if (found) this.sums.set(found[2], found[1])
    }
    for (const name of this.sums.keys())
      if (!this.entries.has(name)) throw unsound(`${name} is missing in it.`)
    // A sensor file is known by its hash from then on: what bears that name has to have it.
    for (const name of this.names(asFile))
      if (layout.file(this.sums.get(name) ?? '') !== name)
        throw unsound(`${name.slice(0, 60)} is not the file that its name says.`)
  }

  /** @param most bytes */
  async text(name: string, most: number): Promise<string> {
    if ((this.entries.get(name)?.uncompressedSize ?? 0) > most) throw unsound(`${name} is too long.`)
    const pieces: Uint8Array[] = []
    for await (const piece of this.bytes(name)) pieces.push(piece)
    return decode(Buffer.concat(pieces), name)
  }

  /** Lines of a file of records. */
  async *lines(name: string): AsyncGenerator<string> {
    let rest = Buffer.alloc(0)
    for await (const piece of this.bytes(name)) {
      rest = Buffer.concat([rest, piece])
      for (let end = rest.indexOf(10); end >= 0; end = rest.indexOf(10)) {
        yield decode(rest.subarray(0, end), name)
        rest = rest.subarray(end + 1)
      }
      if (rest.length > limits.bundleLineBytes) throw unsound(`A record of ${name} is too long.`)
    }
    if (rest.length > 0) yield decode(rest, name)
  }

  /** @throws Refusal 'bundle.unsound' when the bytes are not those that were written */
  async *bytes(name: string): AsyncGenerator<Uint8Array> {
    const entry = this.entries.get(name)
    if (!entry) throw unsound(`${name} is missing in it.`)
    const hash = createHash('sha256')
    const changed = () => unsound(`${name} was changed or damaged on its way.`)
    let through!: TransformStreamDefaultController<Uint8Array>
    const { readable, writable } = new TransformStream<Uint8Array, Uint8Array>({
      start: (controller) => void (through = controller),
    })
    const filled = entry
      .getData(writable, { useWebWorkers: false, checkSignature: true })
      // Whoever waits for the next piece would wait for ever.
      .catch((e: unknown) => through.error(e))
    let length = 0
    const reader = readable.getReader()
    try {
      for (;;) {
        const { done, value } = await reader.read().catch(() => {
          throw changed()
        })
        if (done) break
        length += value.length
        if (length > entry.uncompressedSize) throw changed()
        hash.update(value)
        yield value
      }
    } finally {
      // Whoever has enough does not wait for the rest.
      await reader.cancel().catch(() => undefined)
      await filled
    }
    if (name !== layout.checksums && this.sums.get(name) !== hash.digest('hex')) throw changed()
  }
}

const strict = new TextDecoder('utf-8', { fatal: true })
function decode(bytes: Uint8Array, name: string): string {
  try {
    return strict.decode(bytes)
  } catch {
    throw unsound(`${name} is no text.`)
  }
}
