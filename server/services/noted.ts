import { eq, inArray } from 'drizzle-orm'
import type { NotedSetups } from '#contract/bikeSetups'
import type { Setup } from '#contract/setup'
import { checkSetup } from '#core/setup/check'
import type { Store } from '../db/open.ts'
import { bikes, kept, setups, units } from '../db/schema.ts'
import { Refusal } from '../refusal.ts'

/**
 * Keeps settings that stood on a bike before, out of somebody's own table: all of them or none. The bike stays as it is.
 * Said again, it is the same.
 * @param now UTC, ISO 8601
 * @throws Refusal 'record.not-found', 'request.invalid', 'setup.out-of-range', 'record.immutable'
 */
export function saveNoted(
  { db, writes }: Store,
  bikeId: string,
  sent: NotedSetups,
  now: string,
): Promise<void> {
  return writes.run(async () => {
    const [bike] = await db.select().from(bikes).where(eq(bikes.id, bikeId))
    if (!bike) throw new Refusal('record.not-found', 'There is no such bike.')
    const ids = [bike.frontUnitId, bike.rearUnitId].filter((x) => x !== null)
    const fitted = (await db.select().from(units).where(inArray(units.id, ids))).map((u) => u.body)
    sent.setups.forEach((setup, i) => {
      const before = sent.setups.at(i - 1)
      const isNoted =
        setup.bikeId === bikeId &&
        setup.reason.source === 'noted' &&
        !setup.wanted &&
        setup.dayId === null &&
        setup.parentId === (i === 0 ? null : before!.id) &&
        setup.frontUnitId === bike.frontUnitId &&
        setup.rearUnitId === bike.rearUnitId
      if (!isNoted) throw refused(i, 'It is no setup that was noted for this bike, in the order of the rows.')
      if (setup.madeAt > now) throw refused(i, 'It is of a day that has not come yet.')
      if (setup.positions.some((p) => p.known.how !== 'assumed'))
        throw refused(i, 'What was noted elsewhere is assumed here, never read or set.')
      const [fault] = checkSetup(setup, fitted)
      if (fault) throw new Refusal('setup.out-of-range', `Row ${i + 1}: ${fault.message}`, { path: 'setups' })
    })
    if (sent.kept.some((k) => k.bikeId !== bikeId || !sent.setups.some((s) => s.id === k.id)))
      throw new Refusal('request.invalid', 'A name is of none of these setups.', { path: 'kept' })
    if (await isKept(db, sent.setups)) return
    await db.batch([
      db.insert(setups).values(
        sent.setups.map((s) => ({
          id: s.id,
          bikeId,
          parentId: s.parentId,
          dayId: null,
          wanted: false,
          body: s,
        })),
      ),
      ...sent.kept.map((k) =>
        db.insert(kept).values({ id: k.id, bikeId, version: 1, body: { ...k, version: 1 } }),
      ),
    ])
  })
}

const refused = (i: number, why: string) =>
  new Refusal('request.invalid', `Row ${i + 1}: ${why}`, { path: 'setups' })

/** Whether an earlier answer was lost on its way. @throws Refusal 'record.immutable' */
async function isKept(db: Store['db'], sent: readonly Setup[]): Promise<boolean> {
  const ids = sent.map((s) => s.id)
  const held = await db.select().from(setups).where(inArray(setups.id, ids))
  if (held.length === 0) return false
  const isSame = sent.every(
    (s) => JSON.stringify(held.find((h) => h.id === s.id)?.body) === JSON.stringify(s),
  )
  if (!isSame) throw new Refusal('record.immutable', 'A setup with one of these ids is already kept.')
  return true
}
