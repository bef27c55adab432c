import type { Candidate } from '../candidates.ts'
import { answersOf } from '../remedies.ts'
import type { Climb } from './climb.ts'
import { causesOf, complaintsOf } from './complaint.ts'
import { helpedForSure, lastTurn, wasWorse } from './lastTurn.ts'

/**
 * Against what the last turn has just shown: a part of it taken back after one ride that was clearly better, or the same
 * dial further the same way after a ride that was said to be worse. Where the complaint asks for it, it may be taken back.
 */
export function againstLastTurn(c: Climb): (x: Candidate) => boolean {
  const turn = lastTurn(c)
  if (!turn) return () => false
  const { moves, better } = turn
  const { dials } = c.outlook()
  const way = new Map(moves.map((m) => [m.adjuster.id, Math.sign(m.to - m.from)]))
  const steps = (x: Candidate, sign: 1 | -1) =>
    x.steps.filter((s) => way.get(dials[s.dial].adjuster.id) === sign * Math.sign(s.to - s.from))
  if (better >= helpedForSure && c.onNow.length === 1) {
    const asked = causesOf(c, complaintsOf(c)).flatMap((x) => answersOf(x.kind, x.end, c.space))
    return (x) =>
      steps(x, -1).some(
        (s) =>
          !asked.some(
            (a) => a.adjuster.id === dials[s.dial].adjuster.id && a.direction === Math.sign(s.to - s.from),
          ),
      )
  }
  const isWorse = wasWorse(c, turn)
  return (x) => isWorse && steps(x, 1).length > 0
}
