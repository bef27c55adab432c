import type { Bench } from '#contract/bench'
import type { Bike } from '#contract/bike'
import type { CardDial, SetupCard } from '#contract/card'
import type { SuspensionUnit } from '#contract/unit'
import { airOf } from '../lineage/elsewhere.ts'
import type { KnownPlace } from '../lineage/facts.ts'

/**
 * A place as a card to hand on.
 *
 * @param units        of the setup
 * @param bench        it ended; null: it was found on the trail
 * @param ridingMassKg only where the rider wants it on paper
 */
export function cardOf(
  place: KnownPlace,
  bike: Pick<Bike, 'name' | 'rearWheelTravelMm'>,
  riderName: string,
  units: readonly SuspensionUnit[],
  name: string,
  bench: Pick<Bench, 'steps'> | null,
  ridingMassKg: number | null = null,
): SetupCard {
  const { setup, kept, rides } = place
  const found = setup.foundIn
  const [ride] = rides
  const at = new Map(setup.positions.map((p) => [p.adjusterId, p]))
  const hands = setup.positions.map((p) => p.known.by).filter(Boolean)
  return {
    card: 'setup',
    version: 1,
    name,
    bike: bike.name,
    rider: riderName,
    ridingMassKg,
    madeAt: setup.madeAt,
    by: kept?.by || hands.at(-1) || '',
    purposes: kept?.purposes ?? [],
    found: {
      place: (rides.length ? ride.place : '') || kept?.found.place || found?.place || '',
      ...airOf(place),
      surface: rides.length ? ride.conditions.surface : (kept?.found.surface ?? null),
    },
    sag: {
      frontPct: found?.sagFrontPct ?? null,
      rearPct: found?.sagRearPct ?? null,
      front: found?.postureFront ?? null,
      rear: found?.postureRear ?? null,
    },
    rearWheelTravelMm: bike.rearWheelTravelMm,
    tyreFrontPsi: kept?.tyreFrontPsi ?? (rides.length ? ride.tyreFrontPsi : null),
    tyreRearPsi: kept?.tyreRearPsi ?? (rides.length ? ride.tyreRearPsi : null),
    geometry: kept?.geometry ?? '',
    words: kept?.words ?? '',
    notDone: (bench?.steps ?? []).flatMap(({ step, state, reason }) =>
      state === 'done' ? [] : [{ step, state, reason }],
    ),
    units: [...units]
      .sort((a, b) => a.end.localeCompare(b.end))
      .map((u) => ({
        end: u.end,
        name: u.name,
        spring: u.spring,
        strokeMm: u.strokeMm,
        sagTargetPct: u.sagTargetPct,
        revalved: u.revalved,
        dials: u.adjusters.map(({ id, ...dial }): CardDial => {
          const p = at.get(id)
          return { ...dial, value: p?.value ?? null, how: p?.known.how ?? null } as CardDial
        }),
      })),
  }
}
