import { z } from 'zod'
import { Id, Instant, Name, Note, Version } from './common.ts'
import { Surface } from './conditions.ts'

/** What a setup is kept for. */
export const Purpose = z.enum(['flow', 'rough', 'wet', 'jump', 'climb', 'race', 'winter', 'tour'])
export type Purpose = z.infer<typeof Purpose>

/** How fast it is ridden, against this rider's usual. */
export const KeptPace = z.enum(['slower', 'usual', 'faster'])

const TyrePsi = z
  .number()
  .min(5, 'Tyre pressure must be at least 5 psi.')
  .max(60, 'Tyre pressure must be at most 60 psi; was it typed in bar?')
  .nullable()

/**
 * A setup that somebody keeps: its name, what it is for, and what was true when it was found. The setup itself does not
 * change; it can be kept any time, also long after.
 */
export const KeptSetup = z.strictObject({
  /** Of the setup it is about: each is kept once. */
  id: Id,
  version: Version,
  bikeId: Id,
  name: Name,
  purposes: z
    .array(Purpose)
    .max(Purpose.options.length)
    .refine((p) => new Set(p).size === p.length, { error: 'A purpose stands twice.' }),
  /** null and empty: nobody has noted it. */
  found: z.strictObject({
    place: z.string().trim().max(80),
    airTempC: z.number().min(-30).max(50).nullable(),
    altitudeM: z.number().min(-430).max(6000).nullable(),
    surface: Surface.nullable(),
    pace: KeptPace.nullable(),
    kitMassKg: z
      .number()
      .min(0, 'Kit cannot weigh less than nothing.')
      .max(40, 'Kit above 40 kg is not plausible.')
      .nullable(),
  }),
  tyreFrontPsi: TyrePsi,
  tyreRearPsi: TyrePsi,
  /** "flip chip low, 35 mm stem". */
  geometry: z.string().trim().max(160),
  /** What the rider says of it, in own words. */
  words: Note,
  by: z.string().trim().max(80),
  keptAt: Instant,
})
export type KeptSetup = z.infer<typeof KeptSetup>
