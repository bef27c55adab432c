import { adjusterName, distanceWords, positionNumber } from '../../adjusters/words.ts'
import { clampToRange } from '../../adjusters/range.ts'
import { wordRules } from '../../causes/words.ts'
import type { Normal } from '../../stats/normal.ts'
import { together } from '../../stats/normal.ts'
import { canonicalUnits, say, type UnitChoice } from '../../units/choice.ts'
import { dialsOf, type Dial } from '../dials.ts'
import type { SetupSpace } from '../dayHistory.ts'
import { fallOff, surfacePriors, usualSteepness } from '../surface/model.ts'
import type { Memory, RememberedDial } from './remembered.ts'

/** A place known no better than this is not worth a sentence, click-equivalents. */
const knownWithin = 2.5
const mostDials = 3
/** Width is told only where it was learnt: spread of its logarithm. */
const widthKnownWithin = 0.6
/** The scatter is told only where repeats have shown it: spread of its logarithm. */
const noiseKnownWithin = 0.24
const feltPoints = 0.5
const leastTimes = 3
const leastDrift = 0.05

/** What earlier days taught, in plain sentences, most certain first. */
export function memoryWords(m: Memory, space: SetupSpace): string[] {
  const units = space.units ?? canonicalUnits
  const dials = dialsOf(space)
  const places = m.dials
    .flatMap((x) => {
      const dial = dials.find((d) => d.adjuster.id === x.adjusterId)
      return dial && x.place && x.place.sd <= knownWithin ? [{ dial, x, place: x.place }] : []
    })
    .sort((a, b) => a.place.sd - b.place.sd)
    .slice(0, mostDials)
    .map(({ dial, x, place }) => placeWords(dial, x, place, units))
  const noise =
    m.habit.noiseLogSd > noiseKnownWithin
      ? []
      : [`Ratings on the same settings scatter by about ${m.habit.noiseSd.toFixed(1)} points.`]
  const { mean: gained } = m.habit.drift
  const drift =
    Math.abs(gained) < leastDrift
      ? []
      : [
          `Ratings ${gained > 0 ? 'rise' : 'fall'} by about ${Math.abs(gained).toFixed(1)} points a run by themselves.`,
        ]
  const words = m.words
    .filter((w) => w.times >= leastTimes)
    .sort((a, b) => b.times - a.times)
    .slice(0, 2)
    .map(
      (w) => `“${wordRules[w.word].label}” pointed the right way ${Math.round(w.right)} of ${w.times} times.`,
    )
  return [...places, ...noise, ...drift, ...words]
}

/** "Front rebound: best near 7; 2 clicks either way feel the same to you." */
function placeWords(d: Dial, x: RememberedDial, place: Normal, units: UnitChoice): string {
  const best = rememberedPlace(d, place)
  const end = d.end === 'front' ? 'Front' : 'Rear'
  const number =
    d.adjuster.kind === 'pressure' ? say('pressure', best, units) : positionNumber(d.adjuster, best, units)
  const start = `${end} ${adjusterName(d.adjuster).toLowerCase()}: best near ${number}`
  const width = x.logSteepness && together(usualSteepness(), x.logSteepness)
  if (!width || width.sd > widthKnownWithin) return `${start}.`
  const same = clampToRange(d.adjuster, d.fromClicks(Math.max(d.low, place.mean - unfeltClicks(width.mean))))
  return same === best
    ? `${start}; one step off is felt.`
    : `${start}; ${distanceWords(d.adjuster, best, same, units)} either way feel the same to you.`
}

/** Where a dial can stand, nearest to its remembered best place; canonical. */
export function rememberedPlace(d: Dial, place: Normal): number {
  return clampToRange(d.adjuster, d.fromClicks(Math.min(d.high, Math.max(d.low, place.mean))))
}

/** Click-equivalents off the best place that cost less than what is felt. */
function unfeltClicks(logSteepness: number): number {
  const a = Math.exp(logSteepness)
  const shape = surfacePriors.straightFrom[1]
  let u = 0
  while (u < 6 && a * fallOff(u + 0.1, shape) < feltPoints) u += 0.1
  return u
}
