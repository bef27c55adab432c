import { z } from 'zod'
import { End, Id, Instant } from './common.ts'
import { TrailGate } from './trail.ts'

export const ChannelRole = z.enum([
  'time',
  'front-travel',
  'rear-travel',
  /** At the axle; the linkage tells what the shock does. */
  'rear-wheel-travel',
  'front-pressure',
  'rear-pressure',
  'bar-acceleration',
  'front-axle-acceleration',
  'rear-axle-acceleration',
  'speed',
  'distance',
  'latitude',
  'longitude',
  'ignore',
])
export type ChannelRole = z.infer<typeof ChannelRole>

export const ChannelUnit = z.enum([
  'min',
  's',
  'ms',
  'us',
  'ns',
  'mm',
  'cm',
  'in',
  'pct',
  /** 0 to 1 of the travel. */
  'fraction',
  'raw',
  'psi',
  'bar',
  'kPa',
  'g',
  'm/s2',
  'm',
  'km',
  'm/s',
  'km/h',
  'deg',
  'none',
])
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

/** Readings at several known positions, straight between them: for sensors that are not linear. */
export const ManyPoint = z
  .strictObject({
    points: z
      .array(z.strictObject({ reading: z.number().finite(), mm: z.number().min(0).max(260) }))
      .min(2, 'A calibration needs at least two points.')
      .max(20, 'At most 20 calibration points.'),
  })
  .refine((c) => c.points.every((p, i) => i === 0 || p.mm > c.points[i - 1].mm), {
    error: 'The travel of the calibration points must rise from row to row.',
    path: ['points'],
  })
  .refine(
    (c) => {
      const rise = Math.sign(c.points[1].reading - c.points[0].reading)
      return (
        rise !== 0 &&
        c.points.every((p, i) => i === 0 || Math.sign(p.reading - c.points[i - 1].reading) === rise)
      )
    },
    {
      error: 'The readings of the calibration points must all rise or all fall from row to row.',
      path: ['points'],
    },
  )
export type ManyPoint = z.infer<typeof ManyPoint>

/** A depth read off the ring, along the leg or shaft, with the pressure held there; 0 mm is full extension. */
export const HeldDepth = z.strictObject({ mm: z.number().min(0).max(260), psi: z.number().min(0).max(500) })
export type HeldDepth = z.infer<typeof HeldDepth>

/** What turns chamber pressure into travel. */
export const PressureCalibration = z.strictObject({
  /** Absolute pressure fully compressed over fully extended, held still after letting the air out. */
  compressionRatio: z
    .number()
    .min(1.2, 'The compression ratio must be at least 1.2; hold the unit fully compressed.')
    .max(10, 'The compression ratio must be at most 10.'),
  /** Gauge pressure at full extension, filled and equalised. */
  baselinePsi: z.number().min(1, 'The baseline pressure must be at least 1 psi.').max(500),
  /** What both were worked out from, when nothing was let out. */
  heldDepths: z.array(HeldDepth).min(3).max(8).optional(),
})
export type PressureCalibration = z.infer<typeof PressureCalibration>

export const ColumnMapping = z.strictObject({
  column: z.number().int().min(0).max(199),
  role: ChannelRole,
  unit: ChannelUnit,
  calibration: z.union([TwoPoint, ManyPoint, PressureCalibration]).nullable(),
})
export type ColumnMapping = z.infer<typeof ColumnMapping>

