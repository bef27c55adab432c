import { blob, index, integer, primaryKey, sqliteTable, sqliteView, text } from 'drizzle-orm/sqlite-core'
import type { Role } from '#contract/access'
import type { Baseline } from '#contract/baseline'
import type { BundleHead } from '#contract/bundle'
import type { Bench } from '#contract/bench'
import type { Bike } from '#contract/bike'
import type { Gauge, ServiceEntry, StockItem } from '#contract/care'
import type { TrailDay } from '#contract/day'
import type { KeptSetup } from '#contract/kept'
import type { PadReport } from '#contract/pad'
import type { Profile } from '#contract/profile'
import type { Letterhead } from '#contract/letterhead'
import type { ProposalRecord } from '#contract/proposal'
import type { ImportMapping, Recording } from '#contract/recording'
import type { Became } from '#contract/data'
import type { Rider } from '#contract/rider'
import type { Feel, Run } from '#contract/run'
import type { Setup } from '#contract/setup'
import type { Tent, TentHour, TentNote, TentRider } from '#contract/tent'
import type { Trail } from '#contract/trail'
import type { SuspensionUnit } from '#contract/unit'

/**
 * Keys, versions and what is looked up are columns; the rest of a record is its contract form as JSON in `body`.
 * Why: docs/adr/0003-records-as-documents.md.
 */
const editable = {
  version: integer('version').notNull(),
  deletedAt: text('deleted_at'),
}

export const riders = sqliteTable('riders', {
  id: text('id').primaryKey(),
  ...editable,
  body: text('body', { mode: 'json' }).$type<Rider>().notNull(),
})

export const units = sqliteTable('units', {
  id: text('id').primaryKey(),
  ...editable,
  body: text('body', { mode: 'json' }).$type<SuspensionUnit>().notNull(),
})

export const bikes = sqliteTable('bikes', {
  id: text('id').primaryKey(),
  ...editable,
  riderId: text('rider_id')
    .notNull()
    .references(() => riders.id),
  frontUnitId: text('front_unit_id').references(() => units.id),
  rearUnitId: text('rear_unit_id').references(() => units.id),
  /** The one pointer to what is on the bike now. No foreign key: setups refer to bikes. */
  currentSetupId: text('current_setup_id'),
  body: text('body', { mode: 'json' }).$type<Bike>().notNull(),
})

export const trails = sqliteTable('trails', {
  id: text('id').primaryKey(),
  ...editable,
  body: text('body', { mode: 'json' }).$type<Trail>().notNull(),
})

export const gauges = sqliteTable('gauges', {
  id: text('id').primaryKey(),
  ...editable,
  body: text('body', { mode: 'json' }).$type<Gauge>().notNull(),
})

export const stock = sqliteTable('stock', {
  id: text('id').primaryKey(),
  ...editable,
  body: text('body', { mode: 'json' }).$type<StockItem>().notNull(),
})

export const services = sqliteTable(
  'services',
  {
    id: text('id').primaryKey(),
    ...editable,
    bikeId: text('bike_id')
      .notNull()
      .references(() => bikes.id),
    date: text('date').notNull(),
    body: text('body', { mode: 'json' }).$type<ServiceEntry>().notNull(),
  },
  (t) => [index('services_by_bike').on(t.bikeId, t.date)],
)

export const baselines = sqliteTable(
  'baselines',
  {
    id: text('id').primaryKey(),
    ...editable,
    bikeId: text('bike_id')
      .notNull()
      .references(() => bikes.id),
    body: text('body', { mode: 'json' }).$type<Baseline>().notNull(),
  },
  (t) => [index('baselines_by_bike').on(t.bikeId)],
)

export const benches = sqliteTable(
  'benches',
  {
    id: text('id').primaryKey(),
    ...editable,
    bikeId: text('bike_id')
      .notNull()
      .references(() => bikes.id),
    startedAt: text('started_at').notNull(),
    body: text('body', { mode: 'json' }).$type<Bench>().notNull(),
  },
  (t) => [index('benches_by_bike').on(t.bikeId, t.startedAt)],
)

export const setups = sqliteTable(
  'setups',
  {
    /** Order of saving; clocks of two devices may disagree. */
    seq: integer('seq').primaryKey({ autoIncrement: true }),
    id: text('id').notNull().unique(),
    bikeId: text('bike_id')
      .notNull()
      .references(() => bikes.id),
    parentId: text('parent_id'),
    dayId: text('day_id'),
    /** A wish: the pointer of the bike never leads to it. */
    wanted: integer('wanted', { mode: 'boolean' }).notNull().default(false),
    deletedAt: text('deleted_at'),
    body: text('body', { mode: 'json' }).$type<Setup>().notNull(),
  },
  (t) => [index('setups_by_bike').on(t.bikeId), index('setups_by_day').on(t.dayId)],
)

/** Setups that somebody keeps by a name; the id is the setup's own. */
export const kept = sqliteTable(
  'kept',
  {
    id: text('id').primaryKey(),
    ...editable,
    bikeId: text('bike_id')
      .notNull()
      .references(() => bikes.id),
    body: text('body', { mode: 'json' }).$type<KeptSetup>().notNull(),
  },
  (t) => [index('kept_by_bike').on(t.bikeId)],
)

