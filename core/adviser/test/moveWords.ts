import type { ProposedMove } from '#contract/proposal'
import { adjusterName, effectWord } from '../../adjusters/words.ts'
import type { SetupSpace } from '../dayHistory.ts'

/** "rear pressure 180→196 firmer": a proposed move in the fewest words. */
export function moveWordsOf(m: ProposedMove, space: SetupSpace): string {
  const a = space[m.end]!.adjusters.find((x) => x.id === m.adjusterId)!
  return `${m.end} ${adjusterName(a).toLowerCase()} ${m.from}→${m.to} ${effectWord(a, m.from, m.to)}`
}
