import { z } from 'zod'

export const Surface = z.enum(['dry-hard', 'dry-loose', 'damp', 'wet', 'mud', 'snow'])
export type Surface = z.infer<typeof Surface>

/** How it was when a day began; what nobody has said is null. */
export const Conditions = z.strictObject({
  airTempC: z.number().min(-30).max(50).nullable(),
  altitudeM: z.number().min(-430).max(6000).nullable(),
  surface: Surface.nullable(),
})
export type Conditions = z.infer<typeof Conditions>
