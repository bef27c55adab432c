import type { End } from '#contract/common'
import { cannotRideThere } from './cannotRideThere.ts'
import type { HistoryRun, SetupSpace } from './dayHistory.ts'
import { zeroMoved } from './zeroMoved.ts'

/** Ends whose sensor shows depths that cannot be, by the ring or by themselves: what rests on its zero says nothing. */
export const unbelievedEnds = (r: HistoryRun, space: SetupSpace): End[] =>
  [...zeroMoved(r, space), ...cannotRideThere(r)].map((x) => x.end)
