import { z } from 'zod'
import { Id, Instant, Note, Version } from './common.ts'
import { End } from './common.ts'
import { Surface } from './conditions.ts'
import { Answer } from './question.ts'

export const RunKind = z.enum(['warm-up', 'counted', 'void'])
export type RunKind = z.infer<typeof RunKind>

/** The state of mind a run was ridden in; anything but normal weighs less. */
export const MindTag = z.enum(['normal', 'track-new', 'nervous', 'tired', 'saving-tyres'])
export type MindTag = z.infer<typeof MindTag>

/** How hard a run was ridden: a ring or a bottom-out means something else on a careful run. */
export const Effort = z.enum(['held-back', 'usual', 'all-out'])
export type Effort = z.infer<typeof Effort>

const TyrePsi = z.number().min(5, 'Tyre pressure must be at least 5 psi.').max(60).nullable()
const HeardBottoms = z
  .number()
  .int('Count whole bottom-outs.')
  .min(0, 'A count cannot be negative.')
  .max(99)
  .nullable()
  .default(null)
const RingMm = z.number().min(0, 'The ring cannot stand below 0 mm.').max(260).nullable()

/** One descent of the day's section on one setup: the facts, not the feel. */
export const Run = z
  .strictObject({
    id: Id,
    version: Version,
    dayId: Id,
    setupId: Id,
    startedAt: Instant,
    kind: RunKind,
    voidReason: z.string().trim().max(200).nullable(),
    durationS: z.number().positive().max(7200).nullable(),
    mind: MindTag,
    /** Deepest point of the ride, read from wiper to ring. */
    ringFrontMm: RingMm,
    ringRearMm: RingMm,
    tyreFrontPsi: TyrePsi,
    tyreRearPsi: TyrePsi,
    /** Where the ground was no longer as on the rest of the day; null: as the day. */
    surface: Surface.nullable().default(null),
    /** Air and height at this run, where somebody noted them; null: as the day. */
    airTempC: z.number().min(-30).max(50).nullable().default(null),
    altitudeM: z.number().min(-430).max(6000).nullable().default(null),
    effort: Effort.nullable().default(null),
    /** Bottom-outs counted by ear; null: nobody counted. */
    heardBottomsFront: HeardBottoms,
    heardBottomsRear: HeardBottoms,
    note: Note,
  })
  .refine((r) => r.kind !== 'void' || (r.voidReason ?? '').length > 0, {
    error: 'Say why the run does not count, for example "crash" or "flat tyre".',
    path: ['voidReason'],
  })
export type Run = z.infer<typeof Run>

/** What a rider says. Each word is evidence, never proof. */
export const FeelWord = z.enum([
  'kicks',
  'pogo',
  'harsh-gets-worse',
  'harsh-square-edge',
  'harsh-everywhere',
  'harsh-and-bottoms',
  'bottoms',
  'unused-travel',
  'dives',
  'wallows',
  'blows-through',
  'washes-out',
  'stretched',
  'nose-heavy',
  'nervous',
  'dead',
  'stays-down',
  'pedal-bob',
  'pedals-strike',
  'soft-when-hot',
  'slow-when-cold',
  'good',
  'holds-up',
  'grips',
])
export type FeelWord = z.infer<typeof FeelWord>

export const Mark = z.strictObject({
  id: Id,
  word: FeelWord,
  /** null: the whole run. */
  sectionId: Id.nullable(),
  end: z.enum([...End.options, 'both']),
  strength: z.union([z.literal(1), z.literal(2), z.literal(3)]),
})
export type Mark = z.infer<typeof Mark>

/** This run against a named other one: -2 much worse … +2 much better. */
export const Verdict = z.strictObject({
  againstRunId: Id,
  value: z.union([z.literal(-2), z.literal(-1), z.literal(0), z.literal(1), z.literal(2)]),
})
export type Verdict = z.infer<typeof Verdict>

export const Rating = z
  .number()
  .min(1, 'Rate from 1 to 10.')
  .max(10, 'Rate from 1 to 10.')
  .multipleOf(0.5, 'Rate in half steps.')

/** How a run was, in the rider's words. One per run. */
export const Feel = z
  .strictObject({
    runId: Id,
    version: Version,
    rating: Rating.nullable(),
    marks: z.array(Mark).max(60),
    verdicts: z.array(Verdict).max(10),
    /** What was asked on the card and answered by a tap. */
    answers: z.array(Answer).max(20).default([]),
    note: Note,
  })
  .refine((f) => f.verdicts.every((v) => v.againstRunId !== f.runId), {
    error: 'A run cannot be judged against itself.',
    path: ['verdicts'],
  })
export type Feel = z.infer<typeof Feel>
