import type { Candidate } from '../candidates.ts'
import { comparable } from '../comparable.ts'
import { answersOf } from '../remedies.ts'
import type { Climb } from './climb.ts'
import { causesOf, complaintsOf } from './complaint.ts'
import { lastTurn } from './lastTurn.ts'

/** From this chance on a turn that was ridden once helped for sure enough not to be taken back at once. */
const helpedForSure = 0.8

/**
 * Against what the last turn has just shown: a part of it taken back after one ride that was clearly better, or the same
 * dial further the same way after a ride that was said to be worse. Where the complaint asks for it, it may be taken back.
 */
export function againstLastTurn(c: Climb): (x: Candidate) => boolean {
  const turn = lastTurn(c)
  if (!turn) return () => false
  const { before, last, feel, moves, better } = turn
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
  const said = feel.verdicts.find((v) => v.againstRunId === before.run.id)
  const isWorse =
    said !== undefined &&
    said.value < 0 &&
    (feel.rating ?? 0) <= (before.feel?.rating ?? 10) &&
    comparable(c.h, last, before).equal
  return (x) => isWorse && steps(x, 1).length > 0
}
