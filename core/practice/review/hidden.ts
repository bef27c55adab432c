import { adjusterName, distanceWords, familyOf } from '../../adjusters/words.ts'
import type { Dial } from '../../adviser/dials.ts'
import { canonicalUnits, type UnitChoice } from '../../units/choice.ts'
import type { HiddenRider } from '../hiddenRider.ts'
import { bestPlaces, lossOfDial, offsetsOf, type Likes } from '../landscape.ts'

/** Where the best of a dial was. */
export interface GoodPlace {
  dial: Dial
  /** The best a hand can set, canonical. */
  best: number
  /** Places between these cost less than a rider would notice, canonical. */
  goodFrom: number
  goodTo: number
  /** Rating points that it cost to leave it where it stood. */
  cost: number
  wasOff: boolean
}

/** A fault below this is none, rating points. */
const noFault = 0.25

/** The best of every dial by the last run, heat included. @param runs how many were ridden */
export function goodPlaces(rider: HiddenRider, runs: number): GoodPlace[] {
  const likes = rider.likesAt(Math.max(1, runs))
  const best = bestPlaces(likes)
  const off = offsetsOf(likes, rider.start)
  return rider.dials.map((dial, k) => {
    const within = goodWithin(likes, k, rider.noticeable)
    const cost = lossOfDial(likes, k, off[k])
    const at = (clicks: number) => dial.fromClicks(Math.min(dial.high, Math.max(dial.low, clicks)))
    return {
      dial,
      best: best[k],
      goodFrom: at(likes.best[k] - within),
      goodTo: at(likes.best[k] + within),
      cost,
      wasOff: cost >= noFault,
    }
  })
}

/** What stood wrong, the worst first: "rear rebound 4 clicks too fast". @param runs how many were ridden */
export function hiddenWords(rider: HiddenRider, runs: number, units: UnitChoice = canonicalUnits): string[] {
  const off = goodPlaces(rider, runs)
    .filter((g) => g.wasOff)
    .sort((a, b) => b.cost - a.cost)
    .map(({ dial, best }) => {
      const { id } = dial.adjuster
      const wrong = wrongWords(dial, best, rider.start[id], units)
      return `${nameOf(dial)} ${wrong}${rider.start[id] === rider.written[id] ? '' : ', and not where the card says'}`
    })
  const { creeps } = rider.drill
  return [
    ...off,
    ...rider.dials.flatMap((d) =>
      rider.leaks.has(d.adjuster.id) ? [`${nameOf(d)} lost some with every run`] : [],
    ),
    ...(creeps ? [`${creeps.end} sensor showed ${creeps.pct} % of travel deeper with every run`] : []),
  ]
}
const nameOf = (d: Dial) => `${d.end} ${adjusterName(d.adjuster).toLowerCase()}`

/** Clicks either side of the best place that cost less than `noticeable`; as far as a range goes where nothing is felt. */
function goodWithin(likes: Likes, k: number, noticeable: number): number {
  const most = likes.dials[k].high - likes.dials[k].low
  let clicks = 0
  while (clicks < most && lossOfDial(likes, k, clicks + step) < noticeable) clicks += step
  return clicks
}
const step = 0.25

/** How far and which way it stood wrong: "4 clicks too fast", "2 too few". */
function wrongWords({ adjuster: a }: Dial, best: number, from: number, units: UnitChoice): string {
  const isAbove = from > best
  const far = distanceWords(a, from, best, units)
  if (a.kind === 'spacer') return `${Math.abs(from - best)} too ${isAbove ? 'many' : 'few'}`
  const family = familyOf(a)
  if (family === 'rebound') return `${far} too ${isAbove ? 'fast' : 'slow'}`
  if (family === 'compression') return `${far} too ${isAbove ? 'soft' : 'firm'}`
  return `${far} too ${isAbove ? 'high' : 'low'}`
}
