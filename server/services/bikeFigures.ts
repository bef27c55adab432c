import { and, asc, eq, isNull, sql, type SQL } from 'drizzle-orm'
import type { End } from '#contract/common'
import type { Analysis } from '#contract/recording'
import { EndFigures, RunFigures } from '#contract/settingFigures'
import { spaceOf } from '#core/adviser/history'
import { zeroMoved } from '#core/adviser/zeroMoved'
import { coreVersion } from '#core/version'
import type { Store } from '../db/open.ts'
import { bikes, days, recordings, runs, setups, units } from '../db/schema.ts'
import { Refusal } from '../refusal.ts'

const keys = Object.keys(EndFigures.shape)

/** The few figures of an end, taken out by the database: a recording's body is hundreds of times as large. */
function figuresOf(end: End): SQL<string | null> {
  const whole = `$.analysis.whole.${end}`
  const pairs = keys.map((k) => sql`${k}, json_extract(${recordings.body}, ${`${whole}.${k}`})`)
  return sql`CASE WHEN json_type(${recordings.body}, ${whole}) = 'object' THEN json_object(${sql.join(pairs, sql`, `)}) END`
}

/** How deep a sensor says that an end went, % of travel. */
const deepestOf = (end: End) =>
  sql<number | null>`json_extract(${recordings.body}, ${`$.analysis.whole.${end}.depthMaxPct`})`

/**
 * What the recordings of a bike say of its counted runs, oldest first. Figures of an older core are left out: they are made
 * again when their day is looked at. A sensor that went deeper than its ring tells no depth.
 *
 * @throws Refusal 'record.not-found'
 */
export async function readBikeFigures({ db }: Store, bikeId: string): Promise<RunFigures[]> {
  const [bike] = await db.select({ body: bikes.body }).from(bikes).where(eq(bikes.id, bikeId))
  if (!(bike as typeof bike | undefined)) throw new Refusal('record.not-found', 'There is no such bike.')
  const rows = await db
    .select({
      runId: runs.id,
      setupId: sql<string>`json_extract(${runs.body}, '$.setupId')`,
      dayId: runs.dayId,
      trailId: days.trailId,
      front: figuresOf('front'),
      rear: figuresOf('rear'),
      deepestFront: deepestOf('front'),
      deepestRear: deepestOf('rear'),
      rearAt: sql<Analysis['rearAt']>`json_extract(${recordings.body}, '$.analysis.rearAt')`,
      ringFrontMm: sql<number | null>`json_extract(${runs.body}, '$.ringFrontMm')`,
      ringRearMm: sql<number | null>`json_extract(${runs.body}, '$.ringRearMm')`,
      frontUnitId: sql<string | null>`json_extract(${setups.body}, '$.frontUnitId')`,
      rearUnitId: sql<string | null>`json_extract(${setups.body}, '$.rearUnitId')`,
    })
    .from(recordings)
    .innerJoin(runs, eq(recordings.runId, runs.id))
    .innerJoin(days, eq(runs.dayId, days.id))
    .leftJoin(setups, eq(setups.id, sql`json_extract(${runs.body}, '$.setupId')`))
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
  const known = new Map(
    (await db.select({ id: units.id, body: units.body }).from(units)).map((u) => [u.id, u.body]),
  )
  const read = (json: string | null, isDepthRight: boolean) =>
    json === null
      ? null
      : {
          ...(JSON.parse(json) as object),
          ...(isDepthRight ? {} : { rideHeightPct: null, depthP95Pct: null }),
        }
  return rows.map(
    ({ runId, setupId, dayId, trailId, front, rear, deepestFront, deepestRear, rearAt, ...r }) => {
      const fitted = [r.frontUnitId, r.rearUnitId].flatMap((id) => known.get(id ?? '') ?? [])
      const of = (depthMaxPct: number | null) => (depthMaxPct === null ? null : { depthMaxPct })
      const whole = { front: of(deepestFront), rear: of(deepestRear) }
      const moved = zeroMoved({ run: r, analysis: { rearAt, whole } }, spaceOf(fitted, bike.body)).map(
        (z) => z.end,
      )
      return RunFigures.parse({
        runId,
        setupId,
        dayId,
        trailId,
        front: read(front, !moved.includes('front')),
        rear: read(rear, !moved.includes('rear')),
      })
    },
  )
}
