import { z } from 'zod'
import { CountBase } from './adjuster.ts'
import { CalendarDay, End, Id, Name, Note, Version } from './common.ts'
import { ShiftRole } from './profile.ts'
import { AdvisedPosition } from './setup.ts'

export const BaselineSource = z.enum([
  'unit-maker',
  'frame-maker',
  'workshop',
  'own',
  'computed',
  'another-rider',
  'device',
])
export type BaselineSource = z.infer<typeof BaselineSource>

const SagPct = z
  .number()
  .min(5, 'Sag must be at least 5 %.')
  .max(45, 'Sag must be at most 45 %; was it typed in mm?')
  .nullable()

/** What somebody advises for a dial that this bike does not have, in their words: "3 from closed". */
export const AdviceElsewhere = z.strictObject({
  end: End,
  role: ShiftRole,
  says: z.string().trim().min(1, 'Say what they advise for it.').max(60),
})
export type AdviceElsewhere = z.infer<typeof AdviceElsewhere>

/** A score that somebody gives to the bike as it is; it means something beside others of that style only. */
export const TheirScore = z.strictObject({
  value: z.number().finite(),
  /** What they call the way of riding it was reckoned for. */
  style: Name,
})

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
    /** Another rider's settings: what that rider weighs with kit; they are not meant for any other weight. */
    riderMassKg: z
      .number()
      .min(25, 'A riding weight below 25 kg is not plausible.')
      .max(220, 'A riding weight above 220 kg is not plausible.')
      .nullable()
      .default(null),
    sagFrontPct: SagPct,
    sagRearPct: SagPct,
    positions: z.array(AdvisedPosition).max(24),
    /** Where they count clicks and turns from; null: as each dial does here. Positions are canonical either way. */
    countedFrom: CountBase.nullable().default(null),
    notHere: z.array(AdviceElsewhere).max(12).default([]),
    score: TheirScore.nullable().default(null),
    note: Note,
  })
  .refine((b) => new Set(b.positions.map((p) => p.adjusterId)).size === b.positions.length, {
    error: 'An adjuster has two positions in one baseline.',
    path: ['positions'],
  })
  .refine((b) => b.source !== 'another-rider' || b.riderMassKg !== null, {
    error: 'Say what that rider weighs with kit: clicks of another weight are not yours.',
    path: ['riderMassKg'],
  })
export type Baseline = z.infer<typeof Baseline>
