import { gunzipSync } from 'node:zlib'
import { and, asc, eq, inArray } from 'drizzle-orm'
import { Recording, type RememberedMapping, type RiddenWay } from '#contract/recording'
import { wayCourse } from '#core/telemetry/wayCourse'
import { coreVersion } from '#core/version'
import { sideChannelNames, type SideChannelName } from '#core/telemetry/sideChannels'
import type { Store } from '../../db/open.ts'
import {
  mappings,
  originalChunks,
  recordingChunks,
  recordingOriginals,
  recordingParts,
  recordings,
} from '../../db/schema.ts'
import { Refusal } from '../../refusal.ts'

/** Part names of the kept bytes: the first file, and each added one. */
export const originalPart = (addedFileId?: string) => (addedFileId ? `original:${addedFileId}` : 'original')

/**
 * A kept recording as today's contract has it. Figures of an older core, or in a shape that is none any more, are left out
 * and marked, never refused: the bytes are there to be read again.
 */
export function asKeptToday(body: Recording): Recording {
  const whole = Recording.safeParse(body)
  if (whole.success)
    return whole.data.analysis?.coreVersion === coreVersion || whole.data.figures === 'broken'
      ? whole.data
      : { ...whole.data, analysis: null, figures: 'renewing' }
  return Recording.parse({ ...body, analysis: null, figures: 'renewing' })
}

export async function findRecording({ db }: Store, id: string): Promise<Recording | null> {
  const [row] = await db.select().from(recordings).where(eq(recordings.id, id))
  return row ? asKeptToday(row.body) : null
}

/** @throws Refusal 'record.not-found' */
export async function mustFind(store: Store, id: string): Promise<Recording> {
  const held = await findRecording(store, id)
  if (!held) throw new Refusal('record.not-found', 'There is no such recording.')
  return held
}

/** A part put together again. @throws Refusal 'record.not-found' */
export async function readPart({ db }: Store, id: string, part: string): Promise<Uint8Array<ArrayBuffer>> {
  const rows = await db
    .select({ bytes: recordingParts.bytes })
    .from(recordingParts)
    .where(and(eq(recordingParts.recordingId, id), eq(recordingParts.part, part)))
    .orderBy(asc(recordingParts.seq))
  if (rows.length === 0) throw new Refusal('record.not-found', 'There is no such recording.')
  return Uint8Array.from(Buffer.concat(rows.map((r) => gunzipSync(r.bytes))))
}

/** Side channels that are kept of a recording, in their order. */
export async function sidePartsOf({ db }: Store, id: string): Promise<SideChannelName[]> {
  const rows = await db
    .selectDistinct({ part: recordingChunks.part })
    .from(recordingChunks)
    .where(and(eq(recordingChunks.recordingId, id), inArray(recordingChunks.part, [...sideChannelNames])))
  return sideChannelNames.filter((name) => rows.some((r) => r.part === name))
}

/** Metres ridden by time; null where a recording has neither distance nor speed. */
export async function wayOf(store: Store, recording: Recording): Promise<RiddenWay | null> {
  const side = await sidePartsOf(store, recording.id)
  const values = async (name: SideChannelName) =>
    side.includes(name) ? new Float32Array((await readPart(store, recording.id, name)).buffer) : null
  const distanceM = await values('distance_m')
  return wayCourse({
    sampleRateHz: recording.sampleRateHz,
    distanceM,
    speedMS: distanceM ? null : await values('speed_m/s'),
  })
}

export async function findMapping({ db }: Store, fingerprint: string): Promise<RememberedMapping | null> {
  const [row] = await db.select().from(mappings).where(eq(mappings.fingerprint, fingerprint))
  return row ? { fingerprint, mapping: row.body } : null
}

/** A file as it came, for a part of a recording; its bytes are kept once, whatever else it was put on. */
export function originalInserts(
  { db }: Store,
  recordingId: string,
  part: string,
  { sha256, original }: { sha256: string; original: Uint8Array[] },
) {
  return [
    db.insert(recordingOriginals).values({ recordingId, part, sha256 }),
    ...original.map((bytes, seq) =>
      db
        .insert(originalChunks)
        .values({ sha256, seq, bytes: Buffer.from(bytes) })
        .onConflictDoNothing(),
    ),
  ]
}

/** Channels as rows of compressed pieces. */
export function chunkInserts(
  { db }: Store,
  recordingId: string,
  parts: { part: string; pieces: Uint8Array[] }[],
) {
  return parts.flatMap(({ part, pieces }) =>
    pieces.map((bytes, seq) =>
      db.insert(recordingChunks).values({ recordingId, part, seq, bytes: Buffer.from(bytes) }),
    ),
  )
}
