import { z } from 'zod'
import { End, Id, Instant, Note } from './common.ts'

/**
 * How a number is known. assumed: typical, computed or carried on from something assumed · set: somebody turned or pumped
 * it to this · read: measured or counted. What nobody knows is unread: it is not kept at all.
 */
export const KnownHow = z.enum(['assumed', 'set', 'read'])
export type KnownHow = z.infer<typeof KnownHow>

export const Known = z.strictObject({
  how: KnownHow,
  at: Instant.nullable(),
  /** Whose hands; empty when not said. */
  by: z.string().trim().max(80),
  /** Where the number comes from: "counted from closed", "1:1 rule for forks". */
  source: z.string().trim().max(160),
  /** The gauge a pressure was read with; null = not said. */
  gaugeId: Id.nullable(),
  /** Where and in what weather: a pressure means nothing without. */
  airTempC: z.number().min(-30).max(50).nullable().default(null),
  altitudeM: z.number().min(-430).max(6000).nullable().default(null),
  place: z.string().trim().max(80).default(''),
})
export type Known = z.infer<typeof Known>

/** Records from before it was noted how a number is known: none of them may pass for read. */
export const knownBefore: Known = {
  how: 'assumed',
  at: null,
  by: '',
  source: 'kept before it was noted how it is known',
  gaugeId: null,
  airTempC: null,
  altitudeM: null,
  place: '',
}

/** A position somebody recommends: nothing is said of any bike. */
export const AdvisedPosition = z.strictObject({
  end: End,
  adjusterId: Id,
  /** Canonical number (see adjuster.ts). */
  value: z.number().finite(),
})
export type AdvisedPosition = z.infer<typeof AdvisedPosition>

/** Where one adjuster stands, and how that is known. An adjuster without a position is unread. */
export const Position = AdvisedPosition.extend({ known: Known.default(knownBefore) })
export type Position = z.infer<typeof Position>

/** Why one setup followed from its parent. What changed is the difference of the two. */
export const ChangeReason = z.strictObject({
  text: Note,
  /** carried: translated from a settled setup, maybe of another bike; a start, never settled. */
  /** reading: nothing was turned, a number is known better · undo: the change in `undoes` was taken back. */
  /** noted: from somebody's own table of before; it stood so once, and turns nothing. */
  source: z.enum(['baseline', 'own-idea', 'proposal', 'revert', 'carried', 'reading', 'undo', 'noted']),
  /** Two or more adjusters that belong together, moved as one change on purpose. */
  linked: z.boolean(),
  proposalId: Id.nullable(),
  /** The change that was taken back. */
  undoes: Id.nullable().default(null),
  /** The wanted setup, or the earlier one, that was put on the bike. */
  fromSetupId: Id.nullable().default(null),
})
export type ChangeReason = z.infer<typeof ChangeReason>

/** What was true when a baseline was found; what later checks are held against. */
export const FoundIn = z.strictObject({
  airTempC: z.number().min(-30).max(50).nullable(),
  altitudeM: z.number().min(-430).max(6000).nullable(),
  place: z.string().trim().max(80),
  sagFrontPct: z.number().min(0).max(100).nullable(),
  sagRearPct: z.number().min(0).max(100).nullable(),
  /** Posture the sag was read in; null = not noted. */
  postureFront: z.enum(['seated', 'ready']).nullable().default(null),
  postureRear: z.enum(['seated', 'ready']).nullable().default(null),
})
export type FoundIn = z.infer<typeof FoundIn>

/** Immutable snapshot of what is known of every adjuster of both ends. */
export const Setup = z
  .strictObject({
    id: Id,
    bikeId: Id,
    parentId: Id.nullable(),
    dayId: Id.nullable(),
    madeAt: Instant,
    name: z.string().trim().max(80).nullable(),
    frontUnitId: Id.nullable(),
    rearUnitId: Id.nullable(),
    positions: z.array(Position).max(24),
    reason: ChangeReason,
    foundIn: FoundIn.nullable().default(null),
    /** A wish (a start, carried over, a plan): on the bike only once somebody has made the turns. */
    wanted: z.boolean().default(false),
  })
  .refine((s) => new Set(s.positions.map((p) => p.adjusterId)).size === s.positions.length, {
    error: 'An adjuster has two positions in one setup.',
    path: ['positions'],
  })
export type Setup = z.infer<typeof Setup>
