/** Exact conversions between the units people use and the canonical ones. Sources: SI brochure; NIST SP 811. */
export const paPerPsi = 6894.757293168
export const psiPerBar = 1e5 / paPerPsi
export const kgPerLb = 0.45359237
export const standardGravity = 9.80665
export const mmPerInch = 25.4
export const mPerFoot = 0.3048
/** 1 lbf/in in N/mm. */
export const nPerMmPerLbIn = (kgPerLb * standardGravity) / mmPerInch
/** 0 °C in kelvin. */
export const zeroCelsiusK = 273.15

export const barToPsi = (bar: number) => bar * psiPerBar
export const lbToKg = (lb: number) => lb * kgPerLb
export const kgToLb = (kg: number) => kg / kgPerLb
export const lbInToNPerMm = (lbPerIn: number) => lbPerIn * nPerMmPerLbIn
export const nPerMmToLbIn = (nPerMm: number) => nPerMm / nPerMmPerLbIn
export const celsiusToFahrenheit = (c: number) => (c * 9) / 5 + 32
export const fahrenheitToCelsius = (f: number) => ((f - 32) * 5) / 9
