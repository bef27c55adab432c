import { normalBeyond } from '../../numeric/random.ts'
import type { NoiseFit } from './kernel.ts'
import { drifted, surfacePriors, type SurfaceData } from './model.ts'
import type { Places } from './places.ts'

/** Ratings are given in half points: what is felt this much below the top is rounded up to it. */
const roundedUp = 0.25

/** What the inverse covariance of the rows is, seen from the places of one dial. */
interface Seen {
  /** Inverse covariance summed over the rows of each place: places × rows, and places × places. */
  rows: Float64Array
  places: Float64Array
}

/**
 * Likelihood of the ratings and said differences. A dial's step changes all rows of a place alike, and a dial stood in
 * few places: what a step changes is worked out over places, not over pairs of rows.
 *
 * With rest r, inverse covariance W and a step that adds C·d to the rest (C: +1 where a row was ridden at a place, −1
 * where it was compared from there), r'Wr grows by 2·d'C'Wr + d'C'WC·d; C'W and C'WC are known beforehand.
 */
export class Rated {
  /** Per dial, places of the runs of each row; a rating has no first one: -1. */
  private readonly rowPlaces: readonly { a: Int32Array; b: Int32Array }[]
  /** Rows without any bowl: less the level and drift that are expected; at the top of the scale as they are drawn. */
  private readonly target: Float64Array
  private readonly rest: Float64Array
  /** Inverse covariance times rest. */
  readonly weighed: Float64Array
  private quadratic = 0
  /** Points lost at each place of each dial. */
  private readonly losses: readonly Float64Array[]
  private readonly seen = new Map<NoiseFit, (Seen | undefined)[]>()
  /** The step that was asked for last: its dial, what it adds at each place, and what the quadratic becomes. */
  private asked: { dial: number; quadratic: number; isMoved: boolean }
  private readonly steps: readonly Float64Array[]
  private readonly other: Float64Array
  /** Ratings at the top of the scale: their row, and what its target is at least. */
  private readonly tops: readonly { row: number; least: number }[]

  /** @param places where the dials stood on the day's runs */
  constructor(
    data: SurfaceData,
    places: Places,
    private noise: NoiseFit,
  ) {
    const N = data.rows.length
    const meanDrift = data.points.reduce((t, p) => t + drifted(p.index), 0) / Math.max(1, data.points.length)
    this.target = Float64Array.from(data.rows, (r) => {
      const since =
        drifted(data.points[r.b].index) - (r.a === null ? meanDrift : drifted(data.points[r.a].index))
      return r.value - (r.a === null ? surfacePriors.levelMean : 0) - data.habit.drift.mean * since
    })
    this.tops = data.rows.flatMap((r, row) => (r.atTop ? [{ row, least: this.target[row] - roundedUp }] : []))
    this.rowPlaces = places.of.map((of) => ({
      a: Int32Array.from(data.rows, (r) => (r.a === null ? -1 : of[r.a])),
      b: Int32Array.from(data.rows, (r) => of[r.b]),
    }))
    this.losses = places.room()
    this.steps = places.room()
    this.rest = new Float64Array(N)
    this.other = new Float64Array(N)
    this.weighed = new Float64Array(N)
    this.asked = { dial: -1, quadratic: 0, isMoved: false }
  }

  /** All dials lose this at their places. @param steepness per dial, and `falls` how ratings fall off at each place */
  set(steepness: ArrayLike<number>, falls: readonly Float64Array[]): void {
    this.losses.forEach((loss, k) => {
      for (let p = 0; p < loss.length; p++) loss[p] = steepness[k] * falls[k][p]
    })
    this.restOf(steepness, falls, this.rest)
    this.refresh()
  }

  /** Works out anew what steps have added to. */
  refresh(): void {
    const { rest, weighed, noise } = this
    this.quadratic = weigh(rest, noise.inverse, weighed)
  }

  /** What a dial's step changes of the log-likelihood. */
  change(dial: number, steepness: number, falls: Float64Array): number {
    const { weighed } = this
    const step = this.steps[dial]
    const loss = this.losses[dial]
    let isMoved = false
    for (let p = 0; p < step.length; p++) {
      step[p] = steepness * falls[p] - loss[p]
      if (step[p] !== 0) isMoved = true
    }
    this.asked.dial = dial
    this.asked.isMoved = isMoved
    this.asked.quadratic = this.quadratic
    if (!isMoved) return 0
    const { a, b } = this.rowPlaces[dial]
    let along = 0
    for (let i = 0; i < weighed.length; i++)
      along += weighed[i] * (a[i] < 0 ? step[b[i]] : step[b[i]] - step[a[i]])
    const { places } = this.seenFrom(dial)
    let square = 0
    for (let p = 0; p < step.length; p++) {
      let row = 0
      const at = p * step.length
      for (let q = 0; q < p; q++) row += places[at + q] * step[q]
      square += step[p] * (2 * row + places[at + p] * step[p])
    }
    this.asked.quadratic = this.quadratic + 2 * along + square
    return 0.5 * (this.quadratic - this.asked.quadratic)
  }

