import { rm } from 'node:fs/promises'
import { gunzipSync } from 'node:zlib'
import { and, asc, eq } from 'drizzle-orm'
import type { Recording, RecordingUpload } from '#contract/recording'
import type { RememberedMapping } from '#contract/recording'
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
import { spool } from '../ingest/spool.ts'
import { Refusal } from '../refusal.ts'

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
  const { store, events } = deps
  const held = await findRecording(store, id)
  if (held) {
    await body.cancel()
    if (held.runId === meta.runId && held.fileName === meta.fileName) return held
    throw new Refusal('record.immutable', 'A recording with this id is already kept.')
  }
  const context = await runContext(store, meta.runId)
  const file = await spool(body, deps.incomingDir, id, signal)
  try {
    const result = await deps.ingest(
      {
        file,
        mapping: meta.mapping,
        geometry: context.geometry,
        sections: context.sections,
        spans: meta.spans,
      },
      {
        signal,
        onProgress: (share, doing) => events.emit({ type: 'ingest', recordingId: id, share, doing }),
      },
    )
    const { parts, fingerprint, ...facts } = result
    const recording: Recording = {
      id,
      runId: meta.runId,
      fileName: meta.fileName,
      importedAt: deps.now(),
      mapping: meta.mapping,
      durationS: facts.samples / facts.sampleRateHz,
      ...facts,
    }
    if (signal.aborted) throw new Refusal('upload.cancelled', 'The upload was cancelled; nothing was kept.')
    await store.writes.run(() => {
      const { db } = store
      const rows = parts.flatMap(({ part, pieces }) =>
        pieces.map((bytes, seq) =>
          db.insert(recordingChunks).values({ recordingId: id, part, seq, bytes: Buffer.from(bytes) }),
        ),
      )
      const remember =
        meta.remember && fingerprint
          ? [
              db
                .insert(mappings)
                .values({ fingerprint, body: meta.mapping })
                .onConflictDoUpdate({ target: mappings.fingerprint, set: { body: meta.mapping } }),
            ]
          : []
      return db.batch([
        db.insert(recordings).values({ id, runId: meta.runId, body: recording }),
        ...rows,
        ...remember,
      ])
    })
    return recording
  } catch (e) {
    if (signal.aborted) throw new Refusal('upload.cancelled', 'The upload was cancelled; nothing was kept.')
    throw e
  } finally {
    await rm(file, { force: true })
  }
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
  return row?.body ?? null
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
