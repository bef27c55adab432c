import { and, asc, eq, isNull, sql, type SQL } from 'drizzle-orm'
import type { End } from '#contract/common'
import { EndFigures, RunFigures } from '#contract/settingFigures'
import { coreVersion } from '#core/version'
import type { Store } from '../db/open.ts'
import { bikes, days, recordings, runs } from '../db/schema.ts'
import { Refusal } from '../refusal.ts'

const keys = Object.keys(EndFigures.shape)

/** The few figures of an end, taken out by the database: a recording's body is hundreds of times as large. */
function figuresOf(end: End): SQL<string | null> {
  const whole = `$.analysis.whole.${end}`
  const pairs = keys.map((k) => sql`${k}, json_extract(${recordings.body}, ${`${whole}.${k}`})`)
  return sql`CASE WHEN json_type(${recordings.body}, ${whole}) = 'object' THEN json_object(${sql.join(pairs, sql`, `)}) END`
}

/**
 * What the recordings of a bike say of its counted runs, oldest first. Figures of an older core are left out: they are made
 * again when their day is looked at.
 *
 * @throws Refusal 'record.not-found'
 */
export async function readBikeFigures({ db }: Store, bikeId: string): Promise<RunFigures[]> {
  const [bike] = await db.select({ id: bikes.id }).from(bikes).where(eq(bikes.id, bikeId))
  if (!(bike as typeof bike | undefined)) throw new Refusal('record.not-found', 'There is no such bike.')
  const rows = await db
    .select({
      runId: runs.id,
      setupId: sql<string>`json_extract(${runs.body}, '$.setupId')`,
      dayId: runs.dayId,
      trailId: days.trailId,
      front: figuresOf('front'),
      rear: figuresOf('rear'),
    })
    .from(recordings)
    .innerJoin(runs, eq(recordings.runId, runs.id))
    .innerJoin(days, eq(runs.dayId, days.id))
    .where(
      and(
        eq(days.bikeId, bikeId),
        isNull(days.deletedAt),
        isNull(runs.deletedAt),
        isNull(recordings.deletedAt),
        eq(sql`json_extract(${runs.body}, '$.kind')`, 'counted'),
        eq(sql`json_extract(${recordings.body}, '$.analysis.coreVersion')`, coreVersion),
      ),
    )
    .orderBy(asc(runs.startedAt))
  const read = (json: string | null) => (json === null ? null : (JSON.parse(json) as unknown))
  return rows.map((r) => RunFigures.parse({ ...r, front: read(r.front), rear: read(r.rear) }))
}
