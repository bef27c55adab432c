import type { End } from '#contract/common'
import type { DayBundle } from '#contract/endpoints'
import type { TravelGeometry } from '#core/telemetry/cleanRecording'
import { travelGeometry } from '#core/telemetry/travelGeometry'

/** Units and linkage that a run was ridden on, not what is on the bike by now. */
export function runGeometry(bundle: DayBundle, runId: string): TravelGeometry {
  const setupId = bundle.runs.find((r) => r.id === runId)?.setupId
  const setup = bundle.setups.find((x) => x.id === setupId)
  const unit = (id: string | null | undefined) => bundle.units.find((u) => u.id === id) ?? null
  return travelGeometry(bundle.bike, unit(setup?.frontUnitId), unit(setup?.rearUnitId))
}

/** Stroke of each unit, mm; null where it is not known. */
export const strokesOf = (g: TravelGeometry): Record<End, number | null> => ({
  front: g.frontTravelMm,
  rear: g.rearStrokeMm,
})
