import type { Setup } from '#contract/setup'
import type { SuspensionUnit } from '#contract/unit'

/** A sag reading holds for pressures a gauge cannot tell apart, psi. */
const holdsWithinPsi = 1

const springRoles = [
  'main-pressure',
  'negative-pressure',
  'spring-rate',
  'preload',
  'start-of-stroke',
  'spacers',
]

/** Setups whose reading stands: one that was taken back was a slip, and says nothing. */
export function withStandingReadings(setups: readonly Setup[]): Setup[] {
  const gone = new Set(setups.map((s) => s.reason.undoes))
  return setups.filter((s) => !gone.has(s.id))
}

/**
 * Sag of an end that is known for a setup, %: read on the bench on this very spring. At another pressure, with another
 * spring, preload or number of spacers it is unread.
 *
 * @param setups all that are at hand, in the order they were made; the latest reading on the same spring counts
 */
export function knownSagPct(
  setups: readonly Setup[],
  now: Pick<Setup, 'positions' | 'frontUnitId' | 'rearUnitId'>,
  unit: SuspensionUnit,
): number | null {
  return sagReadingsPct(setups, now, unit)[0] ?? null
}

/** All readings of sag on this very spring, latest first, %; as `knownSagPct`. */
export function sagReadingsPct(
  setups: readonly Setup[],
  now: Pick<Setup, 'positions' | 'frontUnitId' | 'rearUnitId'>,
  unit: SuspensionUnit,
): number[] {
  const read: number[] = []
  const front = unit.end === 'front'
  const parts = unit.adjusters.filter((a) => springRoles.includes(a.role))
  const at = (s: Pick<Setup, 'positions'>, id: string) => s.positions.find((p) => p.adjusterId === id)?.value
  for (const s of withStandingReadings(setups).reverse()) {
    const sag = front ? s.foundIn?.sagFrontPct : s.foundIn?.sagRearPct
    if (typeof sag !== 'number') continue
    if ((front ? s.frontUnitId : s.rearUnitId) !== (front ? now.frontUnitId : now.rearUnitId)) continue
    const same = parts.every((a) => {
      const [then, here] = [at(s, a.id), at(now, a.id)]
      if (then === undefined || here === undefined) return then === here
      return Math.abs(then - here) <= (a.kind === 'pressure' ? holdsWithinPsi : 1e-6)
    })
    if (same) read.push(sag)
  }
  return read
}
