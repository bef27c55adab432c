import type { AddedFile, Analysis, ImportIssue, ImportMapping, Recording } from '#contract/recording'
import type { End } from '#contract/common'
import type { TrailSection } from '#contract/trail'
import type { TravelGeometry } from '#core/telemetry/cleanRecording'
import type { Placing } from '#core/telemetry/sections'

/** A file of a recording, spooled. The first one of a job sets the clock. */
export interface IngestFile {
  path: string
  fileName: string
  kind: AddedFile['kind']
  /** Of delimited text. */
  mapping: ImportMapping | null
  /** Of further files: when they begin on the first one's clock, s; null = to be found. */
  offsetS: number | null
}

export interface IngestJob {
  files: IngestFile[]
  geometry: TravelGeometry
  sections: TrailSection[]
  placing: Placing
}

/** What was learnt of one file. */
export interface FileFacts {
  sha256: string
  byteLength: number
  /** SHA-256 of the header line, for remembering the mapping; null without a header. */
  fingerprint: string | null
  /** Where a further file was laid; null for the first. */
  placed: { offsetS: number; offsetBy: AddedFile['offsetBy'] } | null
  /** The bytes as they came, in compressed pieces. */
  original: Uint8Array[]
}

export interface IngestResult {
  files: FileFacts[]
  sampleRateHz: number
  samples: number
  ends: End[]
  fullTravelMm: Recording['fullTravelMm']
  issues: ImportIssue[]
  analysis: Analysis
  /** Compressed pieces of the cleaned channels by part: 'front', 'rear', and the side channels by name. */
  parts: { part: string; pieces: Uint8Array[] }[]
}

export interface IngestControl {
  onProgress: (share: number, doing: string) => void
  signal: AbortSignal
}

/** Reads, joins, cleans and analyses the spooled files of a recording. Rejects with InputError for a bad file. */
export type Ingest = (job: IngestJob, control: IngestControl) => Promise<IngestResult>
