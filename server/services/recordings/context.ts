import { eq } from 'drizzle-orm'
import type { TrailSection } from '#contract/trail'
import { travelGeometry } from '#core/telemetry/travelGeometry'
import type { Store } from '../../db/open.ts'
import { bikes, days, runs, setups, trails, units } from '../../db/schema.ts'
import { Refusal } from '../../refusal.ts'

/** Units, linkage and sections that a file on this run is read with. @throws Refusal 'reference.missing' */
export async function runContext({ db }: Store, runId: string) {
  const [row] = await db
    .select({ setup: setups.body, bike: bikes.body, trail: trails.body })
    .from(runs)
    .innerJoin(setups, eq(runs.setupId, setups.id))
    .innerJoin(days, eq(runs.dayId, days.id))
    .innerJoin(bikes, eq(days.bikeId, bikes.id))
    .innerJoin(trails, eq(days.trailId, trails.id))
    .where(eq(runs.id, runId))
  if (!row)
    throw new Refusal('reference.missing', 'The run it belongs to is not saved yet.', { path: 'runId' })
  const unitOf = async (unitId: string | null) => {
    if (!unitId) return null
    const [unit] = await db.select().from(units).where(eq(units.id, unitId))
    return unit?.body ?? null
  }
  const [front, rear] = [await unitOf(row.setup.frontUnitId), await unitOf(row.setup.rearUnitId)]
  return {
    geometry: travelGeometry(row.bike, front, rear),
    sections: row.trail.sections,
    gates: row.trail.gates,
  }
}

/** Named sections of the trail that a run was ridden on. */
export async function sectionsOf({ db }: Store, runId: string): Promise<TrailSection[]> {
  const [row] = await db
    .select({ trail: trails.body })
    .from(runs)
    .innerJoin(days, eq(runs.dayId, days.id))
    .innerJoin(trails, eq(days.trailId, trails.id))
    .where(eq(runs.id, runId))
  return row?.trail.sections ?? []
}