export const profiles = sqliteTable('profiles', {
  id: text('id').primaryKey(),
  ...editable,
  body: text('body', { mode: 'json' }).$type<Profile>().notNull(),
})

export const letterheads = sqliteTable('letterheads', {
  id: text('id').primaryKey(),
  version: integer('version').notNull(),
  body: text('body', { mode: 'json' }).$type<Letterhead>().notNull(),
})

export const days = sqliteTable(
  'days',
  {
    id: text('id').primaryKey(),
    ...editable,
    date: text('date').notNull(),
    riderId: text('rider_id')
      .notNull()
      .references(() => riders.id),
    bikeId: text('bike_id')
      .notNull()
      .references(() => bikes.id),
    trailId: text('trail_id')
      .notNull()
      .references(() => trails.id),
    startSetupId: text('start_setup_id')
      .notNull()
      .references(() => setups.id),
    body: text('body', { mode: 'json' }).$type<TrailDay>().notNull(),
  },
  (t) => [index('days_by_date').on(t.date), index('days_by_bike').on(t.bikeId)],
)

export const runs = sqliteTable(
  'runs',
  {
    id: text('id').primaryKey(),
    ...editable,
    dayId: text('day_id')
      .notNull()
      .references(() => days.id),
    setupId: text('setup_id')
      .notNull()
      .references(() => setups.id),
    startedAt: text('started_at').notNull(),
    body: text('body', { mode: 'json' }).$type<Run>().notNull(),
  },
  (t) => [index('runs_by_day').on(t.dayId, t.startedAt)],
)

export const feels = sqliteTable('feels', {
  runId: text('run_id')
    .primaryKey()
    .references(() => runs.id),
  version: integer('version').notNull(),
  body: text('body', { mode: 'json' }).$type<Feel>().notNull(),
})

export const proposals = sqliteTable(
  'proposals',
  {
    id: text('id').primaryKey(),
    ...editable,
    dayId: text('day_id')
      .notNull()
      .references(() => days.id),
    body: text('body', { mode: 'json' }).$type<ProposalRecord>().notNull(),
  },
  (t) => [index('proposals_by_day').on(t.dayId)],
)

export const recordings = sqliteTable(
  'recordings',
  {
    id: text('id').primaryKey(),
    deletedAt: text('deleted_at'),
    runId: text('run_id')
      .notNull()
      .references(() => runs.id),
    /** Of the first file's bytes: the same file twice is asked about. */
    sha256: text('sha256').notNull().default(''),
    body: text('body', { mode: 'json' }).$type<Recording>().notNull(),
  },
  (t) => [index('recordings_by_run').on(t.runId), index('recordings_by_sha').on(t.sha256)],
)

/** Compressed pieces of about a megabyte of a cleaned channel; `part` is its name. */
export const recordingChunks = sqliteTable(
  'recording_chunks',
  {
    recordingId: text('recording_id')
      .notNull()
      .references(() => recordings.id),
    part: text('part').notNull(),
    seq: integer('seq').notNull(),
    bytes: blob('bytes', { mode: 'buffer' }).notNull(),
  },
  (t) => [primaryKey({ columns: [t.recordingId, t.part, t.seq] })],
)

/** Sensor files as they came, in such pieces: each once, whatever it was put on. A trigger takes away what nothing refers to. */
export const originalChunks = sqliteTable(
  'original_chunks',
  {
    sha256: text('sha256').notNull(),
    seq: integer('seq').notNull(),
    bytes: blob('bytes', { mode: 'buffer' }).notNull(),
  },
  (t) => [primaryKey({ columns: [t.sha256, t.seq] })],
)

/** Which file is part 'original', or 'original:' and the id of an added file, of a recording. */
export const recordingOriginals = sqliteTable(
  'recording_originals',
  {
    recordingId: text('recording_id')
      .notNull()
      .references(() => recordings.id),
    part: text('part').notNull(),
    sha256: text('sha256').notNull(),
  },
  (t) => [primaryKey({ columns: [t.recordingId, t.part] }), index('recording_originals_by_sha').on(t.sha256)],
)

/** Channels and files alike, by recording and part. */
export const recordingParts = sqliteView('recording_parts', {
  recordingId: text('recording_id').notNull(),
  part: text('part').notNull(),
  seq: integer('seq').notNull(),
  bytes: blob('bytes', { mode: 'buffer' }).notNull(),
}).existing()

export const mappings = sqliteTable('mappings', {
  fingerprint: text('fingerprint').primaryKey(),
  body: text('body', { mode: 'json' }).$type<ImportMapping>().notNull(),
})

export const tents = sqliteTable('tents', {
  id: text('id').primaryKey(),
  ...editable,
  date: text('date').notNull(),
  body: text('body', { mode: 'json' }).$type<Tent>().notNull(),
})

const inTent = {
  id: text('id').primaryKey(),
  ...editable,
  tentId: text('tent_id')
    .notNull()
    .references(() => tents.id),
}

