import { eq, inArray } from 'drizzle-orm'
import type { Setup } from '#contract/setup'
import { checkLinked, checkSetup } from '#core/setup/check'
import type { Store } from '../db/open.ts'
import { bikes, setups, units } from '../db/schema.ts'
import { Refusal } from '../refusal.ts'

/**
 * Keeps an immutable setup and points the bike at it, both or neither.
 * @throws Refusal 'record.immutable', 'reference.missing', 'setup.out-of-range', 'setup.not-linked'
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
    if (setup.parentId !== null) {
      const [parent] = await db.select().from(setups).where(eq(setups.id, setup.parentId))
      // A carried setup may descend from another bike's.
      if (!parent || (parent.bikeId !== setup.bikeId && setup.reason.source !== 'carried'))
        throw new Refusal('reference.missing', 'The setup it follows is not kept for this bike.', {
          path: 'parentId',
        })
      const [unlinked] = checkLinked(parent.body, setup, fitted)
      if (unlinked) throw new Refusal('setup.not-linked', unlinked.message, { path: 'reason.linked' })
    }
    const { id, bikeId, parentId, dayId } = setup
    await db.batch([
      db.insert(setups).values({ id, bikeId, parentId, dayId, body: setup }),
      db.update(bikes).set({ currentSetupId: id }).where(eq(bikes.id, bikeId)),
    ])
    return setup
  })
}
