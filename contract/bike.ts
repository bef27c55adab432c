import { z } from 'zod'
import { Assumed, Id, Name, Note, Version } from './common.ts'

const Leverage = z
  .number('Leverage must be a number from 1 to 5.')
  .min(1, 'Leverage must be at least 1.')
  .max(5, 'Leverage must be at most 5.')

export const BikeKind = z.enum(['cross-country', 'trail', 'enduro', 'downhill', 'other'])
export type BikeKind = z.infer<typeof BikeKind>

/** One point of a leverage curve: wheel movement per shaft movement at a shaft position. */
export const LeveragePoint = z.strictObject({
  shaftMm: z.number('Each row needs two numbers: mm of the shaft, then the leverage there.').min(0).max(260),
  ratio: Leverage,
})
export type LeveragePoint = z.infer<typeof LeveragePoint>

export const Tyre = z.strictObject({
  name: z.string().trim().max(80),
  widthMm: z.number().min(20).max(140).nullable(),
  pressurePsi: z.number().min(5, 'Tyre pressure must be at least 5 psi.').max(60).nullable(),
})
export type Tyre = z.infer<typeof Tyre>

const noTyre: Tyre = { name: '', widthMm: null, pressurePsi: null }
const FrontShare = z
  .number()
  .min(15, 'At least 15 % of the weight stands on the front wheel.')
  .max(75, 'At most 75 % of the weight stands on the front wheel.')
  .nullable()
  .default(null)

export const Bike = z
  .strictObject({
    id: Id,
    version: Version,
    riderId: Id,
    name: Name,
    eBike: z.boolean(),
    kind: BikeKind.default('trail'),
    /** The bare bike, all of it. */
    massKg: z
      .number()
      .min(6, 'A bike weighs at least 6 kg.')
      .max(45, 'A bike weighs at most 45 kg.')
      .nullable()
      .default(null),
    frontUnitId: Id.nullable(),
    /** null on a hardtail. */
    rearUnitId: Id.nullable(),
    rearWheelTravelMm: z.number().min(40).max(260).nullable(),
    /** Wheel movement per shaft movement at full extension and at full compression; null = straight average. */
    leverageStart: Leverage.nullable(),
    leverageEnd: Leverage.nullable(),
    /** Measured or published curve; goes before start and end. null = straight from start to end. */
    leverageCurve: z
      .array(LeveragePoint)
      .min(2, 'A leverage curve needs at least two points.')
      .max(60, 'At most 60 points.')
      .refine((c) => c.every((p, i) => i === 0 || p.shaftMm > c[i - 1].shaftMm), {
        error: 'The shaft positions of the leverage curve must rise from row to row.',
      })
      .nullable()
      .default(null),
    tyres: z.strictObject({ front: Tyre, rear: Tyre }).default({ front: noTyre, rear: noTyre }),
    /** Weight on the front wheel, %, measured on two scales; null = the usual shares. */
    frontShareSeatedPct: FrontShare,
    frontShareReadyPct: FrontShare,
    /** What is on the bike now. Set by saving a setup, never by hand. */
    currentSetupId: Id.nullable(),
    /** 'rearWheelTravelMm', where it is only typical of the kind of bike. */
    assumed: Assumed,
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