/** Goes by the id of the day. */
export const tentRiders = sqliteTable(
  'tent_riders',
  { ...inTent, body: text('body', { mode: 'json' }).$type<TentRider>().notNull() },
  (t) => [index('tent_riders_by_tent').on(t.tentId)],
)

export const tentHours = sqliteTable(
  'tent_hours',
  {
    ...inTent,
    at: text('at').notNull(),
    body: text('body', { mode: 'json' }).$type<TentHour>().notNull(),
  },
  (t) => [index('tent_hours_by_tent').on(t.tentId, t.at)],
)

export const tentNotes = sqliteTable(
  'tent_notes',
  {
    ...inTent,
    at: text('at').notNull(),
    body: text('body', { mode: 'json' }).$type<TentNote>().notNull(),
  },
  (t) => [index('tent_notes_by_tent').on(t.tentId, t.at)],
)

/** The owner's lock; one row. Only hashes: neither the passphrase nor the code can be read out of the file. */
export const locks = sqliteTable('locks', {
  id: integer('id').primaryKey(),
  passphrase: text('passphrase').notNull(),
  recovery: text('recovery').notNull(),
  setAt: text('set_at').notNull(),
})

/** Devices that are signed in, by the hash of their token. */
export const sessions = sqliteTable('sessions', {
  hash: text('hash').primaryKey(),
  id: text('id').notNull().unique(),
  role: text('role').$type<Role>().notNull(),
  tentId: text('tent_id'),
  device: text('device').notNull(),
  createdAt: text('created_at').notNull(),
  lastSeenAt: text('last_seen_at').notNull(),
  expiresAt: text('expires_at').notNull(),
})

/** Ways in for one other device, by the hash of their token; gone once used. */
export const passes = sqliteTable('passes', {
  hash: text('hash').primaryKey(),
  id: text('id').notNull().unique(),
  role: text('role').$type<'coach' | 'wall'>().notNull(),
  name: text('name').notNull(),
  tentId: text('tent_id'),
  expiresAt: text('expires_at').notNull(),
})

/** Tries at the door; the last few hundred. */
export const attempts = sqliteTable('attempts', {
  seq: integer('seq').primaryKey({ autoIncrement: true }),
  at: text('at').notNull(),
  from: text('from').notNull(),
  what: text('what').$type<'passphrase' | 'recovery' | 'setup' | 'pass'>().notNull(),
  opened: integer('opened', { mode: 'boolean' }).notNull(),
})

/** The link of a rider's phone, by the hash of its token: one for each rider of a tent. */
export const pads = sqliteTable('pads', {
  hash: text('hash').primaryKey(),
  dayId: text('day_id')
    .notNull()
    .unique()
    .references(() => days.id),
  tentId: text('tent_id')
    .notNull()
    .references(() => tents.id),
  createdAt: text('created_at').notNull(),
  expiresAt: text('expires_at').notNull(),
  lastUsedAt: text('last_used_at'),
})

/** What riders said on their phones; stays when the link is gone. */
export const padReports = sqliteTable(
  'pad_reports',
  {
    id: text('id').primaryKey(),
    dayId: text('day_id')
      .notNull()
      .references(() => days.id),
    saidAt: text('said_at').notNull(),
    takenFor: text('taken_for').references(() => runs.id),
    droppedAt: text('dropped_at'),
    body: text('body', { mode: 'json' }).$type<PadReport>().notNull(),
  },
  (t) => [index('pad_reports_by_day').on(t.dayId)],
)

export const voices = sqliteTable('voices', {
  id: text('id').primaryKey(),
  dayId: text('day_id')
    .notNull()
    .references(() => days.id),
  cameAt: text('came_at').notNull(),
  bytes: blob('bytes', { mode: 'buffer' }).notNull(),
})

/** Records that could not be read any more, as they lay in the file, and what became of them. */
export const damaged = sqliteTable(
  'damaged',
  {
    kind: text('kind').notNull(),
    id: text('id').notNull(),
    foundAt: text('found_at').notNull(),
    became: text('became').$type<Became>().notNull(),
    /** UTC; of which safe copy it was taken, when it was. */
    copiedAt: text('copied_at'),
    bytes: blob('bytes', { mode: 'buffer' }).notNull(),
  },
  (t) => [primaryKey({ columns: [t.kind, t.id, t.foundAt] })],
)

/** Bundles that were brought in and can be taken back. */
export const imports = sqliteTable('imports', {
  id: text('id').primaryKey(),
  at: text('at').notNull(),
  head: text('head', { mode: 'json' }).$type<BundleHead>().notNull(),
  fresh: integer('fresh').notNull(),
  replaced: integer('replaced').notNull(),
})

/** What came with each, and how it stood then: only what is still so can be taken back. */
export const importRows = sqliteTable(
  'import_rows',
  {
    importId: text('import_id')
      .notNull()
      .references(() => imports.id),
    kind: text('kind').notNull(),
    key: text('key').notNull(),
    /** The row whose place it took, as JSON; null: it was new. */
    before: text('before'),
    version: integer('version'),
    deletedAt: text('deleted_at'),
    pointer: text('pointer'),
  },
  (t) => [primaryKey({ columns: [t.importId, t.kind, t.key] })],
)
