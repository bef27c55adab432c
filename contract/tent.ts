import { z } from 'zod'
import { CalendarDay, Id, Instant, Name, Note, Version } from './common.ts'
import { hourParts, sayAtLeast, saysSomething } from './hour.ts'
import { KeptPadReport, PadLink } from './pad.ts'
import { Trail } from './trail.ts'

/** A stretch of the schedule: when the track is open to whom. */
export const TrackWindow = z
  .strictObject({ kind: z.enum(['practice', 'timed', 'closed']), from: Instant, to: Instant })
  .refine((w) => w.to > w.from, { error: 'A stretch of the schedule ends after it begins.', path: ['to'] })
export type TrackWindow = z.infer<typeof TrackWindow>

/** Several riders on one trail on one date, looked after together. Each has a day of their own. */
export const Tent = z.strictObject({
  id: Id,
  version: Version,
  name: Name,
  date: CalendarDay,
  trailId: Id,
  /** In the order of the day. */
  schedule: z.array(TrackWindow).max(16),
  note: Note,
})
export type Tent = z.infer<typeof Tent>

/** here: at the tent · out: on the trail · resting: here, and not to be spoken to · settled: left alone. */
export const Whereabouts = z.enum(['here', 'out', 'resting', 'settled'])
export type Whereabouts = z.infer<typeof Whereabouts>

/** One rider on one bike in a tent. A rider with two bikes is there twice. */
export const TentRider = z.strictObject({
  /** Of the day: a day is in one tent, once. */
  id: Id,
  version: Version,
  tentId: Id,
  /** What is typed to mean this rider; no two of a tent have the same. */
  number: z.number().int().min(1, 'Numbers begin at 1.').max(99, 'A number has at most two digits.'),
  whereabouts: Whereabouts,
  since: Instant,
  /** number: told what to turn and nothing else · reasons: told why, too. */
  temper: z.enum(['number', 'reasons']),
  /** The rider has agreed that others in the tent see the name beside what was turned. */
  named: z.boolean(),
})
export type TentRider = z.infer<typeof TentRider>

/** One line of the log by the hour, for all who ride there. */
export const TentHour = z
  .strictObject({ ...hourParts, version: Version, tentId: Id })
  .refine(saysSomething, { error: sayAtLeast })
export type TentHour = z.infer<typeof TentHour>

/**
 * left-alone: nothing was changed, on purpose · later: to be done after the next run · plan: to be done if the next run comes
 * so · no-time: nothing between two runs.
 */
export const TentNoteKind = z.enum(['left-alone', 'later', 'plan', 'no-time'])
export type TentNoteKind = z.infer<typeof TentNoteKind>

/** What was decided for a rider and is no turn. */
export const TentNote = z
  .strictObject({
    id: Id,
    version: Version,
    tentId: Id,
    /** The rider's day. */
    dayId: Id,
    at: Instant,
    kind: TentNoteKind,
    /** Why; for `later`, what; for `plan`, "if worse, shock reb slower 1". */
    text: z.string().trim().max(200),
    /** `later`, `plan`: when it was done or dropped. */
    closedAt: Instant.nullable(),
    /** `plan`: the last run when it was made; null: none had been ridden, or it is no plan. */
    afterRunId: Id.nullable().default(null),
  })
  .refine((n) => n.kind === 'no-time' || n.text !== '', {
    error: 'Say why, or what is to be done.',
    path: ['text'],
  })
export type TentNote = z.infer<typeof TentNote>

/** A tent with all that is its own; what its riders do stands in their days. */
export const TentBundle = z.strictObject({
  tent: Tent,
  trail: Trail,
  riders: z.array(TentRider),
  hours: z.array(TentHour),
  notes: z.array(TentNote),
  /** Links of riders' phones. */
  pads: z.array(PadLink),
  /** What riders said on their phones, in the order it was said. */
  reports: z.array(KeptPadReport),
})
export type TentBundle = z.infer<typeof TentBundle>
