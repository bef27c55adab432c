import { median } from '../signal/quantile.ts'

export const repeatRules = {
  /** Steps of so many times the resolution: while a channel moves like that, no two readings of it are the same. */
  largeSteps: 4,
  leastSteps: 50,
  /** Share of those steps before which the channel stood still. */
  heldShare: 0.8,
} as const

/**
 * Takes out repeats, in place: a logger that writes a row for its fastest sensor says the last reading of a slower one again
 * in every row until there is another. Read as they stand, the steps between would be hits at several times the speed.
 * What is taken out becomes a gap between two readings, to be bridged like any.
 *
 * @param x readings in the order of the file; NaN = gap
 * @returns in every how manieth row the channel is written anew; null where it is in every row
 */
export function takeOutRepeats(x: Float64Array): number | null {
  const every = rowsHeld(x)
  if (every === null) return null
  for (let from = 0; from < x.length;) {
    const to = endOfRun(x, from)
    // A bike that stands still says the same for long: then every so manieth reading was one.
    for (let i = from + 1; i < to; i++) {
      const isReading = (i - from) % every === 0 && to - i > every / 2
      if (!isReading) x[i] = NaN
    }
    from = to
  }
  return every
}

function rowsHeld(x: Float64Array): number | null {
  const r = repeatRules
  let resolution = Infinity
  for (let i = 1; i < x.length; i++) {
    const step = Math.abs(x[i] - x[i - 1])
    if (step > 0 && step < resolution) resolution = step
  }
  const runs: number[] = []
  let steps = 0
  for (let from = 0; from < x.length;) {
    const to = endOfRun(x, from)
    if (to < x.length && Math.abs(x[to] - x[from]) >= r.largeSteps * resolution) {
      steps++
      if (to - from > 1) runs.push(to - from)
    }
    from = to
  }
  return steps >= r.leastSteps && runs.length >= r.heldShare * steps ? Math.round(median(runs)) : null
}

/** First sample after `from` that says something else; a gap is a run of one. */
function endOfRun(x: Float64Array, from: number): number {
  let to = from + 1
  while (to < x.length && x[to] === x[from]) to++
  return to
}
