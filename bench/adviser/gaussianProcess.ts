import { answersOf } from '#core/adviser/remedies'
import { stepsOf } from '#core/adviser/candidates'
import { markCauses } from '#core/causes/marks'
import { isComplaint } from '#core/causes/words'
import { cholesky, choleskySolve } from '#core/stats/solve'
import type { TestRider } from './riders.ts'
import type { Positions } from '#core/practice/landscape'
import type { Strategy } from './strategy.ts'

/** Length scale, clicks; spread of the surface and of its level; noise; all rating points. */
const peer = { length: 4, signalSd: 1.6, levelMean: 6.5, levelSd: 1.5, noiseSd: 0.7, boldness: 0.8 }
/** What a word is worth: a slope toward its causes, rating points a click, and its scatter. */
const slope = { mean: 0.5, sd: 0.5 }

interface Observation {
  at: Float64Array
  /** null: a rating; else the dial whose slope was said. */
  dial: number | null
  value: number
  variance: number
}

/**
 * The plain peer: a Gaussian process with fixed length scales, ratings as values and words as slopes; rides the
 * candidate of the largest mean plus spread among single changes from its best place, and never settles.
 * Source: Rasmussen & Williams, Gaussian Processes, 2.2 and 9.4 (derivative observations).
 */
export function gaussianProcess(rider: TestRider): Strategy {
  const K = rider.dials.length
  const clicks = (p: Positions) => Float64Array.from(rider.dials, (d) => d.toClicks(p[d.adjuster.id]))
  const seen: Observation[] = []
  const ridden: Positions[] = []
  let now = { ...rider.start }
  let best = now
  const l2 = peer.length ** 2
  const covariance = (a: Observation, b: Observation) => {
    let square = 0
    for (let k = 0; k < K; k++) square += (a.at[k] - b.at[k]) ** 2
    const k = peer.signalSd ** 2 * Math.exp(-square / (2 * l2))
    if (a.dial === null && b.dial === null) return k + peer.levelSd ** 2
    const d = (x: Observation, y: Observation, dial: number) => (x.at[dial] - y.at[dial]) / l2
    if (a.dial === null) return k * d(a, b, b.dial!)
    if (b.dial === null) return k * d(b, a, a.dial)
    return k * ((a.dial === b.dial ? 1 / l2 : 0) - d(a, b, a.dial) * d(a, b, b.dial))
  }
  return {
    keep: () => best,
    next: (felt) => {
      const at = clicks(now)
      ridden.push(now)
      seen.push({ at, dial: null, value: felt.rating - peer.levelMean, variance: peer.noiseSd ** 2 })
      for (const mark of felt.marks) {
        if (!isComplaint(mark.word) || mark.end === 'both') continue
        const causes = markCauses(mark.word, mark.end, null)
        const weights = causes.map((c) => Math.exp(2 * c.weight))
        const total = weights.reduce((s, w) => s + w, 0)
        causes.forEach((c, i) => {
          const [a] = answersOf(c.kind, c.end, rider.space)
          const dial = a ? rider.dials.findIndex((d) => d.adjuster.id === a.adjuster.id) : -1
          const share = weights[i] / total
          if (dial >= 0)
            seen.push({ at, dial, value: a.direction * slope.mean * share, variance: slope.sd ** 2 / share })
        })
      }
      const n = seen.length
      const matrix = new Float64Array(n * n)
      for (let i = 0; i < n; i++)
        for (let j = 0; j < n; j++)
          matrix[i * n + j] = covariance(seen[i], seen[j]) + (i === j ? seen[i].variance : 0)
      const factor = cholesky(matrix, n)
      const weights = choleskySolve(
        factor,
        n,
        Float64Array.from(seen, (o) => o.value),
      )
      const guess = (p: Positions) => {
        const o: Observation = { at: clicks(p), dial: null, value: 0, variance: 0 }
        const k = Float64Array.from(seen, (s) => covariance(o, s))
        const solved = choleskySolve(factor, n, k)
        let [mean, variance] = [0, peer.signalSd ** 2 + peer.levelSd ** 2]
        for (let i = 0; i < n; i++) {
          mean += k[i] * weights[i]
          variance -= k[i] * solved[i]
        }
        return { mean, sd: Math.sqrt(Math.max(0, variance)) }
      }
      best = ridden.reduce((b, p) => (guess(p).mean > guess(b).mean ? p : b), ridden[0])
      const around = [
        best,
        ...rider.dials.flatMap((d) =>
          stepsOf(d, best[d.adjuster.id]).map((to) => ({ ...best, [d.adjuster.id]: to })),
        ),
      ]
      const worth = around.map((p) => {
        const g = guess(p)
        return g.mean + peer.boldness * g.sd
      })
      now = around[worth.indexOf(Math.max(...worth))]
      return { ride: now, settled: false }
    },
  }
}
