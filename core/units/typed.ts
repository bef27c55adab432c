import { fromChosen, placesOf, unitsOf, type Quantity, type UnitChoice } from './choice.ts'
import { barToPsi } from './convert.ts'

/** How units are written by hand, where that is not how they are printed. */
const spelled: Record<string, string> = {
  c: '°c',
  f: '°f',
  lbs: 'lb',
  kgs: 'kg',
  '"': 'in',
  inch: 'in',
  inches: 'in',
  feet: 'ft',
  metres: 'm',
  meters: 'm',
}
const springSpelled: Record<string, string> = { lb: 'lb/in', lbs: 'lb/in', 'lbs/in': 'lb/in' }

/**
 * A number as a person types it: a comma or a point, with its unit or without, in the unit that is shown or in another of the
 * same quantity; seconds also as a clock says them, "1:52.3".
 *
 * @param quantity makes it canonical; without one it is taken as it stands
 * @param unit     the unit of a field without a quantity
 * @returns null where nothing was typed; NaN where it is no number, or one of something else
 */
export function typedNumber(
  text: string,
  quantity: Quantity | undefined,
  units: UnitChoice,
  unit?: string,
): number | null {
  const said = text.trim().toLowerCase().replace('−', '-')
  if (said === '') return null
  const minutes = unit === 's' ? /^(\d+):([0-5]?\d(?:[.,]\d+)?)$/.exec(said) : null
  if (minutes) return 60 * Number(minutes[1]) + Number(minutes[2].replace(',', '.'))
  const found = /^([+-]?(?:\d+(?:[.,]\d+)?|[.,]\d+))\s*(\D*)$/.exec(said)
  if (!found) return NaN
  const value = Number(found[1].replace(',', '.'))
  const name = found[2].trim()
  if (!quantity) return name === '' || name === unit?.toLowerCase() ? value : NaN
  if (quantity === 'pressure' && name === 'kpa') return barToPsi(value / 100)
  const spelling = (quantity === 'springRate' && springSpelled[name]) || spelled[name] || name
  const meant =
    name === '' ? units[quantity] : unitsOf[quantity].find((u: string) => u.toLowerCase() === spelling)
  if (meant === undefined) return NaN
  const chosen = { ...units, [quantity]: meant }
  // "1,200 ft": thousands or thousandths, where nobody reads thousandths.
  if (placesOf(quantity, chosen) === 0 && /^\d{1,3}[.,]\d{3}$/.test(found[1])) return NaN
  return fromChosen(quantity, value, chosen)
}
