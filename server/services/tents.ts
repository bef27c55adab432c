import { and, asc, desc, eq, isNull, ne } from 'drizzle-orm'
import type { Tent, TentBundle, TentHour, TentNote, TentRider } from '#contract/tent'
import type { Store } from '../db/open.ts'
import { days, tentHours, tentNotes, tentRiders, tents, trails } from '../db/schema.ts'
import { Refusal } from '../refusal.ts'
import { padsOf, reportsOf } from './pads.ts'
import { mustExist, saveRecord } from './records.ts'
import { hoursIn } from './tentLog.ts'

export async function listTents({ db }: Store): Promise<Tent[]> {
  const rows = await db
    .select({ body: tents.body })
    .from(tents)
    .where(isNull(tents.deletedAt))
    .orderBy(desc(tents.date), desc(tents.id))
  return rows.map((r) => r.body)
}

/** A tent with all that is its own; riders whose day was removed are left out. @throws Refusal 'record.not-found' */
export async function readTent(store: Store, id: string): Promise<TentBundle> {
  const { db } = store
  const [row] = await db.select().from(tents).where(eq(tents.id, id))
  if (!(row as typeof row | undefined) || row.deletedAt)
    throw new Refusal('record.not-found', 'There is no such tent; it may have been removed.')
  const [[trail], riders, hours, notes] = await Promise.all([
    db.select({ body: trails.body }).from(trails).where(eq(trails.id, row.body.trailId)),
    db
      .select({ body: tentRiders.body })
      .from(tentRiders)
      .innerJoin(days, eq(days.id, tentRiders.id))
      .where(and(eq(tentRiders.tentId, id), isNull(tentRiders.deletedAt), isNull(days.deletedAt))),
    hoursIn(store, id),
    db
      .select({ body: tentNotes.body })
      .from(tentNotes)
      .where(and(eq(tentNotes.tentId, id), isNull(tentNotes.deletedAt)))
      .orderBy(asc(tentNotes.at)),
  ])
  const [links, reports] = await Promise.all([
    padsOf(store, id),
    reportsOf(
      store,
      riders.map((r) => r.body.id),
    ),
  ])
  return {
    tent: row.body,
    trail: trail.body,
    riders: riders.map((r) => r.body).sort((a, b) => a.number - b.number),
    hours,
    notes: notes.map((r) => r.body),
    pads: links,
    reports,
  }
}

export const saveTent = (store: Store, tent: Tent): Promise<Tent> =>
  store.writes.run(async () => {
    await mustExist(store, trails, tent.trailId, 'trailId', 'trail')
    return saveRecord(store, tents, tents.id, tent.id, tent, { id: tent.id, date: tent.date })
  })

/** The tent that a rider’s day is in, or was in last; null: it never was in one. */
export async function tentOf({ db }: Store, dayId: string): Promise<string | null> {
  const [row] = await db.select().from(tentRiders).where(eq(tentRiders.id, dayId))
  return (row as typeof row | undefined)?.tentId ?? null
}

/**
 * Takes a rider’s day into a tent, or says where the rider is. A day that was in another tent, or was taken out, comes in
 * as it is sent.
 *
 * @throws Refusal 'request.invalid' for a number that another rider of the tent has, 'reference.missing', 'record.stale'
 */
export const saveTentRider = (store: Store, rider: TentRider): Promise<TentRider> =>
  store.writes.run(async () => {
    await mustExist(store, tents, rider.tentId, 'tentId', 'tent')
    await mustExist(store, days, rider.id, 'id', 'day')
    const others = await store.db
      .select({ body: tentRiders.body })
      .from(tentRiders)
      .innerJoin(days, eq(days.id, tentRiders.id))
      .where(
        and(
          eq(tentRiders.tentId, rider.tentId),
          ne(tentRiders.id, rider.id),
          isNull(tentRiders.deletedAt),
          isNull(days.deletedAt),
        ),
      )
    if (others.some((o) => o.body.number === rider.number))
      throw new Refusal('request.invalid', `Number ${rider.number} is another rider’s; choose a free one.`, {
        path: 'number',
      })
    const { id, tentId } = rider
    const [held] = await store.db.select().from(tentRiders).where(eq(tentRiders.id, id))
    const comesIn = (held as typeof held | undefined) && (held.deletedAt !== null || held.tentId !== tentId)
    if (comesIn && rider.version === 0) {
      const body = { ...rider, version: held.version + 1 }
      await store.db
        .update(tentRiders)
        .set({ tentId, body, version: body.version, deletedAt: null })
        .where(eq(tentRiders.id, id))
      return body
    }
    return saveRecord(store, tentRiders, tentRiders.id, id, rider, { id, tentId })
  })

export const saveTentHour = (store: Store, hour: TentHour): Promise<TentHour> =>
  store.writes.run(async () => {
    await mustExist(store, tents, hour.tentId, 'tentId', 'tent')
    const { id, tentId, at } = hour
    return saveRecord(store, tentHours, tentHours.id, id, hour, { id, tentId, at })
  })

export const saveTentNote = (store: Store, note: TentNote): Promise<TentNote> =>
  store.writes.run(async () => {
    await mustExist(store, tents, note.tentId, 'tentId', 'tent')
    await mustExist(store, days, note.dayId, 'dayId', 'day')
    const { id, tentId, at } = note
    return saveRecord(store, tentNotes, tentNotes.id, id, note, { id, tentId, at })
  })
