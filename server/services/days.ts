import { and, asc, desc, eq, exists, inArray, isNull, lt, or, sql } from 'drizzle-orm'
import type { SQLiteColumn } from 'drizzle-orm/sqlite-core'
import type { DayBundle, DaySummary } from '#contract/endpoints'
import { TrailDay } from '#contract/day'
import { Rider, type RiderCard } from '#contract/rider'
import { SuspensionUnit } from '#contract/unit'
import type { ProposalRecord } from '#contract/proposal'
import type { Feel, Run } from '#contract/run'
import { standing } from '#core/setup/standing'
import { ownCharts } from '#core/spring/ownChart'
import type { Db, Store } from '../db/open.ts'
import { prepared } from '../db/prepared.ts'
import {
  bikes,
  days,
  feels,
  proposals,
  recordings,
  riders,
  runs,
  setups,
  trails,
  units,
} from '../db/schema.ts'
import { Refusal } from '../refusal.ts'
import { saveNewFeel, saveNewRun } from './firstSaves.ts'
import { withPointer } from './garage.ts'
import { mustExist, saveRecord } from './records.ts'
import { asKeptToday } from './recordings/kept.ts'
import { latestDayId } from './setups.ts'
import { tentWithLog } from './tentLog.ts'

/** Every day by what it is known by, newest first. Of a record only what is told is read: there may be thousands. */
export async function listDays({ db }: Store): Promise<DaySummary[]> {
  const nameIn = (body: SQLiteColumn) => sql<string>`json_extract(${body}, '$.name')`
  const rows = await db
    .select({
      id: days.id,
      date: days.date,
      riderId: days.riderId,
      riderName: nameIn(riders.body),
      bikeId: days.bikeId,
      bikeName: nameIn(bikes.body),
      trailName: nameIn(trails.body),
      settledSetupId: sql<string | null>`json_extract(${days.body}, '$.settledSetupId')`,
    })
    .from(days)
    .innerJoin(riders, eq(days.riderId, riders.id))
    .innerJoin(bikes, eq(days.bikeId, bikes.id))
    .innerJoin(trails, eq(days.trailId, trails.id))
    .where(isNull(days.deletedAt))
    .orderBy(desc(days.date), desc(days.id))
  const ridden = await riddenByDay(db)
  return rows.map(({ settledSetupId, ...day }) => {
    const mine = ridden.get(day.id) ?? []
    const counted = mine.filter((x) => x.kind === 'counted')
    const ratings = counted.map((x) => x.rating).filter((x) => x !== null)
    return {
      ...day,
      runs: mine.length,
      countedRuns: counted.length,
      lastRating: ratings.at(-1) ?? null,
      bestRating: ratings.length ? Math.max(...ratings) : null,
      settled: settledSetupId !== null,
    }
  })
}

/** Runs of every day in the order they were ridden, as little of each as the list needs. */
async function riddenByDay(db: Store['db']) {
  const rows = await db
    .select({
      dayId: runs.dayId,
      kind: sql<Run['kind']>`json_extract(${runs.body}, '$.kind')`,
      rating: sql<number | null>`json_extract(${feels.body}, '$.rating')`,
    })
    .from(runs)
    .leftJoin(feels, eq(feels.runId, runs.id))
    .where(isNull(runs.deletedAt))
    .orderBy(asc(runs.startedAt))
  const byDay = new Map<string, typeof rows>()
  for (const row of rows) {
    const list = byDay.get(row.dayId)
    if (list) list.push(row)
    else byDay.set(row.dayId, [row])
  }
  return byDay
}

/** @throws Refusal 'record.not-found' */
async function mustHaveDay({ db }: Store, id: string) {
  const [day] = await db
    .select()
    .from(days)
    .where(and(eq(days.id, id), isNull(days.deletedAt)))
  if (!day) throw new Refusal('record.not-found', 'There is no such day.')
  return day
}