/** How the columns of a delimited text file are to be read. */
export const ImportMapping = z.strictObject({
  delimiter: z.enum([',', ';', '\t', '|', ' ']),
  decimal: z.enum(['.', ',']),
  columns: z.array(ColumnMapping).min(1).max(200),
  /** For files without a time column. */
  sampleRateHz: z.number().min(1).max(20000).nullable(),
  /** What holds a cell together that contains the delimiter; a double quote when nothing is said. */
  quote: z.enum(['"', "'", 'none']).optional(),
  /** 1-based line of the first row of numbers; found when nothing is said. */
  firstRowLine: z.number().int().min(1).max(100000).optional(),
  /** Order of local dates in the time column. */
  dateOrder: z.enum(['dmy', 'mdy']).optional(),
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
export const SectionSpan = z
  .strictObject({
    sectionId: Id,
    startS: z.number().min(0),
    endS: z.number().min(0),
  })
  .refine((s) => s.endS > s.startS, { error: 'A section must end after it starts.', path: ['endS'] })
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
  /** Seconds of small chatter: moving in 8–25 Hz, without a hit that goes in far. */
  chatterS: z.number().int(),
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
  /** null: not enough quiet returns, three at least. */
  reboundDampingRatio: z.number().nullable(),
  /** Standard error over those returns. */
  reboundDampingSe: z.number().nullable(),
  reboundDampingHits: z.number().int(),
  /** Median time back to entry depth + 10 % of the rise. */
  recoveryMs: z.number().nullable(),
  /** Peak rebound speed over peak depth: slope 1/s; null with fewer than five hits. */
  returnSlopePerS: z.number().nullable(),
  returnInterceptMmS: z.number().nullable(),
  /** Chatter of the depth over that of the axle in the same band, % of travel per g; null without an axle sensor. */
  chatterPctPerG: z.number().nullable().default(null),
  /** Depth above the run's ride height in braking sections, % points; null elsewhere. */
  diveRisePct: z.number().nullable().default(null),
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
  /** Front over rear 95th percentile of speed. */
  compressionSpeedRatio: z.number().nullable().default(null),
  reboundSpeedRatio: z.number().nullable().default(null),
  /** Correlation of the rear with the front a wheelbase earlier, and that lag. */
  wheelbaseCorrelation: z.number().nullable().default(null),
  wheelbaseLagS: z.number().nullable().default(null),
  /** Hand-arm weighted RMS of the bar's acceleration (ISO 5349-1, W_h), m/s²; null without a bar sensor. */
  buzzMS2: z.number().nullable().default(null),
  /** Stretches of braking and of turns or dips that load both ends, and landings. */
  brakings: z.number().int().nullable().default(null),
  loadedTurns: z.number().int().nullable().default(null),
  landings: z.number().int().nullable().default(null),
})
export type SpanMetrics = z.infer<typeof SpanMetrics>

export const RecordingEvent = z.strictObject({
  /** 'hit': the hardest twenty of an end. */
  kind: z.enum(['bottom-out', 'hard-bottom-out', 'top-out', 'train', 'hit', 'landing']),
  end: End,
  startS: z.number(),
  endS: z.number(),
  value: z.number(),
})
export type RecordingEvent = z.infer<typeof RecordingEvent>

/** Power spectral density of depth on bands that grow by the same factor. */
export const SpectrumSchema = z.strictObject({
  /** Lower edge of the first band, Hz, and the factor from edge to edge. */
  startHz: z.number(),
  ratio: z.number(),
  /** (% of travel)² per Hz. */
  density: z.array(z.number()),
})
export type Spectrum = z.infer<typeof SpectrumSchema>

/** Metres ridden at even steps of time, from the start of a recording. */
export const RiddenWay = z.strictObject({
  stepS: z.number().positive(),
  wayM: z.array(z.number()).min(1),
})
export type RiddenWay = z.infer<typeof RiddenWay>

/** One hit as a point of the return law: peak depth in % of travel, peak rebound speed in mm/s. */
export const HitPoint = z.tuple([z.number(), z.number()])

