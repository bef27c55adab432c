import { createHash } from 'node:crypto'
import { readFile } from 'node:fs/promises'
import type { ImportMapping } from '#contract/recording'
import { InputError } from '#core/errors'
import { plainBytes } from '#core/formats/encoding'
import { readGpx } from '#core/formats/gpx'
import { headerBytes } from '#core/formats/header'
import { sniffLayout, type FileLayout } from '#core/formats/layout'
import { analyse } from '#core/telemetry/analyse'
import type { CleanRecording } from '#core/telemetry/cleanRecording'
import { ingestDelimited } from '#core/telemetry/ingest'
import { joinRecording, joinTrack } from '#core/telemetry/join'
import { speedRemarks } from '#core/telemetry/speedKnown'
import { sideChannels } from '#core/telemetry/sideChannels'
import { packPieces } from './pieces.ts'
import type { FileFacts, Ingest, IngestFile, IngestJob, IngestResult } from './job.ts'

/** The whole job on the calling thread; the worker wraps it. */
export const runIngest: Ingest = async (job, { onProgress, signal }) => {
  const progress = (share: number, doing: string) => {
    signal.throwIfAborted()
    onProgress(share, doing)
  }
  const files: FileFacts[] = []
  let recording: CleanRecording | null = null
  for (const [i, file] of job.files.entries()) {
    const bytes = await readFile(file.path)
    const part = (share: number, doing: string) => progress((i + share) / job.files.length, doing)
    const placed = recording ? join(recording, file, bytes, job, part) : null
    recording ??= readDelimitedFile(file, bytes, job, part)
    files.push(factsOf(file, bytes, placed))
  }
  if (!recording) throw new InputError('file.empty')
  const analysis = analyse(recording, job.sections, job.placing, progress)
  progress(0.98, 'Packing')
  const kept = [
    ...recording.ends.map((end) => ({ name: end, values: recording.depthPct[end]! })),
    ...sideChannels(recording),
  ]
  const parts: IngestResult['parts'] = kept.map(({ name, values }) => ({
    part: name,
    pieces: packPieces(new Uint8Array(Float32Array.from(values).buffer)),
  }))
  return {
    files,
    sampleRateHz: recording.sampleRateHz,
    samples: recording.samples,
    ends: recording.ends,
    fullTravelMm: { front: recording.travelMm.front ?? null, rear: recording.travelMm.rear ?? null },
    issues: [...recording.issues, ...speedRemarks(recording)],
    analysis,
    parts,
  }
}

type Progress = (share: number, doing: string) => void

function readDelimitedFile(file: IngestFile, bytes: Uint8Array, job: IngestJob, part: Progress) {
  if (!file.mapping) throw new InputError('mapping.no-travel')
  return ingestDelimited(bytes, file.mapping, job.geometry, part)
}

function join(
  recording: CleanRecording,
  file: IngestFile,
  bytes: Uint8Array,
  job: IngestJob,
  part: Progress,
): FileFacts['placed'] {
  switch (file.kind) {
    case 'gpx': {
      part(0.1, 'Reading the track')
      const track = readGpx(new TextDecoder().decode(plainBytes(bytes)))
      return joinTrack(recording, track, file.fileName, file.offsetS)
    }
    case 'delimited':
      return joinRecording(recording, readDelimitedFile(file, bytes, job, part), file.fileName, file.offsetS)
  }
}

/** As the file looks by itself, for that is how the next one of its kind is met; where it does not, as it was said to be. */
function layoutOf(bytes: Uint8Array, mapping: ImportMapping | null): FileLayout {
  try {
    return sniffLayout(bytes)
  } catch (e) {
    if (!(e instanceof InputError) || !mapping) throw e
    return sniffLayout(bytes, mapping)
  }
}

/** What files of one make have in common, if anything: their mapping is remembered by it. */
const headerOf: Record<
  IngestFile['kind'],
  (bytes: Uint8Array, mapping: ImportMapping | null) => Uint8Array | null
> = {
  delimited: (bytes, mapping) => headerBytes(layoutOf(bytes, mapping)),
  gpx: () => null,
}

function factsOf(file: IngestFile, bytes: Uint8Array, placed: FileFacts['placed']): FileFacts {
  const sha256 = (b: Uint8Array) => createHash('sha256').update(b).digest('hex')
  const header = headerOf[file.kind](bytes, file.mapping)
  return {
    sha256: sha256(bytes),
    byteLength: bytes.length,
    fingerprint: header ? sha256(header) : null,
    placed,
    original: packPieces(bytes),
  }
}
