import { z } from 'zod'
import { Name } from './common.ts'

/** A record that is not the rider's, with the rider's name in it; an empty name: one of many that have none. */
export const NamedElsewhere = z.strictObject({ what: z.string(), name: z.string() })
export type NamedElsewhere = z.infer<typeof NamedElsewhere>

/** What goes with a rider for good, and what stays and why. */
export const ErasureReach = z.strictObject({
  name: Name,
  bikes: z.int(),
  units: z.int(),
  setups: z.int(),
  days: z.int(),
  runs: z.int(),
  recordings: z.int(),
  /** Bikes that somebody else has ridden too: they stay, and go to the last of them. */
  passedOn: z.array(z.strictObject({ bike: Name, to: Name })),
  /** What stays as it is, with the name in it. */
  elsewhere: z.array(NamedElsewhere),
  /** Safe copies, and files that were set aside, that may still have the rider in them. */
  copies: z.int(),
})
export type ErasureReach = z.infer<typeof ErasureReach>

/** Said by a person who has seen what goes. */
export const Erasure = z.strictObject({
  /** Typed: the rider's name as it stands. */
  name: z.string(),
  /** What was ridden stays, without who it was: no name, no weight, nothing spoken. */
  daysStay: z.boolean().default(false),
  /** Safe copies of before go, too, and one of after is made. */
  alsoCopies: z.boolean(),
})
export type Erasure = z.infer<typeof Erasure>
