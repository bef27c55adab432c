import { expose } from 'comlink'
import type { ImportMapping } from '#contract/recording'
import { headerBytes } from '#core/formats/header'
import { splitCells } from '#core/formats/cells'
import { encodingOf, plainBytes, type Encoding } from '#core/formats/encoding'
import { sniffLayout, type FileLayout, type Said } from '#core/formats/layout'
import { readDelimited } from '#core/formats/delimited'
import { readOnce } from '#core/formats/readOnce'
import type { TravelGeometry } from '#core/telemetry/cleanRecording'
import { ingestDelimited } from '#core/telemetry/ingest'
import { speedRemarks } from '#core/telemetry/speedKnown'

export interface FileLook {
  layout: FileLayout
  fingerprintBytes: Uint8Array<ArrayBuffer> | null
  /** First rows of every column. */
  rows: number[][]
  encoding: Encoding
}

export type Trial =
  | {
      ok: true
      sampleRateHz: number
      durationS: number
      issues: { code: string; message: string }[]
      ranges: { end: string; lowPct: number; highPct: number }[]
    }
  | { ok: false; message: string }

const previewRows = 6
/** As much as the layout is told from. */
const headBytes = 1 << 18

/** What a person says of how a file is written; the rest is seen. */
export interface Looking extends Said {
  /** Encoding of the column names, by its standard label. */
  namesIn?: string
}

function rename(layout: FileLayout, label: string): void {
  const header = headerBytes(layout)
  if (!header) return
  const names = splitCells(new TextDecoder(label).decode(header), layout.delimiter, layout.quote)
  for (const [i, c] of layout.columns.entries()) c.name = names[i]?.trim().replace(/^"|"$/g, '') || c.name
}

/** The file that was looked into last: it comes over once, and its columns are read once, however often they are mapped. */
let held: { bytes: Uint8Array; read: ReturnType<typeof readOnce> } | null = null

/** Looks into a sensor file and tries mappings on it, off the page's thread. */
const api = {
  async look(file: Blob, how: Looking = {}): Promise<FileLook> {
    const bytes = new Uint8Array(await file.arrayBuffer())
    held = { bytes, read: readOnce(bytes) }
    const layout = sniffLayout(bytes, how)
    if (how.namesIn) rename(layout, how.namesIn)
    const plain = plainBytes(bytes)
    const table = readDelimited(plain.subarray(0, headBytes), {
      ...layout,
      dateOrder: layout.dateOrder === 'unclear' ? null : layout.dateOrder,
      columns: layout.columns.map((_, i) => i),
      clockColumn: layout.columns.findIndex((c) => c.role === 'time'),
    })
    const count = Math.min(previewRows, table.lines.length)
    return {
      layout,
      fingerprintBytes: headerBytes(layout),
      encoding: encodingOf(bytes),
      rows: Array.from({ length: count }, (_, r) => table.columns.map((c) => c[r])),
    }
  },
  attempt(mapping: ImportMapping, geometry: TravelGeometry): Trial {
    if (!held) return { ok: false, message: 'Choose a file first.' }
    try {
      const r = ingestDelimited(held.bytes, mapping, geometry, () => {}, held.read)
      const ranges = r.ends.map((end) => {
        let lowPct = Infinity
        let highPct = -Infinity
        for (const v of r.depthPct[end]!) {
          if (v < lowPct) lowPct = v
          if (v > highPct) highPct = v
        }
        return { end, lowPct, highPct }
      })
      return {
        ok: true,
        sampleRateHz: r.sampleRateHz,
        durationS: r.samples / r.sampleRateHz,
        issues: [...r.issues, ...speedRemarks(r)],
        ranges,
      }
    } catch (e) {
      return { ok: false, message: e instanceof Error ? e.message : String(e) }
    }
  },
}
export type FileWorker = typeof api

expose(api)
