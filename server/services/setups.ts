import { and, desc, eq, inArray, isNull } from 'drizzle-orm'
import type { Setup } from '#contract/setup'
import { checkLinked, checkSetup } from '#core/setup/check'
import type { Store } from '../db/open.ts'
import { bikes, days, kept, setups, units } from '../db/schema.ts'
import { Refusal } from '../refusal.ts'

/**
 * Keeps an immutable setup and points the bike at it, both or neither. It follows what is on the bike now: whoever changed
 * the bike in the meantime is not written over. A wanted setup is kept and turns nothing.
 *
 * @throws Refusal 'record.immutable', 'reference.missing', 'setup.out-of-range', 'setup.not-linked', 'setup.not-present'
 * with what is on the bike, 'day.past'
 */
export function saveSetup(store: Store, setup: Setup): Promise<Setup> {
  const { db } = store
  return store.writes.run(async () => {
    const [held] = await db.select().from(setups).where(eq(setups.id, setup.id))
    if (held) {
      if (JSON.stringify(held.body) === JSON.stringify(setup)) return held.body
      throw new Refusal(
        'record.immutable',
        'A setup with this id is already kept; a change is a new setup.',
        { current: held.body, sent: setup },
      )
    }
    const [bike] = await db.select().from(bikes).where(eq(bikes.id, setup.bikeId))
    if (!bike)
      throw new Refusal('reference.missing', 'The bike it refers to is not saved yet.', { path: 'bikeId' })
    if (setup.frontUnitId !== bike.frontUnitId || setup.rearUnitId !== bike.rearUnitId) {
      throw new Refusal(
        'reference.missing',
        'The units of the setup are not the ones on the bike; reload the garage.',
        { path: 'frontUnitId' },
      )
    }
    const ids = [setup.frontUnitId, setup.rearUnitId].filter((x) => x !== null)
    const fitted = (await db.select().from(units).where(inArray(units.id, ids))).map((u) => u.body)
    const [fault] = checkSetup(setup, fitted)
    if (fault) throw new Refusal('setup.out-of-range', fault.message, { path: 'positions' })
    const parent = await parentOf(store, setup)
    if (!setup.wanted) {
      await mustFollowPresent(store, setup, bike.currentSetupId)
      await mustBeLatestDay(store, setup)
      const [unlinked] = parent ? checkLinked(parent, setup, fitted) : []
      if (unlinked) throw new Refusal('setup.not-linked', unlinked.message, { path: 'reason.linked' })
    }
    const { id, bikeId, parentId, dayId, wanted } = setup
    const keep = db.insert(setups).values({ id, bikeId, parentId, dayId, wanted, body: setup })
    if (wanted) await db.batch([keep])
    else
      await db.batch([
        keep,
        db.update(bikes).set({ currentSetupId: id }).where(eq(bikes.id, bikeId)),
        // A wish that was turned is none any more.
        db
          .update(setups)
          .set({ deletedAt: setup.madeAt })
          .where(and(eq(setups.id, setup.reason.fromSetupId ?? ''), eq(setups.wanted, true))),
      ])
    return setup
  })
}

/** The setup it follows; a wanted one may descend from another bike's. @throws Refusal 'reference.missing' */
async function parentOf({ db }: Store, setup: Setup): Promise<Setup | null> {
  if (setup.parentId === null) return null
  const [parent] = await db.select().from(setups).where(eq(setups.id, setup.parentId))
  if (!parent || (parent.bikeId !== setup.bikeId && !setup.wanted))
    throw new Refusal('reference.missing', 'The setup it follows is not kept for this bike.', {
      path: 'parentId',
    })
  return parent.body
}

/** @throws Refusal 'setup.not-present' */
async function mustFollowPresent({ db }: Store, setup: Setup, presentId: string | null): Promise<void> {
  if (setup.parentId === presentId) return
  const [present] = presentId ? await db.select().from(setups).where(eq(setups.id, presentId)) : []
  throw new Refusal(
    'setup.not-present',
    'The bike was changed elsewhere in the meantime; look at what is on it now, then change it.',
    { path: 'parentId', current: present?.body ?? null, sent: setup },
  )
}

/** A past day never writes the present. @throws Refusal 'day.past' */
async function mustBeLatestDay(store: Store, setup: Setup): Promise<void> {
  if (setup.dayId === null) return
  const latest = await latestDayId(store, setup.bikeId)
  // A day that is not saved yet comes after its first setup.
  if (latest === null || latest === setup.dayId) return
  const [day] = await store.db.select({ id: days.id }).from(days).where(eq(days.id, setup.dayId))
  if (day)
    throw new Refusal(
      'day.past',
      'That day is over: settings are changed on the last day of a bike, or put on the bike from there.',
      { path: 'dayId' },
    )
}

/** The last day of a bike, whichever was removed; null before the first. */
export async function latestDayId({ db }: Store, bikeId: string): Promise<string | null> {
  const [row] = await db
    .select({ id: days.id })
    .from(days)
    .where(and(eq(days.bikeId, bikeId), isNull(days.deletedAt)))
    .orderBy(desc(days.date), desc(days.id))
    .limit(1)
  return row?.id ?? null
}

/**
 * Removes a setup that nobody turned here, or brings it back: a wish, or one that was noted, with its name.
 * @throws Refusal 'record.not-found', 'setup.not-wanted'
 */
export function setUnturnedRemoved({ db, writes }: Store, id: string, at: string | null): Promise<void> {
  return writes.run(async () => {
    const [held] = await db.select().from(setups).where(eq(setups.id, id))
    if (!held) throw new Refusal('record.not-found', 'There is no such setup.')
    const isNoted = held.body.reason.source === 'noted'
    if (!held.wanted && !isNoted)
      throw new Refusal('setup.not-wanted', 'Only what was never turned here can be removed.')
    const away = db.update(setups).set({ deletedAt: at }).where(eq(setups.id, id))
    if (isNoted) await db.batch([away, db.update(kept).set({ deletedAt: at }).where(eq(kept.id, id))])
    else await away
  })
}

/** Wanted setups that nobody has turned or removed, newest first. */
export async function wantedSetups({ db }: Store): Promise<Setup[]> {
  const rows = await db
    .select()
    .from(setups)
    .where(and(eq(setups.wanted, true), isNull(setups.deletedAt)))
    .orderBy(desc(setups.seq))
  return rows.map((r) => r.body)
}
