import type { Bike } from '#contract/bike'
import type { SuspensionUnit } from '#contract/unit'
import { leverageOf } from '../linkage/leverage.ts'
import type { TravelGeometry } from './cleanRecording.ts'

/** Units and linkage that a recording is read with; a missing unit leaves its end unread. */
export function travelGeometry(
  bike: Bike,
  front: SuspensionUnit | null,
  rear: SuspensionUnit | null,
): TravelGeometry {
  const unitAt = { front, rear }
  return {
    frontTravelMm: front?.strokeMm ?? null,
    rearStrokeMm: rear?.strokeMm ?? null,
    leverage: rear ? leverageOf(bike, rear.strokeMm) : null,
    coils: (['front', 'rear'] as const).filter((end) => unitAt[end]?.spring === 'coil'),
  }
}
