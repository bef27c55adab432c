import { createHash } from 'node:crypto'
import { readFile } from 'node:fs/promises'
import { gzipSync } from 'node:zlib'
import { headerBytes } from '#core/formats/header'
import { sniffLayout } from '#core/formats/layout'
import { analyse } from '#core/telemetry/analyse'
import { ingestDelimited } from '#core/telemetry/ingest'
import type { Ingest, IngestResult } from './job.ts'

const pieceBytes = 1 << 20

/** The whole job on the calling thread; the worker wraps it. */
export const runIngest: Ingest = async (job, { onProgress, signal }) => {
  const bytes = await readFile(job.file)
  const progress = (share: number, doing: string) => {
    signal.throwIfAborted()
    onProgress(share, doing)
  }
  const recording = ingestDelimited(bytes, job.mapping, job.geometry, progress)
  const analysis = analyse(recording, job.sections, job.spans, progress)
  progress(0.98, 'Packing')
  const parts: IngestResult['parts'] = [{ part: 'original', pieces: pack(bytes) }]
  for (const end of recording.ends) {
    const depth = Float32Array.from(recording.depthPct[end]!)
    parts.push({ part: end, pieces: pack(new Uint8Array(depth.buffer)) })
  }
  const header = headerBytes(sniffLayout(bytes))
  return {
    sha256: createHash('sha256').update(bytes).digest('hex'),
    byteLength: bytes.length,
    fingerprint: header ? createHash('sha256').update(header).digest('hex') : null,
    sampleRateHz: recording.sampleRateHz,
    samples: recording.samples,
    ends: recording.ends,
    issues: recording.issues,
    analysis,
    parts,
  }
}

/** Each piece is compressed by itself, so that none is large in memory or in a row. */
function pack(bytes: Uint8Array): Uint8Array[] {
  const pieces: Uint8Array[] = []
  for (let i = 0; i < bytes.length; i += pieceBytes)
    pieces.push(gzipSync(bytes.subarray(i, i + pieceBytes), { level: 4 }))
  return pieces
}
