import { isComplaint, wordRules } from '../../causes/words.ts'
import { moveWords } from '../../setup/diff.ts'
import { reason } from '../cards.ts'
import { changeCard } from '../change.ts'
import { choice, worth } from '../decide.ts'
import { answersOf } from '../remedies.ts'
import type { Rung } from './climb.ts'
import { lastTurn } from './lastTurn.ts'
import { usefulOf } from './useful.ts'

/** From this chance on the last turn counts as having helped. */
const helpedFrom = 0.6

/**
 * The last turn helped, and the complaint it answered is still there: on the same way, before a dial of which nothing was
 * said is tried.
 */
export const goOn: Rung = (c) => {
  const turned = lastTurn(c)
  if (turned?.moves.length !== 1) return null
  const { before, last, feel, better } = turned
  const [move] = turned.moves
  // Gone back to: nothing was turned that could have helped.
  if (before.number > last.number) return null
  const still = feel.marks.filter(
    (m) => isComplaint(m.word) && before.feel?.marks.some((x) => x.word === m.word && x.end === m.end),
  )
  const way = Math.sign(move.to - move.from)
  const cause = c
    .causes()
    .find(
      (x) =>
        x.evidence.some((e) => e.weight > 0 && still.some((m) => m.word === e.link.word)) &&
        answersOf(x.kind, x.end, c.space).some(
          (a) => a.adjuster.id === move.adjuster.id && a.direction === way && !a.standIn,
        ),
    )
  if (!cause || better < helpedFrom) return null
  const { dials } = c.outlook()
  const on = usefulOf(c).find(({ steps: [step, ...more] }) => {
    const by = step.to - step.from
    // No further than the step that helped: the best place may lie between.
    return (
      more.length === 0 &&
      dials[step.dial].adjuster.id === move.adjuster.id &&
      Math.sign(by) === way &&
      Math.abs(by) <= Math.abs(move.to - move.from) + 1e-6
    )
  })
  if (!on || worth(on) < choice.leastWorth) return null
  const card = changeCard(c.h, c.space, dials, on, c.causes(), c.positions)
  const [word] = still
  return {
    ...card,
    speaksFor: [
      reason(
        `${moveWords(move, c.space.units)} helped, and “${wordRules[word.word].label}” is still there`,
        last.run.id,
      ),
      ...card.speaksFor,
    ],
  }
}
