import type { DaySummary } from '#contract/endpoints'

/** "3 counted of 5 runs". */
export const runsWords = (d: DaySummary): string =>
  d.runs === 0 ? 'no run yet' : `${d.countedRuns} counted of ${d.runs} ${d.runs === 1 ? 'run' : 'runs'}`

/** "last 6.5, best 7", in as few words as hold it. */
export const ratingWords = (d: DaySummary): string =>
  d.bestRating === null
    ? 'not rated yet'
    : d.lastRating === d.bestRating
      ? `rated ${d.bestRating}, the best yet`
      : `last ${d.lastRating}, best ${d.bestRating}`
