import { zeroCelsiusK } from '../units/convert.ts'
import { usualRatioPerClick } from './clicks.ts'

/** An oil by its viscosity at two temperatures, cSt. */
export interface Oil {
  at40: number
  at100: number
}
/** Usual damper fluid. */
export const damperFluid: Oil = { at40: 16, at100: 4 }

/**
 * Kinematic viscosity by the Walther equation (ASTM D341): log₁₀ log₁₀(ν + 0.7) = A − B·log₁₀ T.
 * Holds between pour point and about 150 °C.
 * @returns cSt
 */
export function viscosityCst(tempC: number, oil: Oil = damperFluid): number {
  const kelvin = (c: number) => Math.log10(c + zeroCelsiusK)
  const double = (v: number) => Math.log10(Math.log10(v + 0.7))
  const b = (double(oil.at40) - double(oil.at100)) / (kelvin(100) - kelvin(40))
  const a = double(oil.at40) + b * kelvin(40)
  return Math.pow(10, Math.pow(10, a - b * kelvin(tempC))) - 0.7
}

/** Part of damping that follows viscosity: part orifice, part viscous. */
const viscousPart = 0.4
/** Oil over air after ten minutes of descending, °C. */
export const oilAboveAirC = 8

/**
 * Clicks that undo a change of temperature: −α·ln(ν₂/ν₁)/ln r. Positive = close (slower, firmer): the oil got thin.
 * @param riseC oil over air, the same on both days
 */
export function clicksForTemperature(
  fromAirC: number,
  toAirC: number,
  options: { oil?: Oil; alpha?: number; ratioPerClick?: number; riseC?: number } = {},
): number {
  const { oil, alpha = viscousPart, ratioPerClick = usualRatioPerClick.low, riseC = oilAboveAirC } = options
  const from = viscosityCst(fromAirC + riseC, oil)
  const to = viscosityCst(toAirC + riseC, oil)
  return (-alpha * Math.log(to / from)) / Math.log(ratioPerClick)
}
