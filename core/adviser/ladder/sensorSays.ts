import type { End } from '#contract/common'
import { measuredFindings } from '../diagnose.ts'
import type { Climb } from './climb.ts'

/** Figures that speak for a wrong spring by at least this weight have read it, as far as a sensor can. */
const sensorReadsFrom = 0.5

/** A sensor was on this end, and its figures say that the spring is off. */
export function sensorSays(c: Climb, end: End): boolean {
  const last = c.onNow[c.onNow.length - 1]
  if (!last?.analysis?.whole[end]) return false
  const springs = measuredFindings(last, c.space).filter(
    (f) => f.end === end && (f.kind === 'spring-soft' || f.kind === 'spring-firm'),
  )
  return springs.reduce((sum, f) => sum + f.evidence.weight, 0) >= sensorReadsFrom
}
