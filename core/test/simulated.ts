import type { Bike } from '#contract/bike'
import type { SectionKind } from '#contract/trail'
import type { SuspensionUnit } from '#contract/unit'
import { simBike, type SimBike } from '../sim/bike.ts'
import { fork, shock, startPositions } from './dayBuilder.ts'

const noTyre = { name: '', widthMm: null, pressurePsi: null }

/** A bike with the fork and the shock of the test days. */
export const trailBike: Bike = {
  id: 'bike',
  version: 0,
  riderId: 'rider',
  name: '150 mm bike',
  eBike: false,
  kind: 'trail',
  massKg: null,
  frontUnitId: fork.id,
  rearUnitId: shock.id,
  rearWheelTravelMm: 147,
  leverageStart: 2.95,
  leverageEnd: 2.4,
  leverageCurve: null,
  tyres: { front: noTyre, rear: noTyre },
  frontShareSeatedPct: null,
  frontShareReadyPct: null,
  currentSetupId: null,
  assumed: [],
  note: '',
}

/** Half-car of that bike; positions by the short ids of the test days. */
export function testBike(
  set: Partial<typeof startPositions> = {},
  units: readonly SuspensionUnit[] = [fork, shock],
): SimBike {
  const positions = Object.entries({ ...startPositions, ...set }).map(([adjusterId, value]) => ({
    end: units.find((u) => u.adjusters.some((a) => a.id === adjusterId))?.end ?? ('front' as const),
    adjusterId,
    value: value!,
  }))
  return simBike(trailBike, units, positions, 80)
}

export const sectionOf = (kind: SectionKind, lengthM = 120, severity = 1) => ({
  id: kind,
  name: kind,
  kind,
  lengthM,
  severity,
})
