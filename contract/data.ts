import { z } from 'zod'
import { Import } from './bundle.ts'
import { Instant } from './common.ts'

/** How many of each kind, without what was put away. */
export const DataCounts = z.strictObject({
  riders: z.int(),
  bikes: z.int(),
  days: z.int(),
  runs: z.int(),
  recordings: z.int(),
})
export type DataCounts = z.infer<typeof DataCounts>

/** File name of a safe copy: when it was made, UTC, and why. */
export const CopyName = z
  .string()
  .regex(/^wild-spring-\d{8}T\d{6}Z-(daily|by-hand|before-update|before-restore)\.sqlite$/, {
    error: 'That is not the name of a safe copy.',
  })

/** A copy of the whole data file that was opened and checked after it was made. */
export const SafeCopy = z.strictObject({
  name: CopyName,
  at: Instant,
  why: z.enum(['daily', 'by-hand', 'before-update', 'before-restore']),
  bytes: z.int(),
  /** What is in it; null: made by another version, or put there by hand. */
  counts: DataCounts.nullable(),
})
export type SafeCopy = z.infer<typeof SafeCopy>

/**
 * What became of a record whose bytes could not be read any more: letters that were none are marked; taken from a safe
 * copy; an empty one stands where others refer to it; left out.
 */
export const Became = z.enum(['marked', 'from-copy', 'emptied', 'left-out'])
export type Became = z.infer<typeof Became>

export const DamagedRecord = z.strictObject({
  kind: z.string(),
  id: z.string(),
  foundAt: Instant,
  became: Became,
  copiedAt: Instant.nullable(),
})
export type DamagedRecord = z.infer<typeof DamagedRecord>

/** What sensor files take in the data file, compressed, and what of it can go. */
export const RoomTaken = z.strictObject({
  /** Files as they came, each kept once. */
  files: z.int(),
  fileBytes: z.int(),
  /** What it would take besides, were each kept as often as it was put on a run. */
  sparedBytes: z.int(),
  /** Cleaned channels; they can be made again from the files. */
  channelBytes: z.int(),
  /** Recordings that were removed, by themselves or with their run or day, and what only they take. */
  removed: z.int(),
  removedBytes: z.int(),
  /** Room within the data file that nothing lies in. */
  emptyBytes: z.int(),
})
export type RoomTaken = z.infer<typeof RoomTaken>

/** Said by a person who was told of so many removed recordings. */
export const FreeRoom = z.strictObject({ removed: z.int().min(0) })
export const RoomFreed = z.strictObject({ freedBytes: z.int() })
export type RoomFreed = z.infer<typeof RoomFreed>

/** A copy that follows every save. */
export const Follows = z.strictObject({
  folder: z.string(),
  /** Why it does not, just now; null: it does. */
  fault: z.string().nullable(),
  /** When what was copied was last put together again and checked; null: not yet since it began. */
  checkedAt: Instant.nullable(),
})
export type Follows = z.infer<typeof Follows>

/** What is kept, where, and how safely. */
export const DataState = z.strictObject({
  counts: DataCounts,
  /** First day that is kept; null: none. */
  since: z.string().nullable(),
  file: z.string(),
  /** Address of the libSQL server that keeps the data, of which the file is a copy to read from; null: the file does. */
  keptAt: z.string().nullable(),
  fileBytes: z.int(),
  room: RoomTaken,
  copiesFolder: z.string(),
  /** Newest first. */
  copies: z.array(SafeCopy),
  /** null: none was asked for. */
  follows: Follows.nullable(),
  /** Room on the disk of the copies. */
  freeBytes: z.int(),
  /** What is under way, and how far, 0 to 1. */
  work: z.strictObject({ doing: z.string(), share: z.number() }).nullable(),
  /** The bundle that is being written or read, and how far. */
  carrying: z.strictObject({ doing: z.string(), share: z.number() }).nullable(),
  /** Bundles that were brought in, newest first. */
  imports: z.array(Import),
  /** Why the last copy that was due could not be made; null: it could. */
  fault: z.string().nullable(),
  /** Records that were found unreadable at a start, newest first; their bytes are kept. */
  damaged: z.array(DamagedRecord),
})
export type DataState = z.infer<typeof DataState>

/** What became of the data that was there before. */
export const PutBack = z.strictObject({
  /** Where it lies now. */
  setAside: z.string().nullable(),
  /** Whether passphrase and sign-ins stayed as they were; else those of the copy hold. */
  doorKept: z.boolean(),
})
export type PutBack = z.infer<typeof PutBack>
