import type { DayBundle } from '#contract/endpoints'
import type { End } from '#contract/common'
import type { Run } from '#contract/run'
import { notedAt } from '#core/conditions/at'
import { logOf } from '#core/conditions/log'
import { strokePct } from '#core/spring/sag'
import { say, type UnitChoice } from '#core/units/choice'
import { durationWords } from './dates.ts'
import { effortWords, mindWords, surfaceWords } from './words.ts'

/** What was noted of a run besides its feel, in words; only what somebody noted. */
export function runFacts(b: DayBundle, run: Run, units: UnitChoice): { name: string; words: string }[] {
  const setup = b.setups.find((s) => s.id === run.setupId)
  const ring = (end: End) => {
    const mm = end === 'front' ? run.ringFrontMm : run.ringRearMm
    const unitId = end === 'front' ? setup?.frontUnitId : setup?.rearUnitId
    const stroke = b.units.find((u) => u.id === unitId)?.strokeMm
    if (mm === null) return null
    return `${say('length', mm, units)}${stroke ? `, ${Math.round(strokePct(mm, stroke))} % of travel` : ''}`
  }
  const here = notedAt(logOf(b).hours, run)
  const pressure = (psi: number | null) => psi && say('pressure', psi, units)
  const all: [string, string | number | null][] = [
    ['Time', run.durationS === null ? null : durationWords(run.durationS)],
    ['Ridden', run.effort && effortWords[run.effort]],
    ['Front ring', ring('front')],
    ['Rear ring', ring('rear')],
    ['Front bottom-outs heard', run.heardBottomsFront],
    ['Rear bottom-outs heard', run.heardBottomsRear],
    ['Front tyre', pressure(run.tyreFrontPsi)],
    ['Rear tyre', pressure(run.tyreRearPsi)],
    ['Air', here.airTempC === null ? null : say('temperature', here.airTempC, units)],
    ['Altitude', here.altitudeM === null ? null : say('altitude', here.altitudeM, units)],
    ['Surface', here.surface && surfaceWords[here.surface]],
    ['State of mind', run.mind === 'normal' ? null : mindWords[run.mind]],
    ['Note', run.note || null],
  ]
  return all.flatMap(([name, words]) => (words === null ? [] : [{ name, words: String(words) }]))
}

/** The same as one line. */
export const factsLine = (b: DayBundle, run: Run, units: UnitChoice): string =>
  runFacts(b, run, units)
    .map((f) => (f.name === 'Note' ? `“${f.words}”` : `${f.name.toLowerCase()} ${f.words}`))
    .join(' · ')

/** Facts of two runs side by side; a row for all that was noted of either. */
export function factsOfBoth(
  b: DayBundle,
  first: Run,
  second: Run,
  units: UnitChoice,
): { name: string; a: string; b: string }[] {
  const [x, y] = [first, second].map((r) => new Map(runFacts(b, r, units).map((f) => [f.name, f.words])))
  return [...new Set([...x.keys(), ...y.keys()])].map((name) => ({
    name,
    a: x.get(name) ?? 'not noted',
    b: y.get(name) ?? 'not noted',
  }))
}
