import type { Shape } from '#core/practice/landscape'
import type { Manner } from '#core/practice/speech'

type Range = readonly [number, number]

/** A kind of rider and bike; each rider draws its own numbers from these ranges. */
export interface Family {
  name: string
  dials: Range
  /** How many dials stand wrong, and by how many clicks either way. */
  offDials: Range
  offClicks: Range
  /** Clicks off at which one rating point is lost. */
  widthClicks: Range
  shape: Shape
  interacting: boolean
  /** Compression dials start open at their stop, as the bench leaves them. */
  atStop: boolean
  /** What is named: the worst thing only, everything that is felt, or nothing. */
  words: 'worst' | 'every' | 'none'
  manner: Manner
  /** How often what is felt is named rightly, and how often something else is named; the rest is silence. */
  right: number
  misled: number
  /** How often a run is compared with the one before. */
  compares: number
  noise: Range
  /** Rating points a run: learning the track, or getting tired. */
  drift: Range
  /** How the rider uses the scale: 0.5 squeezes all between 6 and 8. */
  stretch: Range
  sensors: boolean
}

const usual: Omit<Family, 'name'> = {
  dials: [3, 5],
  offDials: [3, 5],
  offClicks: [1, 5],
  widthClicks: [1.5, 5],
  shape: 'round',
  interacting: false,
  atStop: false,
  words: 'worst',
  manner: 'clear',
  right: 0.6,
  misled: 0.15,
  compares: 0.4,
  noise: [0.7, 0.7],
  drift: [0, 0],
  stretch: [1, 1],
  sensors: false,
}
const family = (name: string, over: Partial<Family>): Family => ({ ...usual, ...over, name })

/** Constants of the adviser are chosen on these. */
export const tuning: Family[] = [
  family('worst thing named', {}),
  family('look-alike words', { manner: 'ambiguous' }),
  family('every word', { words: 'every', shape: 'flat', noise: [0.5, 0.9] }),
  family('ratings only', { words: 'none' }),
  family('many dials', { dials: [6, 8], offDials: [3, 6] }),
  family('sensors, look-alike words', { sensors: true, manner: 'ambiguous' }),
  family('learning the track', { drift: [0, 0.3], shape: 'pointed', widthClicks: [2, 5] }),
]

/** Nobody looks at these until everything is chosen; docs/benchmarks.md tells them. */
export const reporting: Family[] = [
  family('pointed', { shape: 'pointed', noise: [0.4, 1], offClicks: [0, 6] }),
  family('lopsided, interacting', { shape: 'lopsided', interacting: true, offClicks: [0, 6] }),
  family('flat-bottomed, noisy', { shape: 'flat', noise: [0.8, 1.2], widthClicks: [2, 5] }),
  family('misled every third time', { right: 0.5, misled: 0.35 }),
  family('few words', { right: 0.35, misled: 0.1, compares: 0.2 }),
  family('look-alikes, many dials', { manner: 'ambiguous', dials: [6, 8], offDials: [3, 6] }),
  family('squeezed scale', { stretch: [0.45, 0.7], noise: [0.5, 0.8] }),
  family('tired or learning', { drift: [-0.15, 0.3], noise: [0.5, 1] }),
  family('from the stop', { atStop: true, offClicks: [0, 6] }),
  family('with sensors', { sensors: true, manner: 'ambiguous' }),
  family('ratings only', { words: 'none', shape: 'lopsided', noise: [0.5, 0.9] }),
]
