import type { Normal } from '../../stats/normal.ts'
import { sessionPriors } from '../../stats/session.ts'

/** A rating (`b` alone) or a difference said between two runs (`b` against `a`); indexes into `points`. */
export interface RatedRow {
  a: number | null
  b: number
  value: number
  /** Multiplies the noise variance of a rating; a run ridden nervous says less. */
  noiseTimes: number
  /** Added to the variance, rating points squared. */
  extraVariance: number
  /** The top of the scale: it stands for anything from there on. */
  atTop: boolean
}

/** A word: it speaks for each of its causes by a share, and may be misled. */
export interface Clue {
  point: number
  /** Likelihood that is there whatever stands where: being misled, and causes that no dial answers. */
  floor: number
  /** The only complaint of its run: of all that is felt, the worst is named. */
  only: boolean
  parts: { dial: number; direction: 1 | -1; share: number }[]
  /** Clicks off from which it is said so strongly, and from which it would have been said more strongly. */
  feltFrom: number
  fadesFrom: number
}

/** A measured finding: log-likelihood weight for "this dial wants to go this way". */
export interface Hint {
  point: number
  dial: number
  direction: 1 | -1
  weight: number
}

/** A run in which nothing was said against a dial: it is the less likely to stand far off. */
export interface Silence {
  point: number
  dial: number
  /** Chance that a dial that stands far off would have been named. */
  weight: number
}

/** What is believed of a dial before anything was ridden, click-equivalents. */
export interface DialPrior {
  low: number
  high: number
  /** Where its best place is expected. */
  expected: number
  expectedSd: number
  /** Logarithm of the steepness: a ninth of the points lost three clicks off. */
  logSteepness: Normal
}

/** How this rider rates: scatter of a rating, its logarithm's spread, and points gained a run. */
export interface Habit {
  noiseSd: number
  noiseLogSd: number
  drift: Normal
}

/** Everything known of a day, with every position in click-equivalents (see dials.ts). */
export interface SurfaceData {
  dials: DialPrior[]
  habit: Habit
  /** Positions of each run, one number per dial, and its place in the day. */
  points: { at: Float64Array; index: number }[]
  rows: RatedRow[]
  clues: Clue[]
  hints: Hint[]
  silences: Silence[]
}

/** Samples of "where is the best place, how steeply does it fall off, how noisy is a rating". */
export interface ResponseSurface {
  /** Best place per sample and dial, click-equivalents, inside the range; sample-major. */
  best: Float64Array
  /** A ninth of the points lost three click-equivalents off, per sample and dial; sample-major. */
  steepness: Float64Array
  noiseSd: Float64Array
  /** Shape of the fall-off per sample, see `fallOff`. */
  straightFrom: Float64Array
  samples: number
  dials: number
  /** Departure of each run's settings from the bowl, posterior mean, rating points. */
  residual: Float64Array
  /** Rating points lost against the best place, per sample. */
  lossAt: (at: ArrayLike<number>) => Float64Array
}