  /** The dial stands where it was asked for last. */
  accept(): void {
    const { dial, isMoved } = this.asked
    if (!isMoved) return
    const { weighed, rest } = this
    const step = this.steps[dial]
    const loss = this.losses[dial]
    const { a, b } = this.rowPlaces[dial]
    const { rows } = this.seenFrom(dial)
    for (let i = 0; i < rest.length; i++) rest[i] += a[i] < 0 ? step[b[i]] : step[b[i]] - step[a[i]]
    for (let p = 0; p < step.length; p++) {
      const by = step[p]
      loss[p] += by
      const at = p * rest.length
      for (let i = 0; i < rest.length; i++) weighed[i] += by * rows[at + i]
    }
    this.quadratic = this.asked.quadratic
  }

  /**
   * Draws anew what ratings at the top of the scale stand for, each from what all else leaves open (data augmentation of
   * a censored observation: Chib 1992).
   */
  moveTops(random: () => number): void {
    const { tops, rest, weighed, target } = this
    const { inverse } = this.noise
    for (const { row, least } of tops) {
      const precision = inverse[row * rest.length + row]
      const sd = 1 / Math.sqrt(precision)
      const expected = target[row] - weighed[row] / precision
      const by = expected + sd * normalBeyond((least - expected) / sd, random) - target[row]
      target[row] += by
      rest[row] += by
      this.quadratic += by * (2 * weighed[row] + by * precision)
      for (let i = 0; i < rest.length; i++) weighed[i] += by * inverse[row * rest.length + i]
    }
  }

  /** What another noise would change of the log-likelihood, its own weight aside. */
  heardAt(there: NoiseFit): number {
    return 0.5 * (this.quadratic - weigh(this.rest, there.inverse, this.other))
  }

  /** The noise is this one. */
  hearAt(there: NoiseFit): void {
    this.noise = there
    this.refresh()
  }

  /** What another shape changes of the log-likelihood. @param falls of that shape, at each place of each dial */
  reshaped(steepness: ArrayLike<number>, falls: readonly Float64Array[]): number {
    const { other } = this
    this.restOf(steepness, falls, other)
    return 0.5 * (this.quadratic - quadraticOf(other, this.noise.inverse))
  }

  private restOf(steepness: ArrayLike<number>, falls: readonly Float64Array[], out: Float64Array): void {
    out.set(this.target)
    this.rowPlaces.forEach(({ a, b }, k) => {
      const fall = falls[k]
      for (let i = 0; i < out.length; i++)
        out[i] += steepness[k] * (a[i] < 0 ? fall[b[i]] : fall[b[i]] - fall[a[i]])
    })
  }

  private seenFrom(dial: number): Seen {
    let all = this.seen.get(this.noise)
    if (!all) this.seen.set(this.noise, (all = []))
    return (all[dial] ??= seen(this.rowPlaces[dial], this.steps[dial].length, this.noise.inverse))
  }
}

function seen({ a, b }: { a: Int32Array; b: Int32Array }, P: number, inverse: Float64Array): Seen {
  const N = b.length
  const rows = new Float64Array(P * N)
  for (let i = 0; i < N; i++)
    for (let j = 0; j < N; j++) {
      rows[b[i] * N + j] += inverse[i * N + j]
      if (a[i] >= 0) rows[a[i] * N + j] -= inverse[i * N + j]
    }
  const places = new Float64Array(P * P)
  for (let p = 0; p < P; p++)
    for (let j = 0; j < N; j++) {
      places[p * P + b[j]] += rows[p * N + j]
      if (a[j] >= 0) places[p * P + a[j]] -= rows[p * N + j]
    }
  return { rows, places }
}

/** Writes W·v and returns v'W·v. */
function weigh(v: Float64Array, inverse: Float64Array, out: Float64Array): number {
  const N = v.length
  let q = 0
  for (let i = 0; i < N; i++) {
    let row = 0
    const at = i * N
    for (let j = 0; j < N; j++) row += inverse[at + j] * v[j]
    out[i] = row
    q += v[i] * row
  }
  return q
}

function quadraticOf(v: Float64Array, inverse: Float64Array): number {
  const N = v.length
  let q = 0
  for (let i = 0; i < N; i++) {
    let row = 0
    const at = i * N
    for (let j = 0; j < i; j++) row += inverse[at + j] * v[j]
    q += v[i] * (2 * row + inverse[at + i] * v[i])
  }
  return q
}
