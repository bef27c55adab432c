import { and, asc, eq, isNull } from 'drizzle-orm'
import type { DayBundle } from '#contract/endpoints'
import type { TentHour } from '#contract/tent'
import type { Store } from '../db/open.ts'
import { days, tentHours, tentRiders, tents } from '../db/schema.ts'

/** Lines of a tent’s log by the hour, in the order of the clock. */
export async function hoursIn({ db }: Store, tentId: string): Promise<TentHour[]> {
  const rows = await db
    .select({ body: tentHours.body })
    .from(tentHours)
    .where(and(eq(tentHours.tentId, tentId), isNull(tentHours.deletedAt)))
    .orderBy(asc(tentHours.at))
  return rows.map((r) => r.body)
}

/** The tent that holds a day now; null: none does, it was taken out, or its tent was removed. */
export async function tentHolding({ db }: Store, dayId: string): Promise<string | null> {
  const [row] = await db
    .select({ id: tents.id })
    .from(tentRiders)
    .innerJoin(tents, eq(tents.id, tentRiders.tentId))
    .where(and(eq(tentRiders.id, dayId), isNull(tentRiders.deletedAt), isNull(tents.deletedAt)))
  return (row as typeof row | undefined)?.id ?? null
}

/** The same with its log by the hour. */
export async function tentWithLog(store: Store, dayId: string): Promise<DayBundle['tent']> {
  const id = await tentHolding(store, dayId)
  return id === null ? null : { id, hours: await hoursIn(store, id) }
}

/** What the tents of a bike's days logged by the hour, by day; days without a tent are left out. */
export async function logsOfBike({ db }: Store, bikeId: string): Promise<Map<string, TentHour[]>> {
  const rows = await db
    .select({ dayId: tentRiders.id, hour: tentHours.body })
    .from(days)
    .innerJoin(tentRiders, eq(tentRiders.id, days.id))
    .innerJoin(tents, eq(tents.id, tentRiders.tentId))
    .innerJoin(tentHours, eq(tentHours.tentId, tents.id))
    .where(
      and(
        eq(days.bikeId, bikeId),
        isNull(tentRiders.deletedAt),
        isNull(tents.deletedAt),
        isNull(tentHours.deletedAt),
      ),
    )
  const logs = new Map<string, TentHour[]>()
  for (const { dayId, hour } of rows) logs.set(dayId, [...(logs.get(dayId) ?? []), hour])
  return logs
}

/** The days of the riders of a tent. */
export async function daysIn({ db }: Store, tentId: string): Promise<string[]> {
  const rows = await db
    .select({ id: tentRiders.id })
    .from(tentRiders)
    .where(and(eq(tentRiders.tentId, tentId), isNull(tentRiders.deletedAt)))
  return rows.map((r) => r.id)
}
