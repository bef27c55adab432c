import { z } from 'zod'
import { Id, Name, Note, Version } from './common.ts'

const Leverage = z.number().min(1, 'Leverage must be at least 1.').max(5, 'Leverage must be at most 5.')

export const Bike = z
  .strictObject({
    id: Id,
    version: Version,
    riderId: Id,
    name: Name,
    eBike: z.boolean(),
    frontUnitId: Id.nullable(),
    /** null on a hardtail. */
    rearUnitId: Id.nullable(),
    rearWheelTravelMm: z.number().min(40).max(260).nullable(),
    /** Wheel movement per shaft movement at full extension and at full compression; null = straight average. */
    leverageStart: Leverage.nullable(),
    leverageEnd: Leverage.nullable(),
    /** What is on the bike now. Set by saving a setup, never by hand. */
    currentSetupId: Id.nullable(),
    note: Note,
  })
  .refine((b) => b.frontUnitId !== null || b.rearUnitId !== null, {
    error: 'A bike needs a suspension unit at the front or the rear.',
    path: ['frontUnitId'],
  })
  .refine((b) => b.rearUnitId === null || b.rearWheelTravelMm !== null, {
    error: 'Give the rear wheel travel in mm, so that stroke and wheel can be told apart.',
    path: ['rearWheelTravelMm'],
  })
export type Bike = z.infer<typeof Bike>
