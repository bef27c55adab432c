import { v7 as uuid } from 'uuid'
import type { Bench } from '#contract/bench'
import type { Bike } from '#contract/bike'
import type { Setup } from '#contract/setup'
import type { SuspensionUnit } from '#contract/unit'
import { clampToRange } from '#core/adjusters/range'

/** A new time on the bench: what is known of the bike, as it is known, and nothing else. */
export function freshBench(
  bike: Bike,
  units: readonly SuspensionUnit[],
  held: Setup | undefined,
  last: Bench | undefined,
): Bench {
  return {
    id: uuid(),
    version: 0,
    bikeId: bike.id,
    startedAt: new Date().toISOString(),
    orderSchool: last?.orderSchool ?? 'sag-rebound-volume',
    equaliseSchool: last?.equaliseSchool ?? 'every-50',
    spacerSchool: last?.spacerSchool ?? 'as-delivered',
    posture: last?.posture ?? { front: 'ready', rear: 'seated' },
    airTempC: null,
    altitudeM: last?.altitudeM ?? null,
    place: last?.place ?? '',
    airSaidAt: last?.airSaidAt ?? last?.startedAt ?? null,
    airSaidEach: last?.airSaidEach ?? null,
    gaugeId: last?.gaugeId ?? { front: null, rear: null },
    positions: units.flatMap((u) =>
      u.adjusters.flatMap((a) => {
        const at = held?.positions.find((p) => p.adjusterId === a.id)
        return at ? [{ ...at, end: u.end, value: clampToRange(a, at.value) }] : []
      }),
    ),
    checks: [],
    checksOut: [],
    readings: [],
    reboundTests: [],
    travelReadings: [],
    steps: [],
    finishedSetupId: null,
    note: '',
  }
}
