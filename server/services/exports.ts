import Papa from 'papaparse'
import { Refusal } from '../refusal.ts'
import type { SpanMetrics, Recording } from '#contract/recording'
import type { TrailSection } from '#contract/trail'

/** Rows written at once: some hundred kB of text, so that a long recording never stands in memory as text. */
const rowsPerPiece = 8192

/**
 * Cleaned channels as CSV, piece by piece: what 100 % means as comments, then time in s, depth in % of travel per end, the
 * rear named for where it was taken, so that it comes back as what it is, and what else was recorded. A gap is an empty field.
 * @param channels of `recording.ends`, then of `side`; samples each
 */
export function* channelsCsv(
  recording: Recording,
  channels: readonly Float32Array[],
  side: readonly string[],
): Generator<string> {
  const isAtWheel = recording.analysis?.rearAt !== 'shaft'
  const names = recording.ends.map((end) =>
    end === 'rear' && isAtWheel ? 'rear_wheel_depth_pct' : `${end}_depth_pct`,
  )
  for (const [i, end] of recording.ends.entries()) {
    const mm = recording.fullTravelMm[end]
    if (mm !== null) yield `# ${names[i]}: 100 % is ${Number(mm.toFixed(2))} mm\r\n`
  }
  yield Papa.unparse([['time_s', ...names, ...side]]) + '\r\n'
  for (let from = 0; from < recording.samples; from += rowsPerPiece) {
    const to = Math.min(recording.samples, from + rowsPerPiece)
    const rows: (number | string)[][] = []
    for (let i = from; i < to; i++)
      rows.push([
        Number((i / recording.sampleRateHz).toFixed(6)),
        ...channels.map((c) => (Number.isNaN(c[i]) ? '' : Number(c[i].toFixed(3)))),
      ])
    yield Papa.unparse(rows) + '\r\n'
  }
}

/** A figure of one end in one section, with its unit in its name. */
export interface MetricRow {
  section: string
  start_s: number
  end_s: number
  end: 'front' | 'rear' | 'both'
  metric: string
  /** Empty where the ride does not tell it. */
  value: number | ''
}

export const noFiguresWords =
  'The figures of this recording are being made again, or could not be made; open its day and look again.'

/** Every single figure of an analysis, long form: one row each. Histograms are left to the JSON document. */
export function metricRows(recording: Recording, sections: readonly TrailSection[]): MetricRow[] {
  const { analysis } = recording
  if (!analysis) throw new Refusal('recording.no-figures', noFiguresWords)
  const nameOf = (s: SpanMetrics) =>
    s.sectionId === null ? 'whole run' : (sections.find((x) => x.id === s.sectionId)?.name ?? s.sectionId)
  return [analysis.whole, ...analysis.sections].flatMap((s) => {
    const place = { section: nameOf(s), start_s: s.startS, end_s: s.endS }
    const { sectionId: _id, startS: _from, endS: _to, front: _front, rear: _rear, ...both } = s
    return (['front', 'rear', 'both'] as const).flatMap((end) =>
      Object.entries(end === 'both' ? both : (s[end] ?? {})).flatMap(([metric, value]) =>
        typeof value === 'number' || value === null ? [{ ...place, end, metric, value: value ?? '' }] : [],
      ),
    )
  })
}

/** Names that people gave are never a formula to the spreadsheet that opens them. */
export const metricsCsv = (rows: readonly MetricRow[]) =>
  Papa.unparse([...rows], { escapeFormulae: true }) + '\r\n'
