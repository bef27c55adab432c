import type { DayHistory, HistoryRun } from './dayHistory.ts'

/** What differs between two runs besides the settings, in words; equal when nothing that matters does. */
export interface Comparable {
  equal: boolean
  differences: string[]
}

/** A gauge and a warm tyre explain this much, psi. */
const tyreBandPsi = 1.5

/**
 * Whether two runs may be compared as if only the settings differed: same units, tyres and ground.
 * A crash or a warm-up is never compared at all; that is decided before.
 */
export function comparable(h: DayHistory, a: HistoryRun, b: HistoryRun): Comparable {
  const differences: string[] = []
  const [x, y] = [a, b].map((r) => h.setups.find((s) => s.id === r.run.setupId))
  if (x && y) {
    if (x.frontUnitId !== y.frontUnitId) differences.push('another fork')
    if (x.rearUnitId !== y.rearUnitId) differences.push('another shock')
  }
  for (const [key, name] of [
    ['tyreFrontPsi', 'front tyre'],
    ['tyreRearPsi', 'rear tyre'],
  ] as const) {
    const d = (a.run[key] ?? NaN) - (b.run[key] ?? NaN)
    if (Math.abs(d) > tyreBandPsi) differences.push(`${name} ${Math.abs(d).toFixed(1)} psi apart`)
  }
  if (surfaceOf(h, a) !== surfaceOf(h, b)) differences.push('another surface')
  return { equal: differences.length === 0, differences }
}

const surfaceOf = (h: DayHistory, r: HistoryRun) => r.run.surface ?? h.conditions.surface
