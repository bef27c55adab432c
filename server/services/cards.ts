import { eq } from 'drizzle-orm'
import { Rider } from '#contract/rider'
import type { SetupCard } from '#contract/card'
import { SuspensionUnit } from '#contract/unit'
import { cardOf } from '#core/card/cardOf'
import { knownPlaces } from '#core/lineage/facts'
import { standing } from '#core/setup/standing'
import { saidRidingMassKg } from '#core/spring/load'
import type { Store } from '../db/open.ts'
import { bikes, riders } from '../db/schema.ts'
import { Refusal } from '../refusal.ts'
import { readBikeSetups } from './bikeSetups.ts'
import { listBenches } from './workshop.ts'

/**
 * A setup of a bike as a card.
 *
 * @param setupId    undefined: what is on the bike now
 * @param withWeight only where the rider asked for it
 * @throws Refusal 'record.not-found', 'reference.missing'
 */
export async function readCard(
  store: Store,
  bikeId: string,
  setupId: string | undefined,
  withWeight: boolean,
): Promise<SetupCard> {
  const [bike] = await store.db.select().from(bikes).where(eq(bikes.id, bikeId))
  if (!bike) throw new Refusal('record.not-found', 'There is no such bike.')
  const asked = setupId ?? bike.currentSetupId
  if (!asked)
    throw new Refusal('record.not-found', 'Nothing is known of where this bike stands; read its dials first.')
  const all = await readBikeSetups(store, bikeId)
  const setup = all.setups.find((s) => s.id === asked)
  const place = knownPlaces(all, bike.currentSetupId).find((p) => p.setupIds.includes(asked))
  if (!setup || !place)
    throw new Refusal('reference.missing', 'That setup is not kept for this bike.', { path: 'setup' })
  const [row] = await store.db.select().from(riders).where(eq(riders.id, bike.riderId))
  const rider = Rider.parse(row.body)
  const units = all.units
    .filter((u) => u.id === setup.frontUnitId || u.id === setup.rearUnitId)
    .map((u) => SuspensionUnit.parse(u))
  const name = place.name ?? (place.rides.length ? place.rides[0].trailName : 'Where it stands')
  const mass = withWeight ? saidRidingMassKg(rider) : null
  // The setup that was asked for, also where the place was come back to later.
  const ended = (await listBenches(store, bikeId)).find(
    (b) => b.finishedSetupId !== null && place.setupIds.includes(b.finishedSetupId),
  )
  const stands = asked === bike.currentSetupId ? standing(setup, units) : setup
  return cardOf({ ...place, setup: stands }, bike.body, rider.name, units, name, ended ?? null, mass)
}
