import { InputError } from '../errors.ts'
import { paPerPsi, zeroCelsiusK } from '../units/convert.ts'
import { netPressurePsi, pressureForLoadPsi, type AirSpringShape } from './air.ts'

/** Where a pressure was or will be read. */
export interface Weather {
  tempC: number
  altitudeM: number
}

/** Air, where somebody noted it. */
export interface NotedAir {
  airTempC: number | null
  altitudeM: number | null
}

/**
 * Weather of two occasions, for what differs between them: a height that nobody noted of one is taken as the other's, since
 * only the difference counts.
 *
 * @returns null where the temperature of either was not noted
 */
export function weatherOfBoth(from: NotedAir, to: NotedAir): { from: Weather; to: Weather } | null {
  if (from.airTempC === null || to.airTempC === null) return null
  return {
    from: { tempC: from.airTempC, altitudeM: from.altitudeM ?? to.altitudeM ?? 0 },
    to: { tempC: to.airTempC, altitudeM: to.altitudeM ?? from.altitudeM ?? 0 },
  }
}

/** Air pressure at a height, Pa: the international standard atmosphere, troposphere (ISO 2533). */
export function ambientPa(altitudeM: number): number {
  if (!(altitudeM >= -500 && altitudeM <= 9000)) throw new InputError('air.altitude', { got: altitudeM })
  return 101325 * Math.pow(1 - 2.25577e-5 * altitudeM, 5.25588)
}

function kelvin(tempC: number): number {
  if (!(tempC > -zeroCelsiusK)) throw new InputError('air.temperature', { got: tempC })
  return tempC + zeroCelsiusK
}

/**
 * What a gauge shows elsewhere on a chamber nobody opened: Pabs₂ = Pabs₁ · T₂/T₁ (Gay-Lussac), gauge = Pabs − ambient.
 * @returns psi gauge
 */
export function gaugeElsewherePsi(gaugePsi: number, from: Weather, to: Weather): number {
  const absolute = gaugePsi + ambientPa(from.altitudeM) / paPerPsi
  return (absolute * kelvin(to.tempC)) / kelvin(from.tempC) - ambientPa(to.altitudeM) / paPerPsi
}

/**
 * What to set elsewhere for the same sag: the pressure that, in the thinner or thicker air there, holds the same load
 * at the same depth. Temperature plays no part, since it is set at the temperature there.
 * @returns psi gauge
 * @throws InputError 'root.not-bracketed'
 */
export function sameSagElsewherePsi(
  gaugePsi: number,
  sagPct: number,
  shape: AirSpringShape,
  spacers: number,
  from: Weather,
  to: Weather,
): number {
  const u = sagPct / 100
  const load = netPressurePsi(u, gaugePsi, shape, { spacers, ambientPa: ambientPa(from.altitudeM) })
  return pressureForLoadPsi(load, u, shape, { spacers, ambientPa: ambientPa(to.altitudeM) })
}
