import type { Surface } from '#contract/conditions'
import type { Effort } from '#contract/run'
import { conditionsAt } from '../conditions/at.ts'
import { trackBetween } from '../conditions/track.ts'
import { canonicalUnits, sayDifference, type UnitChoice } from '../units/choice.ts'
import type { DayHistory, HistoryRun } from './dayHistory.ts'

/** What differs between two runs besides the settings, in words; equal when nothing that matters does. */
export interface Comparable {
  equal: boolean
  differences: string[]
}

/** A gauge and a warm tyre explain this much, psi. */
const tyreBandPsi = 1.5
/** Oil is as thick as before within this, °C. */
const airBandC = 10

const effortWords: Record<Effort, string> = {
  'held-back': 'held back',
  usual: 'as usual',
  'all-out': 'all out',
}
const surfaceNames: Record<Surface, string> = {
  'dry-hard': 'dry and hard',
  'dry-loose': 'dry and loose',
  damp: 'damp',
  wet: 'wet',
  mud: 'muddy',
  snow: 'snow',
}

/**
 * Whether two runs may be compared as if only the settings differed: same units, tyres, ground, air and effort. What was
 * not noted counts as equal; lap times do not enter, a better setup may be why one is quicker. A crash or a warm-up is never compared at all; that is decided before.
 *
 * @param besides what is left out, to see what it did
 */
export function comparable(
  h: DayHistory,
  a: HistoryRun,
  b: HistoryRun,
  units: UnitChoice = canonicalUnits,
  besides: { air?: true } = {},
): Comparable {
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
    if (Math.abs(d) > tyreBandPsi)
      differences.push(`${name} ${sayDifference('pressure', Math.abs(d), units)} apart`)
  }
  const [was, is] = [a, b].map((r) => conditionsAt(h, r.run))
  differences.push(...groundBetween(h, a, b))
  const warmer = (is.airTempC ?? NaN) - (was.airTempC ?? NaN)
  if (!besides.air && Math.abs(warmer) >= airBandC)
    differences.push(
      `${sayDifference('temperature', Math.abs(warmer), units)} ${warmer > 0 ? 'warmer' : 'colder'}`,
    )
  const { effort: e } = a.run
  const { effort: f } = b.run
  if (e && f && e !== f) differences.push(`ridden ${effortWords[e]}, then ${effortWords[f]}`)
  return { equal: differences.length === 0, differences }
}

/** What became of the ground between two runs, in words; empty: nothing that was noted. */
export function groundBetween(h: DayHistory, a: HistoryRun, b: HistoryRun): string[] {
  const [was, is] = [a, b].map((r) => conditionsAt(h, r.run).surface)
  const track = trackBetween(h.hours, a.run, b.run)
  return [
    ...(was === is || was === null || is === null
      ? []
      : [`the ground ${surfaceNames[was]}, then ${surfaceNames[is]}`]),
    ...(track.length ? [`the track ${track.join(' and ')} since`] : []),
  ]
}
