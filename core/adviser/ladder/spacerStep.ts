import type { End } from '#contract/common'
import type { ProposedMove } from '#contract/proposal'
import type { Adjuster } from '#contract/adjuster'
import { clampToRange } from '../../adjusters/range.ts'
import { stepWords } from '../change.ts'
import { dialsOf } from '../dials.ts'
import { oneStep } from '../remedies.ts'
import type { Climb } from './climb.ts'
import type { Part } from './readPart.ts'

/** A spacer more or fewer with the pressure that belongs to it: one change. */
export interface SpacerStep {
  dial: Adjuster
  moves: ProposedMove[]
  words: string
}

/** Spacers of an end of which nobody has noted how many are in; null: it is known, or there are none. */
export function unreadSpacers(c: Climb, end: End): Part | null {
  const dial = c.space[end]?.adjusters.find((a) => a.kind === 'spacer')
  return dial && !c.positions.has(dial.id) ? { end, adjuster: dial } : null
}

/**
 * One spacer in (+1) or out (-1), with the pressure that keeps the sag.
 *
 * @param airShare share of that pressure; less than 1 where the end is harsh too
 * @returns null where there is no spacer to move, or nobody has read how many are in
 */
export function spacerStep(c: Climb, end: End, direction: 1 | -1, airShare = 1): SpacerStep | null {
  const dial = dialsOf(c.space).find((d) => d.end === end && d.adjuster.kind === 'spacer')
  const from = dial && c.positions.get(dial.adjuster.id)
  const to = dial && from !== undefined ? oneStep(dial.adjuster, from, direction) : null
  if (!dial || from === undefined || to === null) return null
  const air = c.space[end]!.adjusters.find((a) => a.role === 'main-pressure')
  const psi = air && c.positions.get(air.id)
  const moves = [{ end, adjusterId: dial.adjuster.id, from, to }]
  let words = stepWords(end, dial.adjuster, from, to, c.space)
  if (air?.kind === 'pressure' && psi !== undefined && dial.sameSagPsi) {
    const wanted = dial.sameSagPsi({ from, to }, psi) * airShare
    const rounded = clampToRange(air, Math.round(wanted / air.stepPsi) * air.stepPsi)
    if (Math.abs(rounded - psi) >= air.stepPsi / 2) {
      moves.push({ end, adjusterId: air.id, from: psi, to: rounded })
      const more = stepWords(end, air, psi, rounded, c.space)
      words += `, with ${more.charAt(0).toLowerCase()}${more.slice(1)}`
    }
  }
  return { dial: dial.adjuster, moves, words }
}
