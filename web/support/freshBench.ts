import { v7 as uuid } from 'uuid'
import type { Adjuster } from '#contract/adjuster'
import type { Bench } from '#contract/bench'
import type { Bike } from '#contract/bike'
import type { Setup } from '#contract/setup'
import type { SuspensionUnit } from '#contract/unit'
import { adjusterRange, clampToRange } from '#core/adjusters/range'

/** Where a part is taken to stand before anyone has read it. */
export function likelyStart(a: Adjuster): number {
  const r = adjusterRange(a)
  if (r.allowed) return r.allowed[Math.floor(r.allowed.length / 2)]
  if (a.kind === 'lever') return r.min
  if (a.kind === 'spacer') return Math.floor(r.max / 3)
  // A collar is screwed up to the spring and no further.
  if (a.kind === 'turn' && a.role === 'preload') return r.max
  if (a.role.includes('compression')) return r.max
  return clampToRange(a, (r.min + r.max) / 2)
}

/** A new time on the bench, beginning where the bike stands. */
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
    gaugeId: last?.gaugeId ?? { front: null, rear: null },
    positions: units.flatMap((u) =>
      u.adjusters.map((a) => ({
        end: u.end,
        adjusterId: a.id,
        value: clampToRange(a, held?.positions.find((p) => p.adjusterId === a.id)?.value ?? likelyStart(a)),
      })),
    ),
    checks: [],
    readings: [],
    reboundTests: [],
    travelReadings: [],
    steps: [],
    finishedSetupId: null,
    note: '',
  }
}
