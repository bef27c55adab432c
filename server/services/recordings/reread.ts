import { writeFile } from 'node:fs/promises'
import { join } from 'node:path'
import { and, eq, inArray } from 'drizzle-orm'
import { limits } from '#contract/limits'
import type { AddedFile, AddedFileUpload, Recording, SectionSpans } from '#contract/recording'
import { sideChannelNames } from '#core/telemetry/sideChannels'
import type { Deps } from '../../deps.ts'
import type { Store } from '../../db/open.ts'
import { recordingChunks, recordingOriginals, recordings } from '../../db/schema.ts'
import type { IngestFile } from '../../ingest/job.ts'
import { Refusal } from '../../refusal.ts'
import { runContext } from './context.ts'
import { mustHave } from './import.ts'
import { chunkInserts, mustFind, originalInserts, originalPart, readPart } from './kept.ts'
import { readFiles, undoneOnAbort, type PerRecord } from './reading.ts'

/** What is to be different when a recording is read again. */
interface Rereading {
  placed?: SectionSpans
  dropFileId?: string
  added?: AddedFileUpload & { id: string; path: string }
}

/** Adds a further file to a recording. @throws Refusal 'request.invalid', 'upload.missing', 'record.not-found' */
export function addFile(
  deps: Deps,
  perRecord: PerRecord,
  id: string,
  fileId: string,
  meta: AddedFileUpload,
  signal: AbortSignal,
): Promise<Recording> {
  return perRecord.run(id, async () => {
    const held = await mustFind(deps.store, id)
    if (held.addedFiles.some((f) => f.id === fileId)) return held
    const path = await mustHave(deps.incomingDir, meta.uploadId)
    return undoneOnAbort(signal, [path], async () => {
      if (held.addedFiles.length >= limits.addedFiles)
        throw new Refusal('request.invalid', `A recording takes at most ${limits.addedFiles} further files.`)
      if (meta.kind === 'delimited' && !meta.mapping)
        throw new Refusal('request.invalid', 'mapping: say what the columns of the file are.', {
          path: 'mapping',
        })
      return readAgain(deps, held, { added: { ...meta, id: fileId, path } }, signal)
    })
  })
}

/** Takes a further file off a recording again. @throws Refusal 'record.not-found' */
export function dropFile(
  deps: Deps,
  perRecord: PerRecord,
  id: string,
  fileId: string,
  signal: AbortSignal,
): Promise<Recording> {
  return perRecord.run(id, async () => {
    const held = await mustFind(deps.store, id)
    if (!held.addedFiles.some((f) => f.id === fileId))
      throw new Refusal('record.not-found', 'There is no such file on this recording.')
    return readAgain(deps, held, { dropFileId: fileId }, signal)
  })
}

/** Places the sections by hand, or their first by a line; without either they are placed again. */
export const placeSpans = (
  deps: Deps,
  perRecord: PerRecord,
  id: string,
  placed: SectionSpans,
  signal: AbortSignal,
): Promise<Recording> =>
  perRecord.run(id, async () => readAgain(deps, await mustFind(deps.store, id), { placed }, signal))

/** Makes the figures again from the kept bytes, for example because an older core made them. */
export const renewFigures = (
  deps: Deps,
  perRecord: PerRecord,
  id: string,
  signal: AbortSignal,
): Promise<Recording> =>
  perRecord.run(id, async () => {
    const held = await mustFind(deps.store, id)
    return held.figures === 'renewing' ? readAgain(deps, held, {}, signal) : held
  })

/** Reads all files of a recording again and replaces its channels and figures in one transaction. */
async function readAgain(
  deps: Deps,
  held: Recording,
  how: Rereading,
  signal: AbortSignal,
): Promise<Recording> {
  const { store, incomingDir } = deps
  const { spans, lineS } = how.placed ?? held
  const { gates, ...context } = await runContext(store, held.runId)
  const kept = held.addedFiles.filter((f) => f.id !== how.dropFileId)
  const paths: string[] = []
  const unpacked = async (part: string) => {
    const path = join(incomingDir, `${held.id}-${paths.length}`)
    paths.push(path)
    await writeFile(path, await readPart(store, held.id, part))
    return path
  }
  return undoneOnAbort(signal, paths, async () => {
    const files: IngestFile[] = [
      {
        path: await unpacked(originalPart()),
        fileName: held.fileName,
        kind: 'delimited',
        mapping: held.mapping,
        offsetS: null,
      },
    ]
    for (const { id, fileName, kind, mapping, offsetS, offsetBy } of kept) {
      const path = await unpacked(originalPart(id))
      files.push({ path, fileName, kind, mapping, offsetS: offsetBy === 'given' ? offsetS : null })
    }
    if (how.added) files.push(how.added)
    const {
      parts,
      files: facts,
      ...rest
    } = await readFiles(deps, held.id, { files, ...context, placing: { marks: spans, lineS, gates } }, signal)
    const addedFiles: AddedFile[] = [...kept, ...(how.added ? [how.added] : [])].map((f, i) => {
      const { sha256, byteLength, placed } = facts[i + 1]
      const { id, fileName, kind, mapping } = f
      return { id, fileName, kind, mapping, sha256, byteLength, ...placed! }
    })
    const recording: Recording = {
      ...held,
      ...rest,
      figures: 'current',
      durationS: rest.samples / rest.sampleRateHz,
      addedFiles,
      spans,
      lineS,
    }
    signal.throwIfAborted()
    const renewed = parts.map((p) => p.part)
    await store.writes.run(() => {
      const { db } = store
      const gone = and(
        eq(recordingChunks.recordingId, held.id),
        inArray(recordingChunks.part, ['front', 'rear', ...sideChannelNames, ...renewed]),
      )
      return db.batch([
        db.update(recordings).set({ body: recording }).where(eq(recordings.id, held.id)),
        db.delete(recordingChunks).where(gone),
        ...chunkInserts(store, held.id, parts),
        ...(how.dropFileId ? [dropOriginal(store, held.id, how.dropFileId)] : []),
        ...(how.added
          ? originalInserts(store, held.id, originalPart(how.added.id), facts[facts.length - 1])
          : []),
      ])
    })
    return recording
  })
}

/** Its bytes go with the last recording that has it. */
const dropOriginal = ({ db }: Store, recordingId: string, fileId: string) =>
  db
    .delete(recordingOriginals)
    .where(
      and(eq(recordingOriginals.recordingId, recordingId), eq(recordingOriginals.part, originalPart(fileId))),
    )
