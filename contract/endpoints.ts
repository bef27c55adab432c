import { z } from 'zod'
import {
  Access,
  AccessBook,
  EnterByPass,
  FirstLock,
  GivenPass,
  NewPass,
  NewPassphrase,
  Recovery,
  RecoveryCode,
  SignIn,
} from './access.ts'
import { Baseline } from './baseline.ts'
import { Bench } from './bench.ts'
import { BundleChoices, BundleLook, BundleOrder, Import, MadeBundle } from './bundle.ts'
import { Bike } from './bike.ts'
import { BikeSetups, NotedSetups } from './bikeSetups.ts'
import { Erasure, ErasureReach } from './erasure.ts'
import { Gauge, ServiceEntry, StockItem } from './care.ts'
import { CalendarDay, Id, Instant, Name } from './common.ts'
import { CopyName, DataState, FreeRoom, PutBack, RoomFreed, SafeCopy } from './data.ts'
import { TrailDay } from './day.ts'
import { KeptSetup } from './kept.ts'
import { Letterhead } from './letterhead.ts'
import { LoggerAtHand } from './logger.ts'
import { GivenPadLink, KeptPadReport, PadView, SentPadReport, TakeReport } from './pad.ts'
import { ProposalRecord } from './proposal.ts'
import {
  AddedFileUpload,
  Recording,
  RecordingUpload,
  RememberedMapping,
  RiddenWay,
  SectionSpans,
} from './recording.ts'
import { Profile } from './profile.ts'
import { RunFigures } from './settingFigures.ts'
import { ChartPressure } from './chart.ts'
import { Rider, RiderCard } from './rider.ts'
import { Feel, Run } from './run.ts'
import { Setup } from './setup.ts'
import { Tent, TentBundle, TentHour, TentNote, TentRider } from './tent.ts'
import { Trail } from './trail.ts'
import { SuspensionUnit } from './unit.ts'

/**
 * The API as data: the server mounts it, the page calls it, the OpenAPI document is printed from it.
 * A new address is added here and in one server route file, nowhere else.
 */
export interface Endpoint<P extends z.ZodType, B extends z.ZodType, R extends z.ZodType> {
  method: 'get' | 'put' | 'delete'
  /** Hono style, below /api/v1. */
  path: string
  summary: string
  params: P
  body: B
  reply: R
}

const none = z.undefined()
const byId = z.strictObject({ id: Id })
const byCopy = z.strictObject({ name: CopyName })

function endpoint<P extends z.ZodType, B extends z.ZodType, R extends z.ZodType>(
  e: Endpoint<P, B, R>,
): Endpoint<P, B, R> {
  return e
}

function put<T extends z.ZodType>(path: string, schema: T, summary: string) {
  return endpoint({ method: 'put', path, summary, params: byId, body: schema, reply: schema })
}

function remove(path: string, summary: string) {
  return endpoint({ method: 'delete', path, summary, params: byId, body: none, reply: z.strictObject({}) })
}

function restore(path: string, summary: string) {
  return endpoint({ method: 'put', path, summary, params: byId, body: none, reply: z.strictObject({}) })
}

/** Everything the garage shows. */
export const Garage = z.strictObject({
  riders: z.array(Rider),
  bikes: z.array(Bike),
  units: z.array(SuspensionUnit),
  trails: z.array(Trail),
  currentSetups: z.array(Setup),
  /** Setups somebody wants on a bike and that nobody has turned yet, newest first. */
  wantedSetups: z.array(Setup),
  gauges: z.array(Gauge),
  stock: z.array(StockItem),
  services: z.array(ServiceEntry),
  baselines: z.array(Baseline),
  /** Setups that are kept by a name, of all bikes. */
  kept: z.array(KeptSetup),
  profiles: z.array(Profile),
})
export type Garage = z.infer<typeof Garage>

/** A record that was removed and can be brought back. */
export const ShelfItem = z.strictObject({
  kind: z.enum([
    'rider',
    'bike',
    'unit',
    'trail',
    'gauge',
    'stock',
    'service',
    'baseline',
    'kept',
    'profile',
    'bench',
    'tent',
    'tentRider',
    'tentHour',
    'tentNote',
    'day',
    'run',
    'recording',
    'setup',
  ]),
  id: Id,
  /** What a person calls it; empty where it goes by its time. */
  name: z.string(),
  /** The time by which it goes, to be said on the clock of whoever looks; null where it has a name. */
  at: Instant.nullable(),
  /** Whose it is, and from when. */
  about: z.string(),
  removedAt: Instant,
})
export type ShelfItem = z.infer<typeof ShelfItem>