export const Analysis = z.strictObject({
  coreVersion: z.string(),
  /** Whether rear depth and speed are at the axle (linkage known) or at the shaft. */
  rearAt: z.enum(['axle', 'shaft']),
  whole: SpanMetrics,
  sections: z.array(SpanMetrics),
  /** Whether sections were placed by distance, by time marks, by places on the ground, or merely by share of length. */
  sectionsBy: z.enum(['distance', 'marks', 'share-of-length', 'places']),
  /** What makes the edges of the sections unsure, as a sentence. */
  sectionsDoubt: z.string().nullable().default(null),
  /** Where on the ground the sections begin, when the recording has positions. */
  edgePlaces: z.array(TrailGate).default([]),
  events: z.array(RecordingEvent).max(2000),
  spectra: z.strictObject({ front: SpectrumSchema.nullable(), rear: SpectrumSchema.nullable() }).default({
    front: null,
    rear: null,
  }),
  /** At most 400 hits per end, evenly taken. */
  hitPoints: z
    .strictObject({ front: z.array(HitPoint).max(400), rear: z.array(HitPoint).max(400) })
    .default({ front: [], rear: [] }),
})
export type Analysis = z.infer<typeof Analysis>

export const ImportIssue = z.strictObject({
  code: z.string(),
  message: z.string(),
  line: z.number().int().nullable(),
  count: z.number().int(),
})
export type ImportIssue = z.infer<typeof ImportIssue>

/** A further file of a recording: another logger's, or a track of the way. */
export const AddedFile = z.strictObject({
  id: Id,
  fileName: z.string(),
  kind: z.enum(['delimited', 'gpx']),
  sha256: z.string(),
  byteLength: z.number().int(),
  mapping: ImportMapping.nullable(),
  /** When it begins on the recording's clock, s, and how that is known. */
  offsetS: z.number(),
  offsetBy: z.enum(['given', 'clock', 'matched', 'start']),
})
export type AddedFile = z.infer<typeof AddedFile>

/** Bytes that arrived and wait to be read. */
export const Upload = z.strictObject({ id: Id, byteLength: z.number().int(), sha256: z.string() })
export type Upload = z.infer<typeof Upload>

/** What is said of a further file. `offsetS` null: found from clocks or by matching. */
export const AddedFileUpload = z.strictObject({
  uploadId: Id,
  fileName: z.string().min(1).max(200),
  kind: AddedFile.shape.kind,
  mapping: ImportMapping.nullable(),
  offsetS: z.number().min(-86400).max(86400).nullable(),
})
export type AddedFileUpload = z.infer<typeof AddedFileUpload>

/** Hand-set places of the sections; an empty list lets them be placed again. */
export const SectionSpans = z.strictObject({
  spans: z.array(SectionSpan).max(24),
  /** When the trail begins in this recording; its sections are then laid in metres from there. */
  lineS: z.number().min(0).nullable().default(null),
})
export type SectionSpans = z.infer<typeof SectionSpans>

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
  /** What 100 % of depth stands for: fork travel; rear axle travel, or the shaft's stroke where the linkage is not known. */
  fullTravelMm: z
    .strictObject({ front: z.number().nullable(), rear: z.number().nullable() })
    .default({ front: null, rear: null }),
  issues: z.array(ImportIssue),
  /** null while the figures of an older core are made again, or where none could be made (`figures`). */
  analysis: Analysis.nullable(),
  /** renewing: read again from the kept bytes just now · broken: the kept bytes give no sound figures any more. */
  figures: z.enum(['current', 'renewing', 'broken']).default('current'),
  addedFiles: z.array(AddedFile).max(6).default([]),
  /** Hand-set places of sections; empty when they were placed by distance or length. */
  spans: z.array(SectionSpan).default([]),
  /** When the trail begins in it, s, where somebody said so. */
  lineS: z.number().nullable().default(null),
})
export type Recording = z.infer<typeof Recording>

/** What is said of a sensor file whose bytes were sent before (PUT /uploads/:id). */
export const RecordingUpload = z.strictObject({
  uploadId: Id,
  runId: Id,
  fileName: z.string().min(1).max(200),
  mapping: ImportMapping,
  spans: z.array(SectionSpan).max(24),
  remember: z.boolean(),
  /** The same file is on another run, and is meant to be on this one too. */
  again: z.boolean().default(false),
})
export type RecordingUpload = z.infer<typeof RecordingUpload>
