import type { AdvisedPosition } from '#contract/setup'
import type { SuspensionUnit } from '#contract/unit'
import { weatherOfBoth, type NotedAir, type Weather } from '../spring/weather.ts'
import { canonicalUnits, type UnitChoice } from '../units/choice.ts'
import { carryOver, type CarriedPosition } from './carryOver.ts'
import type { Situation } from './situation.ts'

/** Nothing but the air differs, so any rider on any ground gives the same. */
const alike: Omit<Situation, 'airTempC' | 'altitudeM'> = {
  ridingMassKg: 75,
  surface: null,
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
  choice: UnitChoice = canonicalUnits,
): CarriedPosition[] {
  const weather = weatherOfBoth(found, here)
  if (!weather) return []
  return carryOver(setup, units, inAir(weather.from), inAir(weather.to), choice).filter(
    (c) => Math.abs(c.to - c.from) > 1e-6,
  )
}

const inAir = ({ tempC, altitudeM }: Weather): Situation => ({ ...alike, airTempC: tempC, altitudeM })
