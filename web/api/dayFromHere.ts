import type { DayBundle, Garage } from '#contract/endpoints'
import type { TrailDay } from '#contract/day'
import type { Setup } from '#contract/setup'
import { ownCharts } from '#core/spring/ownChart'
import type { Letter } from './letters.ts'
import { overlayGarage } from './overlay.ts'

/**
 * A day that was begun while the server was out of reach, put together from what this device has: its letter, and the
 * garage as it was seen last. What else waits is laid over it as over any day.
 *
 * @returns null where a part of it is not here
 */
export function dayFromHere(id: string, garage: Garage | null, letters: readonly Letter[]): DayBundle | null {
  const day = letters.find((l) => l.kind === 'day' && l.params.id === id)?.body as TrailDay | undefined
  if (!day || !garage) return null
  const here = overlayGarage(garage, letters)
  const bike = here.bikes.find((b) => b.id === day.bikeId)
  const rider = here.riders.find((r) => r.id === day.riderId)
  const trail = here.trails.find((t) => t.id === day.trailId)
  const written = letters.filter((l) => l.kind === 'setup').map((l) => l.body as Setup)
  const setup = [...here.currentSetups, ...written].find((s) => s.id === day.startSetupId)
  if (!bike || !rider || !trail || !setup) return null
  const units = here.units.filter((u) => u.id === setup.frontUnitId || u.id === setup.rearUnitId)
  const { bodyMassKg: _body, kitMassKg: _kit, waterL: _water, assumed: _assumed, ...card } = rider
  return {
    day,
    rider: card,
    bike: { ...bike, currentSetupId: setup.id },
    units,
    ownCharts: ownCharts(units, rider),
    trail,
    setups: [setup],
    runs: [],
    feels: [],
    recordings: [],
    proposals: [],
    latest: true,
    tent: null,
  }
}
