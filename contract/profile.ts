import { z } from 'zod'
import { DamperRole } from './adjuster.ts'
import { End, Id, Instant, Name, Note, Version } from './common.ts'
import { Purpose } from './kept.ts'

/** A dial by what it does, so that it is found on any unit. */
export const ShiftRole = z.enum([
  ...DamperRole.options,
  'preload',
  'start-of-stroke',
  'main-pressure',
  'negative-pressure',
  'reservoir-pressure',
  'spacers',
  'spring-rate',
  'lever',
])
export type ShiftRole = z.infer<typeof ShiftRole>

/** How far one dial is from where it stands on the base, in its canonical unit (adjuster.ts). */
export const ProfileShift = z.strictObject({
  end: End,
  role: ShiftRole,
  by: z
    .number()
    .finite()
    .refine((by) => by !== 0, { error: 'A shift of nothing is none.' }),
})
export type ProfileShift = z.infer<typeof ProfileShift>

/** A difference from a base, for any base: "wet: 4 psi softer in front, both rebounds a click faster". */
export const Profile = z
  .strictObject({
    id: Id,
    version: Version,
    name: Name,
    purposes: z.array(Purpose).max(Purpose.options.length),
    shifts: z.array(ProfileShift).min(1, 'A profile shifts at least one dial.').max(24),
    /** What it was taken from: "Wet roots, October beside Home loop". */
    from: z.string().trim().max(200),
    note: Note,
    by: z.string().trim().max(80),
    madeAt: Instant,
  })
  .refine((p) => new Set(p.shifts.map((s) => `${s.end} ${s.role}`)).size === p.shifts.length, {
    error: 'A dial is shifted twice.',
    path: ['shifts'],
  })
export type Profile = z.infer<typeof Profile>
