import type { Adjuster } from '#contract/adjuster'
import type { Setup } from '#contract/setup'
import type { SuspensionUnit } from '#contract/unit'
import { withStandingReadings } from '../setup/sagOf.ts'
import { solveSag, type AirReading, type SagSolution } from '../spring/solver.ts'
import { unitAir } from '../spring/unitSpring.ts'

/**
 * The pressure that the latest sag reading asks for, by the solver; null without one, on a coil, or where the reading
 * cannot be true of this unit.
 * @returns psi, inside the unit's limits
 */
export function wishedPsi(setups: readonly Setup[], unit: SuspensionUnit): number | null {
  const air = unit.adjusters.find((a) => a.role === 'main-pressure')
  if (air?.kind !== 'pressure') return null
  const spacerDial = unit.adjusters.find((a) => a.role === 'spacers')
  for (const s of withStandingReadings(setups).reverse()) {
    const sagPct = unit.end === 'front' ? s.foundIn?.sagFrontPct : s.foundIn?.sagRearPct
    const at = (id: string | undefined) => s.positions.find((p) => p.adjusterId === id)?.value
    const pressurePsi = at(air.id)
    const isHere = (unit.end === 'front' ? s.frontUnitId : s.rearUnitId) === unit.id
    if (typeof sagPct !== 'number' || !(sagPct > 0 && sagPct < 100) || pressurePsi === undefined || !isHere)
      continue
    return solveOne(unit, air, { sagPct, pressurePsi, spacers: at(spacerDial?.id) ?? 0 }).pressurePsi
  }
  return null
}

/** The bench's solver on one reading, for the unit's own target with the same spacers. */
export function solveOne(
  unit: SuspensionUnit,
  air: Extract<Adjuster, { kind: 'pressure' }>,
  reading: AirReading,
): SagSolution {
  return solveSag([reading], {
    shape: unitAir(unit).shape,
    strokeMm: unit.strokeMm,
    targetPct: unit.sagTargetPct,
    spacers: reading.spacers,
    minPsi: air.minPsi,
    maxPsi: air.maxPsi,
  })
}