/** A day in a line, for lists. */
export const DaySummary = z.strictObject({
  id: Id,
  date: CalendarDay,
  riderId: Id,
  riderName: Name,
  bikeId: Id,
  bikeName: Name,
  trailName: Name,
  runs: z.number().int(),
  countedRuns: z.number().int(),
  lastRating: z.number().nullable(),
  bestRating: z.number().nullable(),
  settled: z.boolean(),
})
export type DaySummary = z.infer<typeof DaySummary>

/** A whole day, enough for every screen below it. */
export const DayBundle = z.strictObject({
  day: TrailDay,
  rider: RiderCard,
  bike: Bike,
  units: z.array(SuspensionUnit),
  /** Main pressures that the units' own charts give for this rider. */
  ownCharts: z.array(ChartPressure),
  trail: Trail,
  /** Setups of the day, those its runs were ridden on, and what is on the bike now, in the order they were saved. */
  setups: z.array(Setup),
  runs: z.array(Run),
  feels: z.array(Feel),
  recordings: z.array(Recording),
  proposals: z.array(ProposalRecord),
  /** Whether it is the last day of its bike: only there can settings be changed. */
  latest: z.boolean(),
  /** The tent it is in, with that tent's log by the hour; null: in none. */
  tent: z
    .strictObject({ id: Id, hours: z.array(TentHour) })
    .nullable()
    .default(null),
})
export type DayBundle = z.infer<typeof DayBundle>

