import type { End } from '#contract/common'
import type { ImportIssue } from '#contract/recording'
import type { Way } from '../geo/way.ts'
import type { Leverage } from '../linkage/leverage.ts'

/** What the file cannot say: how long the units are and how the rear wheel moves. */
export interface TravelGeometry {
  frontTravelMm: number | null
  rearStrokeMm: number | null
  leverage: Leverage | null
  /** Ends with a coil: no chamber to read. */
  coils?: readonly End[]
}

/** Cleaned channels on one uniform clock from 0. */
export interface CleanRecording {
  sampleRateHz: number
  samples: number
  ends: End[]
  /** Depth in % of travel, 0 = extended; NaN = gap. */
  depthPct: Partial<Record<End, Float64Array>>
  /** Travel that 100 % stands for, mm: fork travel, rear axle travel (or shaft stroke). */
  travelMm: Partial<Record<End, number>>
  rearAt: 'axle' | 'shaft'
  speedMS: Float64Array | null
  distanceM: Float64Array | null
  /** Where it went, and when its first fix lies on this clock; not there without positions. */
  way?: { track: Way; offsetS: number }
  /** Accelerations, g. */
  barG: Float64Array | null
  axleG: Partial<Record<End, Float64Array>>
  /** Instant of time 0 in seconds since 1970, where the file's clock tells. */
  startEpochS: number | null
  issues: ImportIssue[]
}