/** @throws Refusal 'record.not-found' */
export async function readDay(store: Store, id: string): Promise<DayBundle> {
  const { db } = store
  const day = await mustHaveDay(store, id)
  const [rider] = await db.select().from(riders).where(eq(riders.id, day.riderId))
  const [bike] = await db.select().from(bikes).where(eq(bikes.id, day.bikeId))
  const [trail] = await db.select().from(trails).where(eq(trails.id, day.trailId))
  const runRows = await db
    .select()
    .from(runs)
    .where(and(eq(runs.dayId, id), isNull(runs.deletedAt)))
    .orderBy(asc(runs.startedAt), asc(runs.id))
  const runIds = runRows.map((r) => r.id)
  // Runs may stand on setups of earlier days, so ask by use as well as by day.
  // What is on the bike now is part of every day of it: a past day says how it differs.
  const present = bike.currentSetupId === null ? [] : [bike.currentSetupId]
  const setupIds = [...new Set([day.startSetupId, ...runRows.map((r) => r.setupId), ...present])]
  const setupRows = await db
    .select()
    .from(setups)
    .where(and(eq(setups.wanted, false), or(eq(setups.dayId, id), inArray(setups.id, setupIds))))
    .orderBy(asc(setups.seq))
  const unitIds = [...new Set(setupRows.flatMap((s) => [s.body.frontUnitId, s.body.rearUnitId]))].filter(
    (x) => x !== null,
  )
  const unitRows = unitIds.length ? await db.select().from(units).where(inArray(units.id, unitIds)) : []
  const fitted = unitRows.map((r) => r.body)
  const feelRows = runIds.length ? await db.select().from(feels).where(inArray(feels.runId, runIds)) : []
  const recordingRows = runIds.length
    ? await db
        .select()
        .from(recordings)
        .where(and(inArray(recordings.runId, runIds), isNull(recordings.deletedAt)))
    : []
  const proposalRows = await db
    .select()
    .from(proposals)
    .where(and(eq(proposals.dayId, id), isNull(proposals.deletedAt)))
  return {
    // Records of older shapes get their usual values first.
    day: TrailDay.parse(day.body),
    rider: withoutMasses(rider.body),
    bike: withPointer(bike),
    trail: trail.body,
    units: fitted,
    ownCharts: ownCharts(
      unitRows.map((r) => SuspensionUnit.parse(r.body)),
      Rider.parse(rider.body),
    ),
    setups: setupRows.map(({ id, body }) => (id === bike.currentSetupId ? standing(body, fitted) : body)),
    runs: runRows.map((r) => r.body),
    feels: feelRows.map((r) => r.body),
    recordings: recordingRows.map((r) => asKeptToday(r.body)),
    proposals: proposalRows.map((r) => r.body),
    latest: (await latestDayId(store, day.bikeId)) === id,
    tent: await tentWithLog(store, id),
  }
}

/** Older days say little that the last ones do not. */
const mostEarlier = 3

/** Days of the same rider on the same bike before this one, with runs; newest first. @throws Refusal 'record.not-found' */
export async function readEarlierDays(store: Store, id: string): Promise<DayBundle[]> {
  const { db } = store
  const day = await mustHaveDay(store, id)
  const before = await db
    .select({ id: days.id })
    .from(days)
    .where(
      and(
        eq(days.riderId, day.riderId),
        eq(days.bikeId, day.bikeId),
        isNull(days.deletedAt),
        or(lt(days.date, day.date), and(eq(days.date, day.date), lt(days.id, day.id))),
        exists(
          db
            .select({ one: runs.id })
            .from(runs)
            .where(and(eq(runs.dayId, days.id), isNull(runs.deletedAt))),
        ),
      ),
    )
    .orderBy(desc(days.date), desc(days.id))
    .limit(mostEarlier)
  return Promise.all(before.map((d) => readDay(store, d.id)))
}

/** A day is shown to others and on a wall: it never carries a weight. */
function withoutMasses({
  bodyMassKg: _body,
  kitMassKg: _kit,
  waterL: _water,
  assumed: _assumed,
  ...card
}: Rider): RiderCard {
  return card
}

export function saveDay(store: Store, day: TrailDay): Promise<TrailDay> {
  return store.writes.run(async () => {
    await mustExist(store, riders, day.riderId, 'riderId', 'rider')
    await mustExist(store, bikes, day.bikeId, 'bikeId', 'bike')
    await mustExist(store, trails, day.trailId, 'trailId', 'trail')
    for (const [path, id] of [
      ['startSetupId', day.startSetupId],
      ['settledSetupId', day.settledSetupId],
    ] as const) {
      if (id === null) continue
      const [setup] = await store.db.select().from(setups).where(eq(setups.id, id))
      if (!setup || setup.bikeId !== day.bikeId)
        throw new Refusal('reference.missing', 'That setup is not kept for this bike.', { path })
    }
    const { id, date, riderId, bikeId, trailId, startSetupId } = day
    return saveRecord(store, days, days.id, id, day, { id, date, riderId, bikeId, trailId, startSetupId })
  })
}

/** Whether `:setupId` is of the bike of `:dayId`; nothing: there is no such day. */
const riddenOn = (db: Db) =>
  prepared(db, riddenOn, () =>
    db
      .select({ setupId: setups.id })
      .from(days)
      .leftJoin(setups, and(eq(setups.id, sql.placeholder('setupId')), eq(setups.bikeId, days.bikeId)))
      .where(eq(days.id, sql.placeholder('dayId')))
      .prepare(),
  )

