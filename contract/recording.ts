import { z } from 'zod'
import { End, Id, Instant } from './common.ts'

export const ChannelRole = z.enum(['time', 'front-travel', 'rear-travel', 'speed', 'distance', 'ignore'])
export type ChannelRole = z.infer<typeof ChannelRole>

export const ChannelUnit = z.enum(['s', 'ms', 'us', 'mm', 'pct', 'raw', 'm', 'km', 'm/s', 'km/h', 'none'])
export type ChannelUnit = z.infer<typeof ChannelUnit>

/** Two readings of a channel: at full extension and at full compression. */
export const TwoPoint = z
  .strictObject({
    extendedReading: z.number().finite(),
    compressedReading: z.number().finite(),
    compressedMm: z.number().positive('Travel at full compression must be above 0 mm.').max(260),
  })
  .refine((c) => c.extendedReading !== c.compressedReading, {
    error: 'The two calibration readings are equal; take one at full extension and one at full compression.',
  })
export type TwoPoint = z.infer<typeof TwoPoint>

export const ColumnMapping = z.strictObject({
  column: z.number().int().min(0).max(199),
  role: ChannelRole,
  unit: ChannelUnit,
  calibration: TwoPoint.nullable(),
})
export type ColumnMapping = z.infer<typeof ColumnMapping>

/** How the columns of a delimited text file are to be read. */
export const ImportMapping = z.strictObject({
  delimiter: z.enum([',', ';', '\t', '|', ' ']),
  decimal: z.enum(['.', ',']),
  columns: z.array(ColumnMapping).min(1).max(200),
  /** For files without a time column. */
  sampleRateHz: z.number().min(1).max(20000).nullable(),
})
export type ImportMapping = z.infer<typeof ImportMapping>

/** A mapping remembered for every file with the same header line. */
export const RememberedMapping = z.strictObject({
  /** SHA-256 of the header line, hex. */
  fingerprint: z.string().regex(/^[0-9a-f]{64}$/),
  mapping: ImportMapping,
})
export type RememberedMapping = z.infer<typeof RememberedMapping>

/** Where a section lies in a recording. */
export const SectionSpan = z.strictObject({
  sectionId: Id,
  startS: z.number().min(0),
  endS: z.number().min(0),
})
export type SectionSpan = z.infer<typeof SectionSpan>

export const HistogramSchema = z.strictObject({
  /** Lower edge of the first bin and width of each, in the unit of the metric. */
  start: z.number(),
  width: z.number(),
  /** Share of time per bin, sums to 1 when not empty. */
  share: z.array(z.number()),
})

export const EndMetrics = z.strictObject({
  rideHeightPct: z.number(),
  depthP05Pct: z.number(),
  depthP50Pct: z.number(),
  depthP95Pct: z.number(),
  depthMaxPct: z.number(),
  depthHistogram: HistogramSchema,
  speedHistogram: HistogramSchema,
  compressionP95MmS: z.number(),
  compressionMaxMmS: z.number(),
  reboundP95MmS: z.number(),
  reboundMaxMmS: z.number(),
  highSpeedCompressionShare: z.number(),
  highSpeedReboundShare: z.number(),
  supportPct: z.number(),
  smallBumpPct: z.number(),
  bottomOuts: z.number().int(),
  hardBottomOuts: z.number().int(),
  topOuts: z.number().int(),
  hits: z.number().int(),
  midHits: z.number().int(),
  bigHits: z.number().int(),
  trains: z.number().int(),
  /** Mean over trains, % of travel per hit; + = sinks. null without a train. */
  valleyDriftPctPerHit: z.number().nullable(),
  valleyDriftSe: z.number().nullable(),
  /** Median of isolated hits. null without one; capped at 0.8 ("0.8 or above"). */
  reboundDampingRatio: z.number().nullable(),
  reboundDampingHits: z.number().int(),
  /** Median time back to entry depth + 10 % of the rise. */
  recoveryMs: z.number().nullable(),
  /** Peak rebound speed over peak depth: slope 1/s; null with fewer than five hits. */
  returnSlopePerS: z.number().nullable(),
  returnInterceptMmS: z.number().nullable(),
})
export type EndMetrics = z.infer<typeof EndMetrics>

export const SpanMetrics = z.strictObject({
  sectionId: Id.nullable(),
  startS: z.number(),
  endS: z.number(),
  front: EndMetrics.nullable(),
  rear: EndMetrics.nullable(),
  /** Front minus rear ride height, % points; null when one end is missing. */
  balancePct: z.number().nullable(),
  airtimeS: z.number().nullable(),
})
export type SpanMetrics = z.infer<typeof SpanMetrics>

export const RecordingEvent = z.strictObject({
  kind: z.enum(['bottom-out', 'hard-bottom-out', 'top-out', 'train']),
  end: End,
  startS: z.number(),
  endS: z.number(),
  value: z.number(),
})
export type RecordingEvent = z.infer<typeof RecordingEvent>

export const Analysis = z.strictObject({
  coreVersion: z.string(),
  /** Whether rear depth and speed are at the axle (linkage known) or at the shaft. */
  rearAt: z.enum(['axle', 'shaft']),
  whole: SpanMetrics,
  sections: z.array(SpanMetrics),
  /** Whether sections were placed by distance, by time marks, or merely by share of length. */
  sectionsBy: z.enum(['distance', 'marks', 'share-of-length']),
  events: z.array(RecordingEvent).max(2000),
})
export type Analysis = z.infer<typeof Analysis>

export const ImportIssue = z.strictObject({
  code: z.string(),
  message: z.string(),
  line: z.number().int().nullable(),
  count: z.number().int(),
})
export type ImportIssue = z.infer<typeof ImportIssue>

export const Recording = z.strictObject({
  id: Id,
  runId: Id,
  fileName: z.string(),
  sha256: z.string(),
  byteLength: z.number().int(),
  importedAt: Instant,
  mapping: ImportMapping,
  sampleRateHz: z.number(),
  durationS: z.number(),
  samples: z.number().int(),
  ends: z.array(End),
  issues: z.array(ImportIssue),
  analysis: Analysis,
})
export type Recording = z.infer<typeof Recording>

/** What goes with the bytes of a sensor file. */
export const RecordingUpload = z.strictObject({
  runId: Id,
  fileName: z.string().min(1).max(200),
  mapping: ImportMapping,
  spans: z.array(SectionSpan).max(24),
  remember: z.boolean(),
})
export type RecordingUpload = z.infer<typeof RecordingUpload>
