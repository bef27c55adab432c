import type { End } from '#contract/common'
import type { HistoryRun } from './dayHistory.ts'

/** Nobody rides a trail outside of these on the mean of a run, % of travel: then it is the zero or the scale of a sensor. */
const possiblePct = { from: 2, to: 60 }

/** Ends whose sensor shows a ride height that no bike has. */
export function cannotRideThere({ analysis }: Pick<HistoryRun, 'analysis'>): { end: End; pct: number }[] {
  return (['front', 'rear'] as const).flatMap((end) => {
    const pct = analysis?.whole[end]?.rideHeightPct
    return pct !== undefined && (pct < possiblePct.from || pct > possiblePct.to) ? [{ end, pct }] : []
  })
}

export const cannotRideThereWords = ({ end, pct }: { end: End; pct: number }): string =>
  `The ${end} sensor shows a mean of ${Math.round(pct)} % of travel: no bike rides there. Its zero or its scale is off, and its depths count for nothing until it reads 0 with the wheel off the ground.`