export const endpoints = {
  health: endpoint({
    method: 'get',
    path: '/health',
    summary: 'Whether the server and its data file are well',
    params: z.strictObject({}),
    body: none,
    reply: z.strictObject({ ok: z.boolean(), version: z.string() }),
  }),
  getData: endpoint({
    method: 'get',
    path: '/data',
    summary: 'What is kept, how large it is, and its safe copies',
    params: z.strictObject({}),
    body: none,
    reply: DataState,
  }),
  makeCopy: endpoint({
    method: 'put',
    path: '/data/copy',
    summary: 'Make a safe copy of the data file now, open it and check it',
    params: z.strictObject({}),
    body: none,
    reply: SafeCopy,
  }),
  cancelCopy: endpoint({
    method: 'delete',
    path: '/data/copy',
    summary: 'Give up the safe copy that is being made',
    params: z.strictObject({}),
    body: none,
    reply: z.strictObject({}),
  }),
  removeCopy: endpoint({
    method: 'delete',
    path: '/data/copies/:name',
    summary: 'Remove a safe copy',
    params: byCopy,
    body: none,
    reply: z.strictObject({}),
  }),
  makeBundle: endpoint({
    method: 'put',
    path: '/data/bundles/:id',
    summary: 'Write a bundle of everything, or of a rider, a bike, a day or a tent; then it can be fetched',
    params: byId,
    body: BundleOrder,
    reply: MadeBundle,
  }),
  cancelBundle: endpoint({
    method: 'delete',
    path: '/data/bundles',
    summary: 'Give up the bundle that is being written or read',
    params: z.strictObject({}),
    body: none,
    reply: z.strictObject({}),
  }),
  lookAtBundle: endpoint({
    method: 'put',
    path: '/data/arrivals/:id/look',
    summary:
      'Unpack a bundle whose bytes were sent before, check it, and tell what it would do; nothing is done',
    params: byId,
    body: none,
    reply: BundleLook,
  }),
  takeBundle: endpoint({
    method: 'put',
    path: '/data/arrivals/:id/take',
    summary: 'Bring in what was looked at, all of it or nothing',
    params: byId,
    body: BundleChoices,
    reply: Import,
  }),
  dropBundle: remove('/data/arrivals/:id', 'Let go of a bundle that was sent and not brought in'),
  takeBack: remove(
    '/data/imports/:id',
    'Take back what a bundle brought in, as long as nothing stands on it',
  ),
  freeRoom: endpoint({
    method: 'put',
    path: '/data/room',
    summary: 'Take removed recordings out of the data file for good and give their room back to the disk',
    params: z.strictObject({}),
    body: FreeRoom,
    reply: RoomFreed,
  }),
  getErasure: endpoint({
    method: 'get',
    path: '/riders/:id/erasure',
    summary: 'What would go for good with a rider',
    params: byId,
    body: none,
    reply: ErasureReach,
  }),
  eraseRider: endpoint({
    method: 'put',
    path: '/riders/:id/erasure',
    summary: 'Erase a rider with all that is theirs, or only who it was, out of the file; cannot be undone',
    params: byId,
    body: Erasure,
    reply: z.strictObject({}),
  }),
  putBack: endpoint({
    method: 'put',
    path: '/data/copies/:name/back',
    summary: 'Put a safe copy in the place of the data; the data of now is copied and set aside first',
    params: byCopy,
    body: none,
    reply: PutBack,
  }),
  getAccess: endpoint({
    method: 'get',
    path: '/access',
    summary: 'Whether there is a lock, and who this device is',
    params: z.strictObject({}),
    body: none,
    reply: Access,
  }),
  setLock: endpoint({
    method: 'put',
    path: '/access/lock',
    summary: 'Lock the door for the first time, with the code that the server printed; signs in as the owner',
    params: z.strictObject({}),
    body: FirstLock,
    reply: RecoveryCode,
  }),
  signIn: endpoint({
    method: 'put',
    path: '/access/session',
    summary: 'Sign in as the owner',
    params: z.strictObject({}),
    body: SignIn,
    reply: Access,
  }),
  signOut: endpoint({
    method: 'delete',
    path: '/access/session',
    summary: 'Sign this device out',
    params: z.strictObject({}),
    body: none,
    reply: z.strictObject({}),
  }),
  recover: endpoint({
    method: 'put',
    path: '/access/recovery',
    summary: 'A new passphrase by the recovery code; every device is signed out, this one is signed in',
    params: z.strictObject({}),
    body: Recovery,
    reply: RecoveryCode,
  }),
  enter: endpoint({
    method: 'put',
    path: '/access/enter',
    summary: 'Sign in by a pass, which is used up',
    params: z.strictObject({}),
    body: EnterByPass,
    reply: Access,
  }),
  getAccessBook: endpoint({
    method: 'get',
    path: '/access/book',
    summary: 'Devices that are signed in, passes that wait, and tries at the door',
    params: z.strictObject({}),
    body: none,
    reply: AccessBook,
  }),
  changePassphrase: endpoint({
    method: 'put',
    path: '/access/passphrase',
    summary: 'Another passphrase and recovery code; every other device is signed out',
    params: z.strictObject({}),
    body: NewPassphrase,
    reply: RecoveryCode,
  }),
  endSession: remove('/access/sessions/:id', 'Sign a device out'),
  endSessions: endpoint({
    method: 'delete',
    path: '/access/sessions',
    summary: 'Sign every device out, this one too, and take back every pass',
    params: z.strictObject({}),
    body: none,
    reply: z.strictObject({}),
  }),
  givePass: endpoint({
    method: 'put',
    path: '/access/passes/:id',
    summary: 'A way in for one other device',
    params: byId,
    body: NewPass,
    reply: GivenPass,
  }),
  takeBackPass: remove('/access/passes/:id', 'Take a pass back'),
  getPad: endpoint({
    method: 'get',
    path: '/pad',
    summary: 'What a rider’s phone is shown; the link’s token as Authorization: Bearer',
    params: z.strictObject({}),
    body: none,
    reply: PadView,
  }),
  putPadReport: endpoint({
    method: 'put',
    path: '/pad/reports/:id',
    summary: 'What a rider says on their phone about a run',
    params: byId,
    body: SentPadReport,
    reply: PadView,
  }),
  givePadLink: endpoint({
    method: 'put',
    path: '/tent-riders/:id/pad',
    summary: 'A link for the phone of a rider in a tent; an earlier one ends',
    params: byId,
    body: z.strictObject({}),
    reply: GivenPadLink,
  }),
  endPadLink: remove('/tent-riders/:id/pad', 'End the link of a rider’s phone'),
  handOverReport: endpoint({
    method: 'put',
    path: '/tent-riders/:id/reports/:reportId',
    summary: 'A report that a rider’s phone handed over by a file or a code',
    params: z.strictObject({ id: Id, reportId: Id }),
    body: SentPadReport,
    reply: KeptPadReport,
  }),
  takePadReport: endpoint({
    method: 'put',
    path: '/pad-reports/:id',
    summary: 'Say which run a rider’s report is for, or that it is for none',
    params: byId,
    body: TakeReport,
    reply: KeptPadReport,
  }),
  getGarage: endpoint({
    method: 'get',
    path: '/garage',
    summary: 'Riders, bikes, units and trails',
    params: z.strictObject({}),
    body: none,
    reply: Garage,
  }),
  putRider: put('/riders/:id', Rider, 'Save a rider'),
  deleteRider: remove('/riders/:id', 'Put a rider away (can be undone)'),
  restoreRider: restore('/riders/:id/restore', 'Bring a rider back'),
  putUnit: put('/units/:id', SuspensionUnit, 'Save a suspension unit with its adjusters'),
  deleteUnit: remove('/units/:id', 'Put a unit away (can be undone)'),
  restoreUnit: restore('/units/:id/restore', 'Bring a unit back'),
  putBike: put('/bikes/:id', Bike, 'Save a bike'),
  deleteBike: remove('/bikes/:id', 'Put a bike away (can be undone)'),
  restoreBike: restore('/bikes/:id/restore', 'Bring a bike back'),
  putTrail: put('/trails/:id', Trail, 'Save a trail with its named sections'),
  deleteTrail: remove('/trails/:id', 'Put a trail away (can be undone)'),
  restoreTrail: restore('/trails/:id/restore', 'Bring a trail back'),
  putSetup: put(
    '/setups/:id',
    Setup,
    'Save an immutable setup; unless it is wanted only, it becomes what is on the bike now',
  ),
  deleteSetup: remove(
    '/setups/:id',
    'Remove a setup that was wanted or noted, never turned here (can be undone)',
  ),
  restoreSetup: restore('/setups/:id/restore', 'Bring it back'),
  putNoted: endpoint({
    method: 'put',
    path: '/bikes/:id/noted',
    summary:
      'Keep settings of before, from somebody’s own table; all of them or none, and nothing on the bike turns',
    params: byId,
    body: NotedSetups,
    reply: z.strictObject({}),
  }),
  getShelf: endpoint({
    method: 'get',
    path: '/shelf',
    summary: 'What was removed and can be brought back, newest first',
    params: z.strictObject({}),
    body: none,
    reply: z.array(ShelfItem),
  }),
  putGauge: put('/gauges/:id', Gauge, 'Save a pump gauge with its offset'),
  deleteGauge: remove('/gauges/:id', 'Put a gauge away (can be undone)'),
  restoreGauge: restore('/gauges/:id/restore', 'Bring a gauge back'),
  putStockItem: put('/stock/:id', StockItem, 'Save springs or spacers on the shelf'),
  deleteStockItem: remove('/stock/:id', 'Take an item off the shelf (can be undone)'),
  restoreStockItem: restore('/stock/:id/restore', 'Put an item back on the shelf'),
  putService: put('/services/:id', ServiceEntry, 'Save a line of the service log'),
  deleteService: remove('/services/:id', 'Take a line off the service log (can be undone)'),
  restoreService: restore('/services/:id/restore', 'Bring a line of the service log back'),
  putBaseline: put('/baselines/:id', Baseline, 'Save a recommended starting point'),
  deleteBaseline: remove('/baselines/:id', 'Put a starting point away (can be undone)'),
  restoreBaseline: restore('/baselines/:id/restore', 'Bring a starting point back'),
  getLetterhead: endpoint({
    method: 'get',
    path: '/letterhead',
    summary: 'The line and the mark at the top of cards',
    params: z.strictObject({}),
    body: none,
    reply: Letterhead,
  }),
  putLetterhead: put('/letterheads/:id', Letterhead, 'Save the line and the mark at the top of cards'),
  listBenches: endpoint({
    method: 'get',
    path: '/bikes/:id/benches',
    summary: 'Times on the bench of a bike, newest first',
    params: byId,
    body: none,
    reply: z.array(Bench),
  }),
  putBench: put('/benches/:id', Bench, 'Save a time on the bench'),
  deleteBench: remove('/benches/:id', 'Put a time on the bench away (can be undone)'),
  restoreBench: restore('/benches/:id/restore', 'Bring a time on the bench back'),
  getBikeSetups: endpoint({
    method: 'get',
    path: '/bikes/:id/setups',
    summary: 'Every setup a bike has had, what each was ridden on, and which are kept',
    params: byId,
    body: none,
    reply: BikeSetups,
  }),
  getBikeFigures: endpoint({
    method: 'get',
    path: '/bikes/:id/figures',
    summary: 'What recordings say of a bike, a few figures for each counted run',
    params: byId,
    body: none,
    reply: z.array(RunFigures),
  }),
  putKept: put(
    '/kept/:id',
    KeptSetup,
    'Keep a setup by a name, with what it is for and what it was found in',
  ),
  deleteKept: remove('/kept/:id', 'Keep a setup no longer (can be undone)'),
  restoreKept: restore('/kept/:id/restore', 'Keep it again'),
  putProfile: put('/profiles/:id', Profile, 'Keep a difference of two setups for any base'),
  deleteProfile: remove('/profiles/:id', 'Put a profile away (can be undone)'),
  restoreProfile: restore('/profiles/:id/restore', 'Bring a profile back'),
  listTents: endpoint({
    method: 'get',
    path: '/tents',
    summary: 'All tents, newest first',
    params: z.strictObject({}),
    body: none,
    reply: z.array(Tent),
  }),
  getTent: endpoint({
    method: 'get',
    path: '/tents/:id',
    summary: 'A tent with its riders, its log by the hour and what was decided',
    params: byId,
    body: none,
    reply: TentBundle,
  }),
  putTent: put('/tents/:id', Tent, 'Save a tent: date, trail, schedule'),
  deleteTent: remove('/tents/:id', 'Put a tent away; its riders’ days stay (can be undone)'),
  restoreTent: restore('/tents/:id/restore', 'Bring a tent back'),
  putTentRider: put(
    '/tent-riders/:id',
    TentRider,
    'Take a rider’s day into a tent, or say where the rider is',
  ),
  deleteTentRider: remove('/tent-riders/:id', 'Take a rider out of a tent; the day stays (can be undone)'),
  restoreTentRider: restore('/tent-riders/:id/restore', 'Take a rider in again'),
  putTentHour: put('/tent-hours/:id', TentHour, 'Save a line of the log by the hour'),
  deleteTentHour: remove('/tent-hours/:id', 'Put a line of the log away (can be undone)'),
  restoreTentHour: restore('/tent-hours/:id/restore', 'Bring a line of the log back'),
  putTentNote: put('/tent-notes/:id', TentNote, 'Save what was decided for a rider and is no turn'),
  deleteTentNote: remove('/tent-notes/:id', 'Put a decision away (can be undone)'),
  restoreTentNote: restore('/tent-notes/:id/restore', 'Bring a decision back'),
  listDays: endpoint({
    method: 'get',
    path: '/days',
    summary: 'All trail days, newest first',
    params: z.strictObject({}),
    body: none,
    reply: z.array(DaySummary),
  }),
  getDay: endpoint({
    method: 'get',
    path: '/days/:id',
    summary: 'A whole day with its runs, feel and recordings',
    params: byId,
    body: none,
    reply: DayBundle,
  }),
  getEarlierDays: endpoint({
    method: 'get',
    path: '/days/:id/earlier',
    summary:
      'The days before, of the same rider on the same bike, that were ridden; newest first, at most three',
    params: byId,
    body: none,
    reply: z.array(DayBundle),
  }),
  putDay: put('/days/:id', TrailDay, 'Save a trail day'),
  deleteDay: remove('/days/:id', 'Put a day away (can be undone)'),
  restoreDay: restore('/days/:id/restore', 'Bring a day back'),
  putRun: put('/runs/:id', Run, 'Save a run'),
  deleteRun: remove('/runs/:id', 'Take a run off the day (can be undone)'),
  restoreRun: restore('/runs/:id/restore', 'Bring a run back'),
  putFeel: endpoint({
    method: 'put',
    path: '/runs/:id/feel',
    summary: 'Save how a run felt',
    params: byId,
    body: Feel,
    reply: Feel,
  }),
  putProposal: put('/proposals/:id', ProposalRecord, 'Keep a proposal and what was done with it'),
  getMapping: endpoint({
    method: 'get',
    path: '/mappings/:fingerprint',
    summary: 'The column mapping remembered for a header line',
    params: z.strictObject({ fingerprint: RememberedMapping.shape.fingerprint }),
    body: none,
    reply: RememberedMapping.nullable(),
  }),
  putRecording: endpoint({
    method: 'put',
    path: '/recordings/:id',
    summary: 'Read a sensor file whose bytes were sent before, onto a run',
    params: byId,
    body: RecordingUpload,
    reply: Recording,
  }),
  addFile: endpoint({
    method: 'put',
    path: '/recordings/:id/files/:fileId',
    summary: 'Add a further file whose bytes were sent before; the figures are made again',
    params: z.strictObject({ id: Id, fileId: Id }),
    body: AddedFileUpload,
    reply: Recording,
  }),
  placeSections: endpoint({
    method: 'put',
    path: '/recordings/:id/spans',
    summary: 'Place the sections of a recording by hand; an empty list lets them be placed again',
    params: byId,
    body: SectionSpans,
    reply: Recording,
  }),
  getWay: endpoint({
    method: 'get',
    path: '/recordings/:id/way',
    summary: 'Metres ridden by time, by distance or speed of a recording; null without both',
    params: byId,
    body: none,
    reply: RiddenWay.nullable(),
  }),
  dropFile: endpoint({
    method: 'delete',
    path: '/recordings/:id/files/:fileId',
    summary: 'Take a further file off a recording; its figures are made again',
    params: z.strictObject({ id: Id, fileId: Id }),
    body: none,
    reply: Recording,
  }),
  listLoggers: endpoint({
    method: 'get',
    path: '/loggers',
    summary: 'Loggers at hand, and who they are',
    params: z.strictObject({}),
    body: none,
    reply: z.array(LoggerAtHand),
  }),
  deleteRecording: remove('/recordings/:id', 'Take a recording off its run (can be undone)'),
  restoreRecording: restore('/recordings/:id/restore', 'Bring a recording back'),
} as const

