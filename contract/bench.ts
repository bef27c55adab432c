import { z } from 'zod'
import { End, Id, Instant, Note, Version } from './common.ts'
import { Position } from './setup.ts'

/** Steps of the bench; their order is a school's (core/bench/schools.ts). */
export const BenchStep = z.enum([
  'who',
  'prepare',
  'start',
  'equalise',
  'sag-rear',
  'sag-front',
  'sag-both',
  'rebound',
  'compression',
  'end-of-stroke',
  'save',
])
export type BenchStep = z.infer<typeof BenchStep>

export const OrderSchool = z.enum(['sag-rebound-volume', 'sag-volume-rebound'])
export type OrderSchool = z.infer<typeof OrderSchool>
export const EqualiseSchool = z.enum(['every-50', 'pump-on-quarter', 'pump-off-half'])
export type EqualiseSchool = z.infer<typeof EqualiseSchool>
export const SpacerSchool = z.enum(['as-delivered', 'start-full'])
export type SpacerSchool = z.infer<typeof SpacerSchool>
export const Posture = z.enum(['seated', 'ready'])
export type Posture = z.infer<typeof Posture>

/** What makes a reading tell nothing of the spring; such a reading is kept and does not count. */
export const ReadingMark = z.enum([
  'compression-closed',
  'lever-closed',
  'brakes-held',
  'kit-missing',
  'not-confirmed-open',
])
export type ReadingMark = z.infer<typeof ReadingMark>

export const SagMethod = z.enum(['ring', 'eye-to-eye', 'wheel'])
export type SagMethod = z.infer<typeof SagMethod>

/** One reading of the still rider on the bike. */
export const SagReading = z.strictObject({
  id: Id,
  end: End,
  at: Instant,
  method: SagMethod,
  posture: Posture,
  /** Both wheels carry the rider as on the trail, not one end set up alone. */
  together: z.boolean(),
  /** How far the unit itself stands compressed, after any correction; at most its stroke. */
  sagMm: z.number().min(0, 'Sag cannot be below 0 mm.').max(260),
  /** True pressure at full extension; null on a coil. */
  pressurePsi: z.number().min(1, 'Pressure must be at least 1 psi.').max(500).nullable(),
  springRateNPerMm: z.number().min(5).max(250).nullable(),
  preloadTurns: z.number().min(0).max(20).nullable(),
  /** null = nobody has looked how many are in. */
  spacers: z.number().int().min(0).max(12).nullable(),
  /** The gauge the pressure was read with; null = one without a name. */
  gaugeId: Id.nullable().default(null),
  marks: z.array(ReadingMark).max(5).default([]),
  /** Left out by the person: a slip. */
  leftOut: z.boolean(),
})
export type SagReading = z.infer<typeof SagReading>

export const ReboundOutcome = z.enum(['creeps', 'settles', 'cycles'])
export type ReboundOutcome = z.infer<typeof ReboundOutcome>

/** What the unit did after being pushed down, or rolled off a kerb, at a rebound position. */
export const ReboundTest = z.strictObject({
  id: Id,
  end: End,
  at: Instant,
  adjusterId: Id,
  /** Canonical position. */
  value: z.number().finite(),
  outcome: ReboundOutcome,
})
export type ReboundTest = z.infer<typeof ReboundTest>

export const Effort = z.enum(['car-park', 'small-drop', 'trail', 'hardest-trail'])
export type Effort = z.infer<typeof Effort>

/** Deepest point of the ring after a bounce, a drop or a ride. */
export const TravelReading = z.strictObject({
  id: Id,
  end: End,
  at: Instant,
  ringMm: z.number().min(0, 'The ring cannot stand below 0 mm.').max(260),
  effort: Effort,
})
export type TravelReading = z.infer<typeof TravelReading>

/** Facts a finished step rests on; when one differs later, the step is stale. */
export const Basis = z.record(z.string().max(60), z.union([z.number(), z.string().max(200), z.null()]))
export type Basis = z.infer<typeof Basis>

export const StepRecord = z
  .strictObject({
    step: BenchStep,
    /** out: looked at, not right, and left so. */
    state: z.enum(['done', 'skipped', 'out']),
    at: Instant,
    reason: z.string().trim().max(200),
    basis: Basis,
  })
  .refine((s) => s.state !== 'skipped' || s.reason.length > 0, {
    error: 'Say why the step is skipped, for example "done last week".',
    path: ['reason'],
  })
export type StepRecord = z.infer<typeof StepRecord>

/** One time on the bench with one bike, from first look to a saved baseline. */
export const Bench = z.strictObject({
  id: Id,
  version: Version,
  bikeId: Id,
  startedAt: Instant,
  orderSchool: OrderSchool,
  equaliseSchool: EqualiseSchool,
  spacerSchool: SpacerSchool,
  posture: z.strictObject({ front: Posture, rear: Posture }),
  airTempC: z.number().min(-30).max(50).nullable(),
  altitudeM: z.number().min(-430).max(6000).nullable(),
  place: z.string().trim().max(80),
  /** When air, altitude and place were said: another day's are not today's. */
  airSaidAt: Instant.nullable().default(null),
  /** The same for each, where they were not said together; null = they were. */
  airSaidEach: z
    .strictObject({ airTempC: Instant, altitudeM: Instant, place: Instant })
    .nullable()
    .default(null),
  gaugeId: z.strictObject({ front: Id.nullable(), rear: Id.nullable() }),
  /** Where adjusters stand on the bench now; what is not named is unread. */
  positions: z.array(Position).max(24),
  /** Preparation checks ticked, by key (core/bench/preparation.ts). */
  checks: z.array(z.string().max(40)).max(40),
  /** Checks that came out wrong: "that is out". */
  checksOut: z.array(z.string().max(40)).max(40).default([]),
  readings: z.array(SagReading).max(60),
  reboundTests: z.array(ReboundTest).max(40),
  travelReadings: z.array(TravelReading).max(40),
  steps: z.array(StepRecord).max(20),
  /** The baseline it ended in. */
  finishedSetupId: Id.nullable(),
  note: Note,
})
export type Bench = z.infer<typeof Bench>
