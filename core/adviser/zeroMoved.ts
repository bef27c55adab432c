import type { End } from '#contract/common'
import type { Analysis, EndMetrics } from '#contract/recording'
import type { Run } from '#contract/run'
import { axlePct } from '../linkage/leverage.ts'
import { ringPrecisionMm, strokePct } from '../spring/sag.ts'
import type { SetupSpace } from './dayHistory.ts'

/** What a sensor's calibration may be off without anybody being wrong, % of travel. */
const calibrationPct = 2.5

/** A sensor that went deeper than the ring, both % of travel where the sensor measures. */
export interface ZeroMoved {
  end: End
  sensorPct: number
  ringPct: number
}

/** What of a run and its figures is held against each other. */
export interface RingAndSensor {
  run: Pick<Run, 'ringFrontMm' | 'ringRearMm'>
  analysis: {
    rearAt: Analysis['rearAt']
    whole: Partial<Record<End, Pick<EndMetrics, 'depthMaxPct'> | null>>
  } | null
}

/**
 * Ends whose sensor shows a deeper point than the ring, beyond what either can be off. A unit cannot go deeper than it
 * pushed its ring: the sensor's zero has moved, or its calibration is of another unit. A ring that stands deeper says
 * nothing, it may have been pushed on the way home.
 */
export function zeroMoved({ run, analysis }: RingAndSensor, space: SetupSpace): ZeroMoved[] {
  return (['front', 'rear'] as const).flatMap((end) => {
    const unit = space[end]
    const ringMm = end === 'front' ? run.ringFrontMm : run.ringRearMm
    const sensorPct = analysis?.whole[end]?.depthMaxPct
    if (!unit || ringMm === null || sensorPct === undefined) return []
    const atSensor = (mm: number) => {
      const pct = strokePct(Math.min(unit.strokeMm, mm), unit.strokeMm)
      const isAxle = end === 'rear' && analysis!.rearAt === 'axle' && space.leverage
      return isAxle ? axlePct(pct, unit.strokeMm, space.leverage!) : pct
    }
    const most = atSensor(ringMm + ringPrecisionMm) + calibrationPct
    return sensorPct > most ? [{ end, sensorPct, ringPct: atSensor(ringMm) }] : []
  })
}

export const zeroMovedWords = ({ end, sensorPct, ringPct }: ZeroMoved): string =>
  `The ${end} sensor went to ${Math.round(sensorPct)} % of travel and the ring only to ${Math.round(ringPct)} %: the sensor’s zero has moved. Its depths count for nothing until it reads 0 with the wheel off the ground; speeds and rhythm still do.`
