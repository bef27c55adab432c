import { z } from 'zod'
import { Assumed, Id, Name, Note, Version } from './common.ts'

export const RiderLevel = z.enum(['novice', 'intermediate', 'advanced', 'race'])
export type RiderLevel = z.infer<typeof RiderLevel>

/** Planted to lively: shifts targets, never the method. */
export const RiderTaste = z.enum(['planted', 'neutral', 'lively'])
export type RiderTaste = z.infer<typeof RiderTaste>

/** A rider. The masses are private: no shared or projected view carries them. */
export const Rider = z.strictObject({
  id: Id,
  version: Version,
  name: Name,
  bodyMassKg: z
    .number()
    .min(20, 'Body weight must be at least 20 kg.')
    .max(200, 'Body weight must be at most 200 kg.')
    .nullable(),
  kitMassKg: z
    .number()
    .min(0, 'Kit weight cannot be negative.')
    .max(40, 'Kit weight must be at most 40 kg.')
    .nullable(),
  /** Drinking water carried when full; a litre weighs a kilogram. */
  waterL: z
    .number()
    .min(0, 'Water cannot be below 0 litres.')
    .max(10, 'Water must be at most 10 litres.')
    .default(0),
  level: RiderLevel,
  taste: RiderTaste,
  /** 'kitMassKg', where it was added up from what is usually worn. */
  assumed: Assumed,
  note: Note,
})
export type Rider = z.infer<typeof Rider>

/** A rider as everybody may see: no masses. */
export const RiderCard = Rider.omit({ bodyMassKg: true, kitMassKg: true, waterL: true, assumed: true })
export type RiderCard = z.infer<typeof RiderCard>
