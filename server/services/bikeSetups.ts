import { and, asc, desc, eq, inArray, isNull, ne, or, sql } from 'drizzle-orm'
import type { BikeSetups, RiddenOn } from '#contract/bikeSetups'
import type { Conditions } from '#contract/conditions'
import { TrailDay } from '#contract/day'
import type { KeptSetup } from '#contract/kept'
import type { Profile } from '#contract/profile'
import type { Feel, Run } from '#contract/run'
import type { Setup } from '#contract/setup'
import { conditionsAt } from '#core/conditions/at'
import { logOf, type ConditionsLog } from '#core/conditions/log'
import type { Store } from '../db/open.ts'
import { bikes, days, feels, kept, profiles, runs, setups, trails, units } from '../db/schema.ts'
import { Refusal } from '../refusal.ts'
import { saveRecord } from './records.ts'
import { logsOfBike } from './tentLog.ts'

/** What was on the bike stays, whatever else was removed. */
const wasTurned = and(
  eq(setups.wanted, false),
  ne(sql`json_extract(${setups.body}, '$.reason.source')`, 'noted'),
)

/** What was noted elsewhere stood on the bike before all that was saved here. */
function inTheirOrder(all: Setup[]): Setup[] {
  const noted = all.filter((s) => s.reason.source === 'noted')
  const madeHere = all.filter((s) => s.reason.source !== 'noted')
  return [...noted.sort((a, b) => a.madeAt.localeCompare(b.madeAt)), ...madeHere]
}

/** Everything a bike has stood at. @throws Refusal 'record.not-found' */
export async function readBikeSetups(store: Store, bikeId: string): Promise<BikeSetups> {
  const { db } = store
  const [bike] = await db.select({ id: bikes.id }).from(bikes).where(eq(bikes.id, bikeId))
  if (!bike) throw new Refusal('record.not-found', 'There is no such bike.')
  const [setupRows, keptRows, dayRows, runRows, tentLogs] = await Promise.all([
    db
      .select()
      .from(setups)
      .where(and(eq(setups.bikeId, bikeId), or(wasTurned, isNull(setups.deletedAt))))
      .orderBy(asc(setups.seq)),
    db
      .select()
      .from(kept)
      .where(and(eq(kept.bikeId, bikeId), isNull(kept.deletedAt))),
    db
      .select({ day: days.body, trail: trails.body })
      .from(days)
      .innerJoin(trails, eq(days.trailId, trails.id))
      .where(and(eq(days.bikeId, bikeId), isNull(days.deletedAt)))
      .orderBy(desc(days.date), desc(days.id)),
    db
      .select({ run: runs.body, feel: feels.body })
      .from(runs)
      .innerJoin(days, eq(runs.dayId, days.id))
      .leftJoin(feels, eq(feels.runId, runs.id))
      .where(and(eq(days.bikeId, bikeId), isNull(days.deletedAt), isNull(runs.deletedAt)))
      .orderBy(asc(runs.startedAt)),
    logsOfBike(store, bikeId),
  ])
  const unitIds = [
    ...new Set(setupRows.flatMap((s) => [s.body.frontUnitId, s.body.rearUnitId]).filter((x) => x !== null)),
  ]
  const unitRows = unitIds.length ? await db.select().from(units).where(inArray(units.id, unitIds)) : []
  const ridden = dayRows.flatMap(({ day: body, trail }) => {
    const day = TrailDay.parse(body)
    const hours = tentLogs.get(day.id)
    const log = logOf({ day, tent: hours ? { hours } : null })
    const ofDay = runRows.filter((r) => r.run.dayId === day.id)
    const ids = new Set(ofDay.map((r) => r.run.setupId))
    if (day.settledSetupId) ids.add(day.settledSetupId)
    return [...ids].map((setupId): RiddenOn => {
      const mine = ofDay.filter((r) => r.run.setupId === setupId)
      return {
        setupId,
        dayId: day.id,
        date: day.date,
        trailName: trail.name,
        place: trail.place,
        conditions: riddenIn(
          log,
          mine.map((r) => r.run),
        ),
        purpose: day.purpose,
        settled: day.settledSetupId === setupId,
        ...rodeAndSaid(mine),
      }
    })
  })
  return {
    bikeId,
    setups: inTheirOrder(setupRows.map((r) => r.body)),
    units: unitRows.map((r) => r.body),
    kept: keptRows.map((r) => r.body),
    ridden,
  }
}

/** Air, height and ground of the last run that counts, else of the last: a day that began dry may have ended wet. */
function riddenIn(log: ConditionsLog, rode: readonly Run[]): Conditions {
  const run = rode.findLast((r) => r.kind === 'counted') ?? rode.at(-1)
  return run ? conditionsAt(log, run) : log.conditions
}

type Rode = Pick<RiddenOn, 'runs' | 'countedRuns' | 'ratings' | 'words' | 'tyreFrontPsi' | 'tyreRearPsi'>

/** What the runs of one setup on one day come to; what does not count says nothing. */
function rodeAndSaid(rows: readonly { run: Run; feel: Feel | null }[]): Rode {
  const counted = rows.filter((r) => r.run.kind === 'counted')
  const words: RiddenOn['words'] = []
  for (const { feel } of counted) {
    const said = new Map((feel?.marks ?? []).map((m) => [`${m.word} ${m.end}`, m]))
    for (const { word, end } of said.values()) {
      const held = words.find((w) => w.word === word && w.end === end)
      if (held) held.runs++
      else words.push({ word, end, runs: 1 })
    }
  }
  const lastRead = (key: 'tyreFrontPsi' | 'tyreRearPsi') =>
    rows.map((r) => r.run[key]).findLast((x) => x !== null) ?? null
  return {
    runs: rows.length,
    countedRuns: counted.length,
    ratings: counted.flatMap((r) => r.feel?.rating ?? []),
    words: words.sort((a, b) => b.runs - a.runs),
    tyreFrontPsi: lastRead('tyreFrontPsi'),
    tyreRearPsi: lastRead('tyreRearPsi'),
  }
}

/** Keeps a setup of the bike by a name. @throws Refusal 'reference.missing', 'record.stale' */
export const saveKept = (store: Store, sent: KeptSetup): Promise<KeptSetup> =>
  store.writes.run(async () => {
    const [setup] = await store.db.select().from(setups).where(eq(setups.id, sent.id))
    if (setup?.bikeId !== sent.bikeId)
      throw new Refusal('reference.missing', 'That setup is not one of this bike.', { path: 'id' })
    const { id, bikeId } = sent
    return saveRecord(store, kept, kept.id, id, sent, { id, bikeId })
  })

export const saveProfile = (store: Store, profile: Profile): Promise<Profile> =>
  store.writes.run(() => saveRecord(store, profiles, profiles.id, profile.id, profile, { id: profile.id }))
