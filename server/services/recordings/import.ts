import { access } from 'node:fs/promises'
import { and, eq, isNull } from 'drizzle-orm'
import type { Recording, RecordingUpload } from '#contract/recording'
import type { Deps } from '../../deps.ts'
import { mappings, recordings, runs } from '../../db/schema.ts'
import { uploadedFile } from '../../ingest/spool.ts'
import { Refusal } from '../../refusal.ts'
import { runContext } from './context.ts'
import { chunkInserts, findRecording, originalInserts, originalPart } from './kept.ts'
import { readFiles, undoneOnAbort, type PerRecord } from './reading.ts'

/**
 * Takes a sensor file in, whose bytes were sent before: read and analyse in a thread, then keep everything in one
 * transaction. Saying it again after it was kept answers with what is kept.
 *
 * @throws Refusal 'upload.missing', 'recording.elsewhere', 'record.immutable', 'reference.missing'
 */
export function importRecording(
  deps: Deps,
  perRecord: PerRecord,
  id: string,
  meta: RecordingUpload,
  signal: AbortSignal,
): Promise<Recording> {
  // By run, so that a file said twice at once is taken in once.
  return perRecord.run(meta.runId, async () => {
    const { store } = deps
    const held = await findRecording(store, id)
    if (held) {
      if (held.runId === meta.runId && held.fileName === meta.fileName) return held
      throw new Refusal('record.immutable', 'A recording with this id is already kept.')
    }
    const { gates, ...context } = await runContext(store, meta.runId)
    const path = await mustHave(deps.incomingDir, meta.uploadId)
    const { fileName, mapping, spans } = meta
    return undoneOnAbort(signal, [path], async () => {
      const file = { path, fileName, kind: 'delimited' as const, mapping, offsetS: null }
      const job = { files: [file], ...context, placing: { marks: spans, gates } }
      const { parts, files, ...facts } = await readFiles(deps, id, job, signal)
      const [first] = files
      const { sha256, byteLength, fingerprint } = first
      const twin = await sameFile(deps, sha256, meta)
      if (twin) return twin
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
        figures: 'current',
        addedFiles: [],
        spans,
        lineS: null,
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
          db.insert(recordings).values({ id, runId: meta.runId, sha256, body: recording }),
          ...originalInserts(store, id, originalPart(), first),
          ...chunkInserts(store, id, parts),
          ...remember,
        ])
      })
      return recording
    })
  })
}

/**
 * The recording of the same bytes: on this run it is the answer to a press whose answer was lost; on another run a person
 * has to say that it belongs here too.
 * @throws Refusal 'recording.elsewhere'
 */
async function sameFile(
  { store: { db } }: Deps,
  sha256: string,
  meta: RecordingUpload,
): Promise<Recording | null> {
  const rows = await db
    .select({ body: recordings.body, runId: recordings.runId, startedAt: runs.startedAt })
    .from(recordings)
    .innerJoin(runs, eq(recordings.runId, runs.id))
    .where(and(eq(recordings.sha256, sha256), isNull(recordings.deletedAt), isNull(runs.deletedAt)))
  const here = rows.find((r) => r.runId === meta.runId)
  if (here) return here.body
  if (rows.length > 0 && !meta.again)
    throw new Refusal(
      'recording.elsewhere',
      `The same file is on another run already, ridden ${rows[0].startedAt.slice(0, 16).replace('T', ' ')} UTC. Take it off there, or say that it belongs to both.`,
      { path: 'again' },
    )
  return null
}

/** Where the bytes of an upload lie. @throws Refusal 'upload.missing' */
export async function mustHave(incomingDir: string, uploadId: string): Promise<string> {
  const path = uploadedFile(incomingDir, uploadId)
  try {
    await access(path)
    return path
  } catch {
    throw new Refusal('upload.missing', 'The bytes of the file have not arrived; send them again.', {
      path: 'uploadId',
    })
  }
}
