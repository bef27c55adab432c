import { z } from 'zod'
import { End, Id, Instant, Note } from './common.ts'

/** Position of one adjuster, in its canonical number (see adjuster.ts). */
export const Position = z.strictObject({
  end: End,
  adjusterId: Id,
  value: z.number().finite(),
})
export type Position = z.infer<typeof Position>

/** Why one setup followed from its parent. What changed is the difference of the two. */
export const ChangeReason = z.strictObject({
  text: Note,
  /** carried: translated from a settled setup, maybe of another bike; a start, never settled. */
  source: z.enum(['baseline', 'own-idea', 'proposal', 'revert', 'carried']),
  /** Two or more adjusters that belong together, moved as one change on purpose. */
  linked: z.boolean(),
  proposalId: Id.nullable(),
})
export type ChangeReason = z.infer<typeof ChangeReason>

/** What was true when a baseline was found; what later checks are held against. */
export const FoundIn = z.strictObject({
  airTempC: z.number().min(-30).max(50).nullable(),
  altitudeM: z.number().min(-430).max(6000).nullable(),
  place: z.string().trim().max(80),
  sagFrontPct: z.number().min(0).max(100).nullable(),
  sagRearPct: z.number().min(0).max(100).nullable(),
})
export type FoundIn = z.infer<typeof FoundIn>

/** Immutable snapshot of every adjuster of both ends. */
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
  })
  .refine((s) => new Set(s.positions.map((p) => p.adjusterId)).size === s.positions.length, {
    error: 'An adjuster has two positions in one setup.',
    path: ['positions'],
  })
export type Setup = z.infer<typeof Setup>
