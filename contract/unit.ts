import { z } from 'zod'
import { Adjuster } from './adjuster.ts'
import { Chart } from './chart.ts'
import { Loan } from './care.ts'
import { Assumed, CalendarDay, End, Id, Name, Note, Version } from './common.ts'

/** Geometry of an air spring; ratios as in core/spring/air.ts. */
export const AirSpring = z.strictObject({
  cr0: z.number().min(1.2, 'The compression ratio must be at least 1.2.').max(8),
  spacerShare: z.number().min(0.005).max(0.3),
  negativeShare: z.number().min(0.08).max(0.9),
  areaShare: z.number().min(0).max(0.99),
  equaliseAt: z.number().min(0).max(0.3),
  pistonAreaCm2: z.number().min(2).max(60),
})
export type AirSpring = z.infer<typeof AirSpring>

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
    /** Day the damper inside was changed; its maker's chart ends there. */
    revalvedOn: CalendarDay.nullable().default(null),
    /** What is engraved or stuck on the unit, to order parts by. */
    idNote: z.string().trim().max(120).default(''),
    /** null = the usual values for a fork or a shock. */
    airSpring: AirSpring.nullable().default(null),
    /** Coil units: collar movement per turn. */
    preloadPitchMm: z.number().min(0.5).max(4).default(1.5),
    serviceEveryDays: z
      .number()
      .int()
      .min(7, 'A service is due after at least 7 days.')
      .max(2000)
      .nullable()
      .default(null),
    /** Whose it is, where that is not the rider of the bike; null: not said. */
    ownerId: Id.nullable().default(null),
    loan: Loan.nullable().default(null),
    charts: z.array(Chart).max(12, 'A unit has at most 12 charts.').default([]),
    adjusters: z.array(Adjuster).max(12, 'A unit has at most 12 adjusters.'),
    /** 'strokeMm' where it is only typical, and the ids of adjusters whose range nobody has counted or read. */
    assumed: Assumed,
    note: Note,
  })
  .refine((u) => new Set(u.adjusters.map((a) => a.id)).size === u.adjusters.length, {
    error: 'Two adjusters carry the same id.',
    path: ['adjusters'],
  })
  .refine((u) => u.charts.every((c) => u.adjusters.some((a) => a.id === c.adjusterId)), {
    error: 'A chart speaks of an adjuster that this unit does not have.',
    path: ['charts'],
  })
export type SuspensionUnit = z.infer<typeof SuspensionUnit>
