import type { CauseKind } from '#contract/proposal'
import type { End } from '#contract/common'
import { adjusterRange } from '../adjusters/range.ts'
import type { SetupSpace } from '../adviser/dayHistory.ts'
import type { Dial } from '../adviser/dials.ts'
import { answersOf } from '../adviser/remedies.ts'

/** Canonical position per adjuster id. */
export type Positions = Record<string, number>

/** How a loss grows beside the best place of a dial. */
export type Shape = 'round' | 'pointed' | 'flat' | 'lopsided'

/** What a virtual rider likes, dial by dial; known to whoever made the rider, and to nobody else. */
export interface Likes {
  dials: readonly Dial[]
  /** Best place per dial, click-equivalents. */
  best: readonly number[]
  /** Clicks off at which one rating point is lost, per dial. */
  width: readonly number[]
  shape: Shape
  /** Factor on the loss above the best place; below it 2 − lean. 1: the same on both sides. */
  lean: readonly number[]
  /** Dials that act on each other: off the same way they add up (rho > 0) or hide each other (rho < 0). */
  couplings: readonly { i: number; j: number; rho: number }[]
}

/** No dial alone costs more than this, rating points: nobody rides a bike that is worse. */
const mostLost = 5

/** Clicks above its best place that each dial stands at. */
export const offsetsOf = (likes: Likes, positions: Positions): number[] =>
  likes.dials.map((d, k) => d.toClicks(positions[d.adjuster.id]) - likes.best[k])

/** Rating points that dial `k` alone loses when it stands `u` clicks above its best place. */
export function lossOfDial(likes: Likes, k: number, u: number): number {
  const { width, shape, lean } = likes
  const x = Math.abs(u) / width[k]
  const side = u > 0 ? lean[k] : 2 - lean[k]
  const raw =
    shape === 'pointed'
      ? x
      : shape === 'flat'
        ? Math.max(0, Math.abs(u) - 1) ** 2 / Math.max(0.5, width[k] - 1) ** 2
        : x * x
  return mostLost * (1 - Math.exp((-raw * side) / mostLost))
}

/** Rating points lost with all dials at these offsets, against the best place between clicks. */
export function lossAtOffsets(likes: Likes, u: readonly number[]): number {
  const alone = u.map((x, k) => lossOfDial(likes, k, x))
  let loss = alone.reduce((s, x) => s + x, 0)
  for (const { i, j, rho } of likes.couplings)
    loss += 2 * rho * Math.sign(u[i] * u[j]) * Math.sqrt(alone[i] * alone[j])
  return Math.max(0, loss)
}

/** What the best a hand can set still loses: nobody turns half a click or half a spacer. */
export function leastLoss(likes: Likes): number {
  return lossAtOffsets(
    likes,
    bestPlaces(likes).map((p, k) => likes.dials[k].toClicks(p) - likes.best[k]),
  )
}

/** Canonical place per dial, of those a hand can set, that loses least. */
export function bestPlaces(likes: Likes): number[] {
  return likes.dials.map((d, k) => {
    const lost = (place: number) => lossOfDial(likes, k, d.toClicks(place) - likes.best[k])
    return standingPlaces(d).reduce((a, b) => (lost(b) < lost(a) ? b : a))
  })
}

/** Where a part can stand, canonical. */
function standingPlaces(d: Dial): number[] {
  const { min, max, step } = adjusterRange(d.adjuster)
  return Array.from({ length: Math.round((max - min) / step) + 1 }, (_, i) => min + i * step)
}

/** Which cause it is when a dial stands too high or too low, canonical. @throws Error when nothing answers to it */
export function causeOfDial(space: SetupSpace, d: Dial, tooHigh: boolean): { kind: CauseKind; end: End } {
  const kind = kinds.find((k) =>
    answersOf(k, d.end, space).some(
      (a) => a.adjuster.id === d.adjuster.id && !a.standIn && a.direction === (tooHigh ? -1 : 1),
    ),
  )
  if (!kind) throw new Error(`no cause for ${d.adjuster.id}`)
  return { kind, end: d.end }
}
const kinds: CauseKind[] = [
  'spring-soft',
  'spring-firm',
  'lsc-open',
  'lsc-closed',
  'hsc-open',
  'hsc-closed',
  'rebound-fast',
  'rebound-slow',
  'ramp-low',
  'ramp-high',
]
