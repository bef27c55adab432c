import { rm, writeFile } from 'node:fs/promises'
import { join } from 'node:path'
import { gunzipSync } from 'node:zlib'
import { and, asc, eq, inArray } from 'drizzle-orm'
import { Recording } from '#contract/recording'
import type {
  AddedFile,
  AddedFileUpload,
  RecordingUpload,
  RememberedMapping,
  SectionSpan,
} from '#contract/recording'
import type { TrailSection } from '#contract/trail'
import { leverageOf } from '#core/linkage/leverage'
import type { TravelGeometry } from '#core/telemetry/ingest'
import type { Deps } from '../deps.ts'
import type { Store } from '../db/open.ts'
import {
  bikes,
  days,
  mappings,
  recordingChunks,
  recordings,
  runs,
  setups,
  trails,
  units,
} from '../db/schema.ts'
import type { IngestFile, IngestJob } from '../ingest/job.ts'
import { spool } from '../ingest/spool.ts'
import { Refusal } from '../refusal.ts'

/** Part names of the kept bytes: the first file, and each added one. */
export const originalPart = (addedFileId?: string) => (addedFileId ? `original:${addedFileId}` : 'original')

/**
 * Takes a sensor file in: spool, read and analyse in a thread, then keep everything in one transaction.
 * Replaying a finished upload answers with what is kept.
 */
export async function importRecording(
  deps: Deps,
  id: string,
  meta: RecordingUpload,
  body: ReadableStream<Uint8Array>,
  signal: AbortSignal,
): Promise<Recording> {
  const { store } = deps
  const held = await findRecording(store, id)
  if (held) {
    await body.cancel()
    if (held.runId === meta.runId && held.fileName === meta.fileName) return held
    throw new Refusal('record.immutable', 'A recording with this id is already kept.')
  }
  const context = await runContext(store, meta.runId)
  const path = await spool(body, deps.incomingDir, id, signal)
  const { fileName, mapping, spans } = meta
  return undoneOnAbort(signal, [path], async () => {
    const file = { path, fileName, kind: 'delimited' as const, mapping, offsetS: null }
    const { parts, files, ...facts } = await ingest(deps, id, { files: [file], ...context, spans }, signal)
    const [{ sha256, byteLength, original, fingerprint }] = files
    const recording: Recording = {
      id,
      runId: meta.runId,
      fileName,
      sha256,
      byteLength,
      importedAt: deps.now(),
      mapping,
      durationS: facts.samples / facts.sampleRateHz,
      ...facts,
      addedFiles: [],
      spans,
    }
    signal.throwIfAborted()
    await store.writes.run(() => {
      const { db } = store
      const remember =
        meta.remember && fingerprint
          ? [
              db
                .insert(mappings)
                .values({ fingerprint, body: mapping })
                .onConflictDoUpdate({ target: mappings.fingerprint, set: { body: mapping } }),
            ]
          : []
      return db.batch([
        db.insert(recordings).values({ id, runId: meta.runId, body: recording }),
        ...chunkInserts(store, id, [{ part: originalPart(), pieces: original }, ...parts]),
        ...remember,
      ])
    })
    return recording
  })
}

/** Adds a further file to a recording: everything is read again from the kept bytes, and kept in one transaction. */
export async function addFile(
  deps: Deps,
  id: string,
  fileId: string,
  meta: AddedFileUpload,
  body: ReadableStream<Uint8Array>,
  signal: AbortSignal,
): Promise<Recording> {
  const held = await mustFind(deps.store, id)
  if (held.addedFiles.some((f) => f.id === fileId)) {
    await body.cancel()
    return held
  }
  if (held.addedFiles.length >= mostAddedFiles)
    throw new Refusal('request.invalid', `A recording takes at most ${mostAddedFiles} further files.`)
  if (meta.kind === 'delimited' && !meta.mapping)
    throw new Refusal('request.invalid', 'mapping: say what the columns of the file are.', {
      path: 'mapping',
    })
  const path = await spool(body, deps.incomingDir, fileId, signal)
  return undoneOnAbort(signal, [path], () =>
    readAgain(
      deps,
      held,
      { spans: held.spans, dropFileId: null, added: { ...meta, id: fileId, path } },
      signal,
    ),
  )
}

const mostAddedFiles = 6

/** Takes a further file off a recording again. @throws Refusal 'record.not-found' */
export async function dropFile(
  deps: Deps,
  id: string,
  fileId: string,
  signal: AbortSignal,
): Promise<Recording> {
  const held = await mustFind(deps.store, id)
  if (!held.addedFiles.some((f) => f.id === fileId))
    throw new Refusal('record.not-found', 'There is no such file on this recording.')
  return readAgain(deps, held, { spans: held.spans, dropFileId: fileId, added: null }, signal)
}

/** Places the sections by hand; an empty list lets distance or length place them again. */
export async function placeSpans(
  deps: Deps,
  id: string,
  spans: SectionSpan[],
  signal: AbortSignal,
): Promise<Recording> {
  const held = await mustFind(deps.store, id)
  return readAgain(deps, held, { spans, dropFileId: null, added: null }, signal)
}

interface Rereading {
  spans: SectionSpan[]
  dropFileId: string | null
  added: (AddedFileUpload & { id: string; path: string }) | null
}

