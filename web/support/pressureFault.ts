import type { Adjuster } from '#contract/adjuster'
import { say as sayIn, type UnitChoice } from '#core/units/choice'

/**
 * What is wrong with a pressure that somebody says is in a unit; null: nothing.
 *
 * @param psi true pressure; null or NaN where no number was typed
 */
export function pressureFault(
  psi: number | null,
  air: Pick<Adjuster & { kind: 'pressure' }, 'minPsi' | 'maxPsi'>,
  units: UnitChoice,
): string | null {
  const say = (v: number) => sayIn('pressure', v, units)
  if (psi === null || Number.isNaN(psi)) return 'Enter what the gauge shows.'
  if (psi > air.maxPsi)
    return `${say(psi)} is above the ${say(air.maxPsi)} this unit may have; let air out slowly.`
  if (psi < air.minPsi)
    return `${say(psi)} is below the ${say(air.minPsi)} this unit works with; read the gauge again.`
  return null
}
