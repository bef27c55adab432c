import { separatingCard } from '../change.ts'
import { remedyMoves } from '../remedies.ts'
import type { Rung } from './climb.ts'
import { likelyFrom, usefulOf } from './useful.ts'

const lookAlikeFactor = 2
const knownFrom = 0.8

/** The likeliest causes ask for opposite turns of one dial that nobody has moved yet: find out first. */
export const separate: Rung = (c) => {
  const { h, space, positions } = c
  const s = c.outlook()
  const answers = c.causes().flatMap((cause) => {
    const [move] = remedyMoves(cause.kind, cause.end, space, positions)
    return move && !move.sideEffect ? [{ cause, move }] : []
  })
  const [first] = answers
  if (!first || first.cause.probability < likelyFrom) return null
  const id = first.move.adjuster.id
  const rival = answers.find(
    (a) => a !== first && a.move.adjuster.id === id && a.move.direction !== first.move.direction,
  )
  if (!rival || first.cause.probability >= lookAlikeFactor * rival.cause.probability) return null
  const tried = new Set(h.setups.map((x) => x.positions.find((p) => p.adjusterId === id)?.value))
  if (tried.size > 1) return null
  const probe = usefulOf(c).find(
    (x) =>
      x.steps.length === 1 && s.dials[x.steps[0].dial].adjuster.id === id && x.steps[0].to === first.move.to,
  )
  // What was ridden, today or before, leans one way already: the turn itself is the better test.
  const known = probe && (probe.better >= knownFrom || probe.better <= 1 - knownFrom)
  return probe && !known
    ? separatingCard(h, space, s.dials, probe, first.cause, rival.cause, c.causes(), positions)
    : null
}
