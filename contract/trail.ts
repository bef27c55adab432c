import { z } from 'zod'
import { Id, Name, Note, Version } from './common.ts'

export const SectionKind = z.enum([
  'smooth',
  'roots',
  'braking-bumps',
  'berms',
  'drop',
  'jump',
  'g-out',
  'flat-turn',
  'square-edges',
  'rollers',
  'climb',
  'flat-out',
  // A whole trail in one section: nothing follows from its ground.
  'mixed',
])
export type SectionKind = z.infer<typeof SectionKind>

export const TrailSection = z.strictObject({
  id: Id,
  name: Name,
  kind: SectionKind,
  /** Null where nobody has said how long it is. */
  lengthM: z.number().min(1, 'A section is at least 1 m long.').max(10000).nullable(),
  /** How big its features and how rough its ground are, 1 = usual. */
  severity: z
    .number()
    .min(0.2, 'Severity goes from 0.2 to 2.5; 1 is usual.')
    .max(2.5, 'Severity goes from 0.2 to 2.5; 1 is usual.')
    .default(1),
})
export type TrailSection = z.infer<typeof TrailSection>

/** Where a section begins, or the last one ends, on the ground. */
export const TrailGate = z.strictObject({
  at: z.union([Id, z.literal('finish')]),
  latitudeDeg: z.number().min(-90).max(90),
  longitudeDeg: z.number().min(-180).max(180),
})
export type TrailGate = z.infer<typeof TrailGate>

export const Trail = z.strictObject({
  id: Id,
  version: Version,
  name: Name,
  place: z.string().trim().max(80),
  sections: z.array(TrailSection).min(1, 'Name at least one section of the trail.').max(24),
  /** Taken from a run with positions whose sections somebody placed; runs after it find theirs by them. */
  gates: z.array(TrailGate).max(25).default([]),
  note: Note,
})
export type Trail = z.infer<typeof Trail>
