import type { Analysis, ImportIssue, ImportMapping, SectionSpan } from '#contract/recording'
import type { End } from '#contract/common'
import type { TrailSection } from '#contract/trail'
import type { TravelGeometry } from '#core/telemetry/ingest'

export interface IngestJob {
  /** Path of the spooled upload. */
  file: string
  mapping: ImportMapping
  geometry: TravelGeometry
  sections: TrailSection[]
  spans: SectionSpan[]
}

export interface IngestResult {
  sha256: string
  byteLength: number
  /** SHA-256 of the header line, for remembering the mapping; null without a header. */
  fingerprint: string | null
  sampleRateHz: number
  samples: number
  ends: End[]
  issues: ImportIssue[]
  analysis: Analysis
  /** Compressed pieces by part, in order: 'original', 'front', 'rear'. */
  parts: { part: string; pieces: Uint8Array[] }[]
}

export interface IngestControl {
  onProgress: (share: number, doing: string) => void
  signal: AbortSignal
}

/** Reads, cleans and analyses a spooled sensor file. Rejects with InputError for a bad file. */
export type Ingest = (job: IngestJob, control: IngestControl) => Promise<IngestResult>
