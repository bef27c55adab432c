import { and, eq, inArray, ne, sql } from 'drizzle-orm'
import type { Store } from '../../db/open.ts'
import { days, recordings, runs } from '../../db/schema.ts'

/** Marks the figures of every recording on a trail as to be made again; what gives none any more stays so. */
export function renewOnTrail({ db }: Store, trailId: string) {
  const onTrail = db
    .select({ id: runs.id })
    .from(runs)
    .innerJoin(days, eq(runs.dayId, days.id))
    .where(eq(days.trailId, trailId))
  const figures = sql`json_extract(${recordings.body}, '$.figures')`
  return db
    .update(recordings)
    .set({ body: sql`json_set(${recordings.body}, '$.figures', 'renewing')` })
    .where(and(inArray(recordings.runId, onTrail), ne(figures, 'broken')))
}