export async function saveRun(store: Store, run: Run): Promise<Run> {
  const { db } = store
  const ringsAreRead = run.ringFrontMm !== null || run.ringRearMm !== null
  const written = run.version === 0 && !ringsAreRead ? await saveNewRun(store, run) : null
  if (written) return written
  return store.writes.run(async () => {
    const [on] = await riddenOn(db).all({ dayId: run.dayId, setupId: run.setupId })
    if (!(on as typeof on | undefined))
      throw new Refusal('reference.missing', 'The day it belongs to is not saved yet.', { path: 'dayId' })
    if (on.setupId === null)
      throw new Refusal('reference.missing', 'That setup is not kept for the bike of this day.', {
        path: 'setupId',
      })
    if (ringsAreRead) await checkRings(store, run)
    const { id, dayId, setupId, startedAt } = run
    return saveRecord(store, runs, runs.id, id, run, { id, dayId, setupId, startedAt })
  })
}

/** A ring reading longer than the stroke is a per cent value or a slip of the ruler. */
async function checkRings({ db }: Store, run: Run): Promise<void> {
  const [{ body: setup }] = await db
    .select({ body: setups.body })
    .from(setups)
    .where(eq(setups.id, run.setupId))
  for (const [path, unitId, mm] of [
    ['ringFrontMm', setup.frontUnitId, run.ringFrontMm],
    ['ringRearMm', setup.rearUnitId, run.ringRearMm],
  ] as const) {
    if (mm === null || unitId === null) continue
    const [unit] = await db.select().from(units).where(eq(units.id, unitId))
    if (unit && mm > unit.body.strokeMm) {
      throw new Refusal(
        'request.invalid',
        `A ring reading of ${mm} mm is longer than the ${unit.body.strokeMm} mm of ${unit.body.name}; enter mm, wiper to ring.`,
        { path },
      )
    }
  }
}

/** The day of `:runId`. */
const dayIdOf = (db: Db) =>
  prepared(db, dayIdOf, () =>
    db
      .select({ dayId: runs.dayId })
      .from(runs)
      .where(eq(runs.id, sql.placeholder('runId')))
      .prepare(),
  )

/** Sections of the trail that a day is ridden on, by id. */
async function sectionsOf({ db }: Store, dayId: string): Promise<Set<string>> {
  const [row] = await db
    .select({ trail: trails.body })
    .from(days)
    .innerJoin(trails, eq(days.trailId, trails.id))
    .where(eq(days.id, dayId))
  return new Set(row.trail.sections.map((s) => s.id))
}

/** Saves what was felt on a run, and says of which day. @throws Refusal 'reference.missing' and those of a record */
export async function saveFeel(store: Store, feel: Feel): Promise<{ feel: Feel; dayId: string }> {
  const { db } = store
  const sectionIds = feel.marks.flatMap((m) => m.sectionId ?? [])
  const against = [...new Set(feel.verdicts.map((v) => v.againstRunId))]
  const pointsNowhere = sectionIds.length === 0 && against.length === 0
  const written = feel.version === 0 && pointsNowhere ? await saveNewFeel(store, feel) : null
  if (written) return written
  return store.writes.run(async () => {
    const dayId = await dayOfRun(store, feel.runId)
    if (dayId === null) throw new Refusal('reference.missing', 'The run is not saved yet.', { path: 'runId' })
    const known = sectionIds.length > 0 ? await sectionsOf(store, dayId) : new Set<string>()
    if (sectionIds.some((id) => !known.has(id))) {
      throw new Refusal(
        'reference.missing',
        'A word is marked in a section that the trail does not have any more.',
        { path: 'marks' },
      )
    }
    const ofThisDay = and(inArray(runs.id, against), eq(runs.dayId, dayId))
    if (against.length > 0 && (await db.$count(runs, ofThisDay)) < against.length)
      throw new Refusal('reference.missing', 'A run is judged against one that is not of this day.', {
        path: 'verdicts',
      })
    const saved = await saveRecord(store, feels, feels.runId, feel.runId, feel, { runId: feel.runId })
    return { feel: saved, dayId }
  })
}

export function saveProposal(store: Store, proposal: ProposalRecord): Promise<ProposalRecord> {
  return store.writes.run(async () => {
    await mustExist(store, days, proposal.dayId, 'dayId', 'day')
    return saveRecord(store, proposals, proposals.id, proposal.id, proposal, {
      id: proposal.id,
      dayId: proposal.dayId,
    })
  })
}

export async function dayOfRun({ db }: Store, runId: string): Promise<string | null> {
  const [row] = await dayIdOf(db).all({ runId })
  return (row as typeof row | undefined)?.dayId ?? null
}