/** Reads all files of a recording again and replaces its channels and figures in one transaction. */
async function readAgain(
  deps: Deps,
  held: Recording,
  how: Rereading,
  signal: AbortSignal,
): Promise<Recording> {
  const { store, incomingDir } = deps
  const context = await runContext(store, held.runId)
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
    } = await ingest(deps, held.id, { files, ...context, spans: how.spans }, signal)
    const addedFiles: AddedFile[] = [...kept, ...(how.added ? [how.added] : [])].map((f, i) => {
      const { sha256, byteLength, placed } = facts[i + 1]
      const { id, fileName, kind, mapping } = f
      return { id, fileName, kind, mapping, sha256, byteLength, ...placed! }
    })
    const recording: Recording = {
      ...held,
      ...rest,
      durationS: rest.samples / rest.sampleRateHz,
      addedFiles,
      spans: how.spans,
    }
    signal.throwIfAborted()
    const renewed = [...parts.map((p) => p.part), ...(how.dropFileId ? [originalPart(how.dropFileId)] : [])]
    const fresh = how.added
      ? [{ part: originalPart(how.added.id), pieces: facts[facts.length - 1].original }]
      : []
    await store.writes.run(() => {
      const { db } = store
      const gone = and(
        eq(recordingChunks.recordingId, held.id),
        inArray(recordingChunks.part, ['front', 'rear', ...renewed]),
      )
      return db.batch([
        db.update(recordings).set({ body: recording }).where(eq(recordings.id, held.id)),
        db.delete(recordingChunks).where(gone),
        ...chunkInserts(store, held.id, [...parts, ...fresh]),
      ])
    })
    return recording
  })
}

const ingest = (deps: Deps, id: string, job: IngestJob, signal: AbortSignal) =>
  deps.ingest(job, {
    signal,
    onProgress: (share, doing) => deps.events.emit({ type: 'ingest', recordingId: id, share, doing }),
  })

function chunkInserts({ db }: Store, recordingId: string, parts: { part: string; pieces: Uint8Array[] }[]) {
  return parts.flatMap(({ part, pieces }) =>
    pieces.map((bytes, seq) =>
      db.insert(recordingChunks).values({ recordingId, part, seq, bytes: Buffer.from(bytes) }),
    ),
  )
}

/** Runs the work and removes its spooled files; a cancelled one says that nothing was kept. */
async function undoneOnAbort<T>(
  signal: AbortSignal,
  paths: readonly string[],
  work: () => Promise<T>,
): Promise<T> {
  try {
    return await work()
  } catch (e) {
    if (signal.aborted) throw new Refusal('upload.cancelled', 'The upload was cancelled; nothing was kept.')
    throw e
  } finally {
    for (const path of paths) await rm(path, { force: true })
  }
}

/** @throws Refusal 'record.not-found' */
export async function mustFind(store: Store, id: string): Promise<Recording> {
  const held = await findRecording(store, id)
  if (!held) throw new Refusal('record.not-found', 'There is no such recording.')
  return held
}

/** Units, linkage and sections that a file on this run is read with. */
async function runContext({ db }: Store, runId: string) {
  const [row] = await db
    .select({ setup: setups.body, bike: bikes.body, trail: trails.body })
    .from(runs)
    .innerJoin(setups, eq(runs.setupId, setups.id))
    .innerJoin(days, eq(runs.dayId, days.id))
    .innerJoin(bikes, eq(days.bikeId, bikes.id))
    .innerJoin(trails, eq(days.trailId, trails.id))
    .where(eq(runs.id, runId))
  if (!row)
    throw new Refusal('reference.missing', 'The run it belongs to is not saved yet.', { path: 'runId' })
  const strokeOf = async (unitId: string | null) => {
    if (!unitId) return null
    const [unit] = await db.select().from(units).where(eq(units.id, unitId))
    return unit?.body.strokeMm ?? null
  }
  const rearStrokeMm = await strokeOf(row.setup.rearUnitId)
  const geometry: TravelGeometry = {
    frontTravelMm: await strokeOf(row.setup.frontUnitId),
    rearStrokeMm,
    leverage: rearStrokeMm === null ? null : leverageOf(row.bike, rearStrokeMm),
  }
  return { geometry, sections: row.trail.sections }
}

/** Named sections of the trail that a run was ridden on. */
export async function sectionsOf({ db }: Store, runId: string): Promise<TrailSection[]> {
  const [row] = await db
    .select({ trail: trails.body })
    .from(runs)
    .innerJoin(days, eq(runs.dayId, days.id))
    .innerJoin(trails, eq(days.trailId, trails.id))
    .where(eq(runs.id, runId))
  return row?.trail.sections ?? []
}

export async function findRecording({ db }: Store, id: string): Promise<Recording | null> {
  const [row] = await db.select().from(recordings).where(eq(recordings.id, id))
  return row ? Recording.parse(row.body) : null
}

/** A part put together again. @throws Refusal 'record.not-found' */
export async function readPart({ db }: Store, id: string, part: string): Promise<Uint8Array<ArrayBuffer>> {
  const rows = await db
    .select({ bytes: recordingChunks.bytes })
    .from(recordingChunks)
    .where(and(eq(recordingChunks.recordingId, id), eq(recordingChunks.part, part)))
    .orderBy(asc(recordingChunks.seq))
  if (rows.length === 0) throw new Refusal('record.not-found', 'There is no such recording.')
  return Uint8Array.from(Buffer.concat(rows.map((r) => gunzipSync(r.bytes))))
}

export async function findMapping({ db }: Store, fingerprint: string): Promise<RememberedMapping | null> {
  const [row] = await db.select().from(mappings).where(eq(mappings.fingerprint, fingerprint))
  return row ? { fingerprint, mapping: row.body } : null
}
