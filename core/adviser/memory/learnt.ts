import type { End } from '#contract/common'
import type { Conditions } from '#contract/conditions'
import type { FeelWord } from '#contract/run'
import { isComplaint } from '../../causes/words.ts'
import { beyond, cutNormal, type Normal } from '../../stats/normal.ts'
import { knownOf, movedToday } from '../decide.ts'
import type { Fitted } from '../lastAnswers.ts'
import type { DayHistory, SetupSpace } from '../dayHistory.ts'
import { countedRuns, sessionOf } from '../history.ts'
import { floorOf, usualHabit } from '../surface/model.ts'
import { clueLikelihood } from '../surface/samples.ts'

/** A day that is over, and where it was. */
export interface EarlierDay {
  /** YYYY-MM-DD. */
  date: string
  trailId: string
  history: DayHistory
  space: SetupSpace
}

/** What a day itself taught of a dial, without what was believed before it; null: nothing. */
export interface LearntDial {
  end: End
  adjusterId: string
  /** Best place, canonical unit of the part, and its spread in click-equivalents. */
  place: { value: number; sdClicks: number } | null
  /** Logarithm of a ninth of the points lost three click-equivalents off. */
  logSteepness: Normal | null
}

/** What one day taught of a rider on a bike. A plain value. */
export interface Learnt {
  dayId: string
  /** YYYY-MM-DD. */
  date: string
  trailId: string
  conditions: Conditions
  /** Counted, rated runs it rests on. */
  runs: number
  dials: LearntDial[]
  /** Median time of its timed counted runs, s. */
  lapS: number | null
  /** Logarithm of the scatter of a rating, rating points. */
  logNoise: Normal | null
  /** Points gained a run. */
  drift: Normal
  /** Complaints: how often said, and how many of them pointed at what stood off, by the end of the day. */
  words: { word: FeelWord; times: number; right: number }[]
}

/** A day with fewer rated runs teaches nothing that lasts. */
const leastRuns = 3

/**
 * What a day taught, by the posterior of its own surface: marginals of each dial's best place and width with the prior
 * divided out (Gaussian), scatter, drift and how often each word pointed right. null: too little was ridden.
 */
export function learnFrom({ date, trailId, history, space }: EarlierDay): Learnt | null {
  const runs = countedRuns(history).filter((r) => typeof r.feel?.rating === 'number').length
  if (runs < leastRuns) return null
  // Each day for itself: what an earlier one taught would be counted twice.
  const alone = { ...history, memory: null }
  const s = knownOf(alone, space)
  const session = sessionOf(alone)
  const usual = usualHabit()
  const moved = movedToday(alone)
  return {
    dayId: history.dayId,
    date,
    trailId,
    conditions: history.conditions,
    runs,
    dials: s.dials.map((d, k) => {
      // A dial that was never tried elsewhere is not known, however good the day was.
      const known = moved.has(d.adjuster.id) ? ofDial(s, k) : { place: null, logSteepness: null }
      return { end: d.end, adjusterId: d.adjuster.id, ...known }
    }),
    lapS: median(countedRuns(alone).flatMap((r) => r.run.durationS ?? [])),
    logNoise: beyond(moments(Float64Array.from(s.surface.noiseSd, Math.log)), {
      mean: Math.log(usual.noiseSd),
      sd: usual.noiseLogSd,
    }),
    drift: { mean: session.driftPerRun, sd: session.driftSd },
    words: wordsOf(alone, s),
  }
}

function ofDial({ dials, data, surface }: Fitted, k: number): Pick<LearntDial, 'place' | 'logSteepness'> {
  const column = (x: Float64Array) =>
    Float64Array.from({ length: surface.samples }, (_, i) => x[i * surface.dials + k])
  const prior = data.dials[k]
  const place = beyond(
    moments(column(surface.best)),
    cutNormal({ mean: prior.expected, sd: prior.expectedSd }, prior.low, prior.high),
  )
  return {
    place: place && {
      value: dials[k].fromClicks(Math.min(prior.high, Math.max(prior.low, place.mean))),
      sdClicks: place.sd,
    },
    logSteepness: beyond(moments(column(surface.steepness).map(Math.log)), prior.logSteepness),
  }
}

/** Posterior chance of each complaint that it was no slip: 1 − floor ÷ likelihood, over the samples. */
function wordsOf(h: DayHistory, { data, surface }: Fitted): Learnt['words'] {
  const said = countedRuns(h).flatMap((r, point) =>
    (r.feel?.marks ?? []).flatMap((m) =>
      isComplaint(m.word) ? (m.end === 'both' ? [m, m] : [m]).map(({ word }) => ({ point, word })) : [],
    ),
  )
  const found = new Map<FeelWord, { word: FeelWord; times: number; right: number }>()
  data.clues.forEach((clue, i) => {
    const { word } = said[i]
    const likelihood = clueLikelihood(surface, data, clue)
    const right = likelihood.reduce((t, l) => t + 1 - floorOf(clue) / l, 0) / surface.samples
    const before = found.get(word) ?? { word, times: 0, right: 0 }
    found.set(word, { word, times: before.times + 1, right: before.right + right })
  })
  return [...found.values()]
}

function median(x: number[]): number | null {
  const sorted = [...x].sort((a, b) => a - b)
  return sorted.length > 0 ? sorted[Math.floor(sorted.length / 2)] : null
}

function moments(x: ArrayLike<number>): Normal {
  let [sum, squares] = [0, 0]
  for (let i = 0; i < x.length; i++) {
    sum += x[i]
    squares += x[i] * x[i]
  }
  const mean = sum / x.length
  return { mean, sd: Math.sqrt(Math.max(1e-9, squares / x.length - mean * mean)) }
}
