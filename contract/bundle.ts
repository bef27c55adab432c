import { z } from 'zod'
import { Id, Instant } from './common.ts'

/** What a bundle is of: all there is, or one of a kind with everything that it stands on. */
export const BundleScope = z.discriminatedUnion('kind', [
  z.strictObject({ kind: z.literal('everything') }),
  z.strictObject({ kind: z.enum(['rider', 'bike', 'day', 'tent']), id: Id }),
])
export type BundleScope = z.infer<typeof BundleScope>

/** What goes along only where it is asked for. */
export const BundleWith = z.strictObject({
  /** Body, kit and water of riders, and what was noted with them. */
  weights: z.boolean(),
  /** Spoken notes of riders' phones. */
  voices: z.boolean(),
  /** What was done inside forks and shocks, in words: their notes, and those of their services. */
  inside: z.boolean(),
})
export type BundleWith = z.infer<typeof BundleWith>

export const BundleOrder = z.strictObject({ scope: BundleScope, with: BundleWith })
export type BundleOrder = z.infer<typeof BundleOrder>

/** `bundle.json`, the first file of a bundle. */
export const BundleHead = z.strictObject({
  format: z.literal('wild-spring-bundle'),
  version: z.literal(1),
  /** The tables its records are rows of: the last migration, by name. */
  shape: z.string().max(80),
  /** Version of Wild Spring that wrote it. */
  by: z.string().max(40),
  madeAt: Instant,
  scope: z.strictObject({
    kind: z.enum(['everything', 'rider', 'bike', 'day', 'tent']),
    /** What it is of, in words. */
    name: z.string().max(200),
  }),
  with: BundleWith,
  /** Records of each kind. */
  counts: z.record(z.string().max(40), z.int().min(0)),
})
export type BundleHead = z.infer<typeof BundleHead>

/** A bundle that was written and waits to be fetched. */
export const MadeBundle = z.strictObject({
  id: Id,
  fileName: z.string(),
  bytes: z.int(),
  head: BundleHead,
})
export type MadeBundle = z.infer<typeof MadeBundle>

export const OursOrTheirs = z.enum(['ours', 'theirs'])
export type OursOrTheirs = z.infer<typeof OursOrTheirs>

/** A record of the bundle, by its kind and key. */
const RecordKey = z.strictObject({ kind: z.string().max(40), key: z.string().max(80) })

/** A record that is here and in the bundle, and not the same. */
export const DifferingRecord = RecordKey.extend({
  name: z.string(),
  about: z.string(),
  /** The fields that differ, and how they read here and there; at most twelve. */
  fields: z.array(z.strictObject({ path: z.string(), ours: z.string(), theirs: z.string() })).max(12),
  /** Further fields that differ. */
  more: z.int(),
})
export type DifferingRecord = z.infer<typeof DifferingRecord>

/** A rider, trail, unit or gauge of the bundle that goes by the name of one that is here under another id. */
export const LikeRecord = RecordKey.extend({
  name: z.string(),
  about: z.string(),
  /** Ours. */
  asKey: z.string(),
  asAbout: z.string(),
  /** Alike in everything that is said of them; a trail that is so is taken for ours unless somebody says otherwise. */
  isAlike: z.boolean(),
})
export type LikeRecord = z.infer<typeof LikeRecord>

/** What bringing a bundle in would do. Nothing has been done yet. */
export const BundleLook = z.strictObject({
  id: Id,
  head: BundleHead,
  kinds: z.array(z.strictObject({ kind: z.string(), fresh: z.int(), same: z.int(), differing: z.int() })),
  /** At most 300; what is chosen for all holds for the others. */
  differing: z.array(DifferingRecord).max(300),
  like: z.array(LikeRecord),
})
export type BundleLook = z.infer<typeof BundleLook>

/** What somebody chose who has seen what would be done. */
export const BundleChoices = z.strictObject({
  /** For every record that differs, except … */
  differing: OursOrTheirs,
  /** … these, for which the other holds. */
  except: z.array(RecordKey).max(300),
  /** Records of the bundle that are taken for one of ours. */
  taken: z.array(RecordKey.extend({ asKey: z.string().max(80) })).max(2000),
})
export type BundleChoices = z.infer<typeof BundleChoices>

/** A bundle that was brought in. */
export const Import = z.strictObject({
  id: Id,
  at: Instant,
  head: BundleHead,
  fresh: z.int(),
  replaced: z.int(),
})
export type Import = z.infer<typeof Import>
