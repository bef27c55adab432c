import type { End } from '#contract/common'
import type { FeelWord } from '#contract/run'
import { facts } from '../causes/factRules.ts'
import { strokePct } from '../spring/sag.ts'
import type { HistoryRun, SetupSpace } from './dayHistory.ts'
import { unbelievedEnds } from './unbelieved.ts'

/** Bottoming may be felt in the last of the travel, where a bumper takes the hit; below it something else knocks, %. */
const endFeltFromPct = 85
/** A calibrated sensor is off by less than what lies between these and the end, % of travel. */
const sensorShortPct = 90
const sensorFullPct = 97

/** How deep an end went on a run, % of travel, and what showed it. */
export interface Deepest {
  pct: number
  by: 'ring' | 'sensor'
}

const ringPct = ({ run }: HistoryRun, end: End, space: SetupSpace): number | null => {
  const mm = end === 'front' ? run.ringFrontMm : run.ringRearMm
  const unit = space[end]
  return mm === null || !unit ? null : strokePct(mm, unit.strokeMm)
}
const sensorOf = (r: HistoryRun, end: End, space: SetupSpace) =>
  unbelievedEnds(r, space).includes(end) ? null : (r.analysis?.whole[end] ?? null)

/** Whether anything shows how deep an end went on a run. */
export const showsDepth = (r: HistoryRun, end: End, space: SetupSpace): boolean =>
  ringPct(r, end, space) !== null || sensorOf(r, end, space) !== null

/** Where it never came near the end of its stroke. A ring may be pushed deeper on the way home, never less deep: it goes before a sensor. */
export function stoppedShort(r: HistoryRun, end: End, space: SetupSpace): Deepest | null {
  const ring = ringPct(r, end, space)
  if (ring !== null) return ring < endFeltFromPct ? { pct: ring, by: 'ring' } : null
  const seen = sensorOf(r, end, space)
  return seen && seen.bottomOuts === 0 && seen.depthMaxPct < sensorShortPct
    ? { pct: seen.depthMaxPct, by: 'sensor' }
    : null
}

/** Where all of its travel was used. */
export function usedItAll(r: HistoryRun, end: End, space: SetupSpace): Deepest | null {
  const seen = sensorOf(r, end, space)
  if (seen && (seen.bottomOuts > 0 || seen.depthMaxPct >= sensorFullPct))
    return { pct: seen.depthMaxPct, by: 'sensor' }
  const ring = ringPct(r, end, space)
  return ring !== null && ring >= facts.ringFullPct ? { pct: ring, by: 'ring' } : null
}

/** A word about the end of the stroke that ring or sensor of the same run show not to be so: it is no evidence of a spring or ramp. */
export function isRefuted(word: FeelWord, end: End, r: HistoryRun, space: SetupSpace): boolean {
  if (word === 'unused-travel') return usedItAll(r, end, space) !== null
  return (word === 'bottoms' || word === 'harsh-and-bottoms') && stoppedShort(r, end, space) !== null
}
