import type { Setup } from '#contract/setup'
import type { SuspensionUnit } from '#contract/unit'
import { canStandAt } from '../adjusters/range.ts'
import { adjusterName, positionWords } from '../adjusters/words.ts'
import { adjusterRange } from '../adjusters/range.ts'
import { diffSetups } from './diff.ts'

export interface SetupFault {
  code: 'unknown-adjuster' | 'out-of-range' | 'not-linked'
  message: string
}

/**
 * What is wrong with a setup for the units it names: positions the part cannot stand in, adjusters it lacks. Empty when
 * it is sound. An adjuster that is not named is unread, which is no fault.
 */
export function checkSetup(setup: Setup, units: readonly SuspensionUnit[]): SetupFault[] {
  const faults: SetupFault[] = []
  const fitted = units.filter((u) => u.id === setup.frontUnitId || u.id === setup.rearUnitId)
  const known = new Map(fitted.flatMap((u) => u.adjusters.map((a) => [a.id, { a, end: u.end }] as const)))
  for (const p of setup.positions) {
    const hit = known.get(p.adjusterId)
    if (!hit || hit.end !== p.end) {
      faults.push({ code: 'unknown-adjuster', message: `The ${p.end} unit has no such adjuster.` })
      continue
    }
    if (canStandAt(hit.a, p.value)) continue
    const r = adjusterRange(hit.a)
    faults.push({
      code: 'out-of-range',
      message: `${p.end === 'front' ? 'Front' : 'Rear'} ${adjusterName(hit.a).toLowerCase()} goes from ${positionWords(hit.a, r.min)} to ${positionWords(hit.a, r.max)}; it cannot stand at ${positionWords(hit.a, p.value)}.`,
    })
  }
  return faults
}

/** Two adjusters moved at once without saying that they belong together. */
export function checkLinked(before: Setup, after: Setup, units: readonly SuspensionUnit[]): SetupFault[] {
  const moves = diffSetups(before, after, units)
  if (
    moves.length < 2 ||
    after.reason.linked ||
    after.reason.source === 'revert' ||
    after.reason.source === 'carried' ||
    after.reason.source === 'reading' ||
    after.reason.source === 'undo' ||
    after.reason.source === 'baseline'
  ) {
    return []
  }
  return [
    {
      code: 'not-linked',
      message: `${moves.length} adjusters were moved; change one, or mark the change as linked if they belong together.`,
    },
  ]
}