/** All constants of the surface; documented in docs/models.md, "Next change". */
export const surfacePriors = {
  /** Passes over all dials on a usual day. */
  sweeps: 2000,
  /** The place where the day began is about this far from the best one, click-equivalents. */
  expectedSd: 3.5,
  /** Taste and readings put the best pressure this far from the sag target, click-equivalents of 2 %. */
  sagExpectedSd: 2.5,
  /** Rating points lost three clicks off, median, and the spread of its logarithm. */
  lossThreeClicksOff: 1,
  steepnessLogSd: 0.75,
  levelMean: 8.2,
  levelSd: 1,
  /** Wider than in a comparison of two setups: riders who learn a track gain a quarter of a point a run. */
  driftSd: 0.15,
  /** Nobody gains or tires at that rate all day: it wears off with this many runs. */
  driftRuns: 15,
  /** What learning the track brings in all, rating points, most of it in this many runs. */
  learningSd: 0.4,
  learningRuns: 6,
  noiseSd: sessionPriors.noiseSd,
  noiseLogSd: 0.3,
  /** Departure from a bowl: Matérn 5/2, rating points and click-equivalents. */
  residualSd: 0.3,
  residualLength: 3,
  /** A cause shows in figures from about this far off, and how sharply that sets in, click-equivalents. */
  feltFrom: 0.6,
  feltSharpness: 3,
  /** How much rarer a mild word gets when a strong one would be due. */
  fade: 0.6,
  /**
   * Who names one thing names the worst: what a dial takes off the rating, squared, against that of all dials together
   * and what is hardly felt, rating points.
   */
  hardlyFelt: 0.15,
  /** A slip names any one thing of many; held against the one that is worst, it counts by so much. */
  onlyFloor: 0.3,
  /** Nobody names a dial this near its best place; beyond that by `silentFade` it is fully off. */
  silentWithin: 0.7,
  silentFade: 1.5,
  /** Shapes: clicks from which ratings fall in a straight line, or a flat bottom; equally likely beforehand. */
  straightFrom: [0.6, 1.5, 4, Infinity],
  /** Half the width of a flat bottom, click-equivalents. */
  flatWithin: 1,
}

/** Runs at the rate of the first that a day has drifted by at run `index`, as it wears off. */
export const drifted = (index: number) => {
  const { driftRuns } = surfacePriors
  return driftRuns * (1 - Math.exp(-(index - 1) / driftRuns))
}

/** Of a rider of whom nothing is known yet. */
export const usualHabit = (): Habit => ({
  noiseSd: surfacePriors.noiseSd,
  noiseLogSd: surfacePriors.noiseLogSd,
  drift: { mean: 0, sd: surfacePriors.driftSd },
})
export const usualSteepness = (): Normal => ({
  mean: Math.log(surfacePriors.lossThreeClicksOff / 9),
  sd: surfacePriors.steepnessLogSd,
})

/** How much a cause is present when its remedy would still go `u` clicks the right way; 0 … 1. */
export function presence(u: number, feltFrom = surfacePriors.feltFrom): number {
  return 1 / (1 + Math.exp(-surfacePriors.feltSharpness * (u - feltFrom)))
}

/** How likely a word of a clue's strength is when its remedy would still go `u` clicks the right way; 0 … 1. */
export function sayable(u: number, c: Clue): number {
  const rise = presence(u, c.feltFrom)
  return c.fadesFrom < 9 ? rise * (1 - surfacePriors.fade * presence(u, c.fadesFrom)) : rise
}

/** What is there whatever stands where, as it is held against what the dials would have said. */
export const floorOf = (c: Pick<Clue, 'floor' | 'only'>): number =>
  c.only ? c.floor * surfacePriors.onlyFloor : c.floor

/** How loud a loss is among others when one thing is named. @param loss rating points */
export const loudness = (loss: number): number => loss * loss

/**
 * How ratings fall off `u` clicks from the best place: u² near it, straight further out (pseudo-Huber), or u² beyond a
 * flat bottom; and 9 at three clicks whatever the shape. The shape is learned: some riders feel the first click, some not.
 * @param straightFrom clicks; Infinity: flat-bottomed
 */
export function fallOff(u: number, straightFrom: number): number {
  if (straightFrom === Infinity) {
    const { flatWithin } = surfacePriors
    const x = Math.max(0, Math.abs(u) - flatWithin) / (3 - flatWithin)
    return 9 * x * x
  }
  if (straightFrom !== scaledShape) {
    scaledShape = straightFrom
    scale = 9 / (Math.sqrt(1 + 9 / (straightFrom * straightFrom)) - 1)
  }
  const x = u / straightFrom
  return scale * (Math.sqrt(1 + x * x) - 1)
}
/** The scale of the shape that was asked last: it is asked many thousand times in a row. */
let scaledShape = NaN
let scale = NaN

/** 0 near the best place, 1 where a dial would be named if anything is. */
export function farOff(u: number): number {
  const x = (Math.abs(u) - surfacePriors.silentWithin) / surfacePriors.silentFade
  return x <= 0 ? 0 : x >= 1 ? 1 : x
}
