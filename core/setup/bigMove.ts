import type { Adjuster } from '#contract/adjuster'
import { distanceWords, effectWord } from '../adjusters/words.ts'
import type { UnitChoice } from '../units/choice.ts'
import type { Move } from './diff.ts'

/** Beyond these a turn is more likely a slip of the hand than a step: clicks, psi, share of the range, pieces. */
const usual = { clicks: 4, psi: 10, rangeShare: 0.3, pieces: 1 } as const

/** Whether a move goes far beyond a usual step of its part. A lever has no steps, and a spring goes one at a time. */
export function isBigMove({ adjuster, from, to }: Pick<Move, 'adjuster' | 'from' | 'to'>): boolean {
  const far = Math.abs(to - from)
  return far > mostOf(adjuster) + 1e-6
}

function mostOf(a: Adjuster): number {
  switch (a.kind) {
    case 'click':
      return usual.clicks * Math.max(1, a.step)
    case 'pressure':
      return usual.psi
    case 'turn':
      return usual.rangeShare * a.turns
    case 'custom':
      return usual.rangeShare * (a.max - a.min)
    case 'spacer':
      return usual.pieces
    case 'spring-rate':
    case 'lever':
      return Infinity
  }
}

/** "6 clicks slower in one go is more than a usual step; a slip?" */
export function bigMoveWords(m: Move, units?: UnitChoice): string {
  return `${distanceWords(m.adjuster, m.from, m.to, units)} ${effectWord(m.adjuster, m.from, m.to)} in one go is more than a usual step. Press again if it is meant.`
}
