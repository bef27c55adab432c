import { z } from 'zod'
import { Id } from './common.ts'
import { EndMetrics } from './recording.ts'

/**
 * What a recording says of one end in a few numbers, of the whole run; as in EndMetrics. Depths are null where the sensor's
 * zero had moved: they said nothing.
 */
export const EndFigures = EndMetrics.pick({
  rideHeightPct: true,
  depthP95Pct: true,
  supportPct: true,
  smallBumpPct: true,
  valleyDriftPctPerHit: true,
  reboundP95MmS: true,
  diveRisePct: true,
}).extend({
  rideHeightPct: EndMetrics.shape.rideHeightPct.nullable(),
  depthP95Pct: EndMetrics.shape.depthP95Pct.nullable(),
})
export type EndFigures = z.infer<typeof EndFigures>

/** The same of a counted run with a recording; null: no sensor at that end. */
export const RunFigures = z.strictObject({
  runId: Id,
  setupId: Id,
  dayId: Id,
  trailId: Id,
  front: EndFigures.nullable(),
  rear: EndFigures.nullable(),
})
export type RunFigures = z.infer<typeof RunFigures>
