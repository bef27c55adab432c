import { z } from 'zod'
import { CalendarDay, Id, Name, Note, Version } from './common.ts'
import { AdvisedPosition } from './setup.ts'

export const BaselineSource = z.enum(['unit-maker', 'frame-maker', 'workshop', 'own', 'computed'])
export type BaselineSource = z.infer<typeof BaselineSource>

const SagPct = z
  .number()
  .min(5, 'Sag must be at least 5 %.')
  .max(45, 'Sag must be at most 45 %; was it typed in mm?')
  .nullable()

/**
 * A recommended starting point and where it comes from. Several stand side by side; that they disagree is normal.
 * It may speak of some adjusters only.
 */
export const Baseline = z
  .strictObject({
    id: Id,
    version: Version,
    bikeId: Id,
    name: Name,
    source: BaselineSource,
    asOf: CalendarDay,
    sagFrontPct: SagPct,
    sagRearPct: SagPct,
    positions: z.array(AdvisedPosition).max(24),
    note: Note,
  })
  .refine((b) => new Set(b.positions.map((p) => p.adjusterId)).size === b.positions.length, {
    error: 'An adjuster has two positions in one baseline.',
    path: ['positions'],
  })
export type Baseline = z.infer<typeof Baseline>
