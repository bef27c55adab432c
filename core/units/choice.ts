import {
  celsiusToFahrenheit,
  fahrenheitToCelsius,
  kgPerLb,
  mmPerInch,
  mPerFoot,
  nPerMmPerLbIn,
  psiPerBar,
} from './convert.ts'

/** Units a person reads and types, of each quantity; everything is stored canonically, in the first. */
export const unitsOf = {
  pressure: ['psi', 'bar'],
  length: ['mm', 'in'],
  mass: ['kg', 'lb'],
  temperature: ['°C', '°F'],
  springRate: ['N/mm', 'lb/in'],
  altitude: ['m', 'ft'],
} as const
export type Quantity = keyof typeof unitsOf
export type UnitChoice = { [Q in Quantity]: (typeof unitsOf)[Q][number] }

export const canonicalUnits: UnitChoice = {
  pressure: 'psi',
  length: 'mm',
  mass: 'kg',
  temperature: '°C',
  springRate: 'N/mm',
  altitude: 'm',
}

interface UnitRule {
  /** Canonical units in one of these. */
  size: number
  /** Places after the point that a person can read off or set. */
  places: number
}
const rules: Record<UnitChoice[Quantity], UnitRule> = {
  psi: { size: 1, places: 0 },
  bar: { size: psiPerBar, places: 2 },
  mm: { size: 1, places: 1 },
  in: { size: mmPerInch, places: 2 },
  kg: { size: 1, places: 1 },
  lb: { size: kgPerLb, places: 0 },
  '°C': { size: 1, places: 0 },
  '°F': { size: 5 / 9, places: 0 },
  'N/mm': { size: 1, places: 2 },
  'lb/in': { size: nPerMmPerLbIn, places: 0 },
  m: { size: 1, places: 0 },
  ft: { size: mPerFoot, places: 0 },
}

/** The number in the chosen unit, from the canonical one. */
export function toChosen(quantity: Quantity, canonical: number, choice: UnitChoice): number {
  const unit = choice[quantity]
  return unit === '°F' ? celsiusToFahrenheit(canonical) : canonical / rules[unit].size
}

/** The canonical number, from one in the chosen unit. */
export function fromChosen(quantity: Quantity, value: number, choice: UnitChoice): number {
  const unit = choice[quantity]
  return unit === '°F' ? fahrenheitToCelsius(value) : value * rules[unit].size
}

const trimmed = (x: number, places: number) => String(Number(x.toFixed(places)) + 0)

/** "5.79", as precise as it can be set. @param finer further places, for a field that must give back what was typed */
export function chosenNumber(quantity: Quantity, canonical: number, choice: UnitChoice, finer = 0): string {
  return trimmed(toChosen(quantity, canonical, choice), rules[choice[quantity]].places + finer)
}

/** Places after the point that a person can read off or set, in the chosen unit. */
export const placesOf = (quantity: Quantity, choice: UnitChoice): number => rules[choice[quantity]].places

/** "5.79 bar" */
export function say(quantity: Quantity, canonical: number, choice: UnitChoice): string {
  return `${chosenNumber(quantity, canonical, choice)} ${choice[quantity]}`
}

/** A difference: as `say` but a place finer, and without the zero point of the thermometer. */
export function sayDifference(quantity: Quantity, canonical: number, choice: UnitChoice): string {
  const { size, places } = rules[choice[quantity]]
  return `${trimmed(canonical / size, places + 1)} ${choice[quantity]}`
}