/**
 * Addresses outside the table, since a body or reply is not JSON. The OpenAPI document prints them with the rest, and a
 * test holds both against the routes that are mounted.
 */
export const rawEndpoints = [
  ['put', '/uploads/:id', 'Send the bytes of a file; they wait to be read', 'application/octet-stream'],
  ['get', '/recordings/:id/original', 'The bytes as they came', 'application/octet-stream'],
  [
    'get',
    '/recordings/:id/files/:fileId/original',
    'The bytes of a further file as they came',
    'application/octet-stream',
  ],
  [
    'get',
    '/recordings/:id/channels',
    'Cleaned depth channels, little-endian Float32 (channels.ts)',
    'application/octet-stream',
  ],
  ['get', '/recordings/:id/channels.csv', 'Cleaned depth channels as CSV', 'text/csv'],
  ['get', '/recordings/:id/metrics.csv', 'Figures in long form as CSV', 'text/csv'],
  ['get', '/recordings/:id/metrics.json', 'All figures with histograms and spectra', 'application/json'],
  ['get', '/days/:id/runs.csv', 'Runs of a day as CSV (docs/file-formats.md)', 'text/csv'],
  ['get', '/days/:id/changes.csv', 'Changes of a day as CSV', 'text/csv'],
  [
    'get',
    '/days/:id/day.json',
    'A day as it is kept, without what follows from a weight',
    'application/json',
  ],
  ['get', '/bikes/:id/setups.csv', 'Setups of a bike as CSV', 'text/csv'],
  ['get', '/data/runs.csv', 'All runs as CSV', 'text/csv'],
  ['get', '/data/changes.csv', 'All changes as CSV', 'text/csv'],
  ['get', '/data/setups.csv', 'All setups as CSV', 'text/csv'],
  ['get', '/data/bundles/:id', 'A bundle that was written (docs/file-formats.md)', 'application/zip'],
  ['put', '/data/arrivals/:id', 'Send the bytes of a bundle; they wait to be looked at', 'application/zip'],
  ['get', '/data/copies/:name', 'A safe copy as it is: a whole data file', 'application/vnd.sqlite3'],
  ['get', '/bikes/:id/card.pdf', 'A setup as a card to print, with its code', 'application/pdf'],
  ['get', '/bikes/:id/card.json', 'The same as a file (card.ts)', 'application/json'],
  ['get', '/tents/:id/sheets.pdf', 'A page for a tent and one for each rider', 'application/pdf'],
  ['get', '/bikes/:id/sag-strip.pdf', 'The sag strip, 1:1', 'application/pdf'],
  ['put', '/pad/voices/:id', 'A spoken note of a rider’s phone', 'application/octet-stream'],
  ['get', '/voices/:id', 'A spoken note, to be played', 'audio/webm'],
  ['get', '/events', 'Server-sent events (live.ts)', 'text/event-stream'],
  ['all', '/loggers/:index/*', 'Hands on to a logger (docs/file-formats.md)', 'application/json'],
  ['get', '/openapi.json', 'This document', 'application/json'],
  ['get', '/docs', 'The API as a page to browse', 'text/html'],
] as const
