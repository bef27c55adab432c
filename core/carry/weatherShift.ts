import type { AdvisedPosition } from '#contract/setup'
import type { SuspensionUnit } from '#contract/unit'
import { carryOver, type CarriedPosition } from './carryOver.ts'
import type { Situation } from './situation.ts'

/** Air, where somebody noted it. */
export interface NotedAir {
  airTempC: number | null
  altitudeM: number | null
}

/** Nothing but the air differs, so any rider on any ground gives the same. */
const alike: Omit<Situation, 'airTempC' | 'altitudeM'> = {
  ridingMassKg: 75,
  surface: 'damp',
  steepness: 'usual',
  pace: 'usual',
}

/**
 * What the air of today asks of settings that were found in another: pressure for the same sag in thinner or thicker air,
 * clicks for thicker or thinner oil. Only what moves; nothing where the temperature of either is not known.
 *
 * @throws InputError 'air.altitude', 'air.temperature'
 */
export function weatherShift(
  setup: { positions: readonly AdvisedPosition[] },
  units: readonly SuspensionUnit[],
  found: NotedAir,
  here: NotedAir,
): CarriedPosition[] {
  if (found.airTempC === null || here.airTempC === null) return []
  // A height that is not known on one side is no difference.
  const altitudeM = found.altitudeM ?? here.altitudeM ?? 0
  const from = { ...alike, airTempC: found.airTempC, altitudeM }
  const to = {
    ...alike,
    airTempC: here.airTempC,
    altitudeM: found.altitudeM === null ? altitudeM : (here.altitudeM ?? altitudeM),
  }
  return carryOver(setup, units, from, to).filter((c) => Math.abs(c.to - c.from) > 1e-6)
}
