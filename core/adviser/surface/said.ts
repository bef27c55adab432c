import { farOff, presence, sayable, type SurfaceData } from './model.ts'

/** Likelihood of what was said and measured, kept per word so that one dial's step touches only its own. */
export class Said {
  private readonly cluesOf: number[][]
  private readonly hintsOf: SurfaceData['hints'][]
  private readonly silencesOf: SurfaceData['silences'][]
  /** Σ share · sayable of each word at the places as they are, and at the place that was asked last. */
  private readonly sums: Float64Array
  private readonly asked: Float64Array

  /** @param best places of all dials as they are, click-equivalents */
  constructor(
    private readonly data: SurfaceData,
    best: ArrayLike<number>,
  ) {
    const dials = data.dials.map((_, k) => k)
    this.cluesOf = dials.map((k) =>
      data.clues.flatMap((c, i) => (c.parts.some((x) => x.dial === k) ? [i] : [])),
    )
    this.hintsOf = dials.map((k) => data.hints.filter((h) => h.dial === k))
    this.silencesOf = dials.map((k) => data.silences.filter((x) => x.dial === k))
    this.sums = Float64Array.from(data.clues, (c) =>
      c.parts.reduce(
        (t, x) => t + x.share * sayable(x.direction * (best[x.dial] - data.points[c.point].at[x.dial]), c),
        0,
      ),
    )
    this.asked = new Float64Array(data.clues.length)
  }

  /** What a dial's place changes of the log-likelihood when it goes from one to another. */
  change(dial: number, from: number, to: number): number {
    return this.log(dial, from, to) - this.log(dial, from, from)
  }

  /** The dial stands where it was asked for last. */
  accept(dial: number): void {
    for (const i of this.cluesOf[dial]) this.sums[i] = this.asked[i]
  }

  private log(dial: number, from: number, to: number): number {
    const { points, clues } = this.data
    let log = 0
    for (const i of this.cluesOf[dial]) {
      const c = clues[i]
      let sum = this.sums[i]
      if (to !== from) {
        for (const x of c.parts) {
          if (x.dial !== dial) continue
          const z = points[c.point].at[dial]
          sum += x.share * (sayable(x.direction * (to - z), c) - sayable(x.direction * (from - z), c))
        }
        this.asked[i] = sum
      }
      log += Math.log(c.floor + Math.max(0, sum))
    }
    for (const h of this.hintsOf[dial])
      log += h.weight * presence(h.direction * (to - points[h.point].at[dial]))
    for (const x of this.silencesOf[dial])
      log += Math.log(1 - x.weight * farOff(to - points[x.point].at[dial]))
    return log
  }
}
