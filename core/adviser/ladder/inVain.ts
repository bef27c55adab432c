import type { FeelWord } from '#contract/run'
import { isComplaint } from '../../causes/words.ts'
import { keyOfRun } from '../history.ts'
import type { Climb } from './climb.ts'

/** Chance of better between these is "nothing felt". */
const undecided = { low: 0.3, high: 0.7 }

/** Settings that were ridden, in the order in which they first were. */
export const riddenKeys = (c: Climb): string[] => [
  ...new Set(c.counted.flatMap((r) => keyOfRun(c.h, r) ?? [])),
]

/**
 * The complaint that stayed over the last so many changes, none of which was felt; null: one of them was, or there were not
 * so many.
 */
export function complaintInVain(c: Climb, changes: number): FeelWord | null {
  const keys = riddenKeys(c)
  if (keys.length <= changes) return null
  const last = keys.slice(-changes - 1)
  const felt = last
    .slice(1)
    .map((key, i) => c.session().chanceOfBetter(last[i], key))
    .some((p) => p < undecided.low || p > undecided.high)
  if (felt) return null
  const runs = c.counted.filter((r) => last.includes(keyOfRun(c.h, r) ?? ''))
  const [first] = runs
  return (
    first.feel?.marks.find(
      (m) =>
        isComplaint(m.word) &&
        runs.every((r) => r.feel?.marks.some((x) => x.word === m.word && x.end === m.end)),
    )?.word ?? null
  )
}
