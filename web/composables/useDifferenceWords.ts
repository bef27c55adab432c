import { useGarage } from '../stores/garage.ts'
import { differenceWords, type FieldDifference } from '../support/bothVersions.ts'
import { useUnits } from './useUnits.ts'

/** How a difference between two versions of a record is said here: in the units that are read, other records by their names. */
export function useDifferenceWords(): (d: FieldDifference) => string {
  const { units } = useUnits()
  const garage = useGarage()
  const nameOf = (id: string) =>
    [garage.riders, garage.bikes, garage.units, garage.trails, garage.gauges].flat().find((x) => x.id === id)
      ?.name ?? null
  return (d) => differenceWords(d, { units: units.value, nameOf })
}
