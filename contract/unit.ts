import { z } from 'zod'
import { Adjuster } from './adjuster.ts'
import { End, Id, Name, Note, Version } from './common.ts'

/** A suspension unit: a fork (front) or a shock (rear), with what can be turned on it. */
export const SuspensionUnit = z
  .strictObject({
    id: Id,
    version: Version,
    name: Name,
    end: End,
    spring: z.enum(['air', 'coil']),
    /** Fork: travel along the legs. Shock: stroke. */
    strokeMm: z.number().min(20, 'Stroke must be at least 20 mm.').max(260, 'Stroke must be at most 260 mm.'),
    sagTargetPct: z
      .number()
      .min(5, 'Sag target must be at least 5 %.')
      .max(45, 'Sag target must be at most 45 %.'),
    revalved: z.boolean(),
    adjusters: z.array(Adjuster).max(12, 'A unit has at most 12 adjusters.'),
    note: Note,
  })
  .refine((u) => new Set(u.adjusters.map((a) => a.id)).size === u.adjusters.length, {
    error: 'Two adjusters carry the same id.',
    path: ['adjusters'],
  })
export type SuspensionUnit = z.infer<typeof SuspensionUnit>
