import { farOff, presence, sayable, type Clue, type SurfaceData } from './model.ts'

/** What one word says of one dial: where the dial stood when it was said, and how sayable it is at its best place now. */
interface Part {
  clue: number
  at: number
  direction: 1 | -1
  share: number
  now: number
}

/**
 * Likelihood of what was said and measured. Kept per word and dial, so that a dial's step works out nothing but its own
 * words at the place it asks for: this is the innermost loop of a long day.
 */
export class Said {
  private readonly clues: readonly Clue[]
  private readonly parts: Part[][]
  private readonly hints: { at: number; direction: 1 | -1; weight: number }[][]
  private readonly silences: { at: number; weight: number }[][]
  /** Σ share · sayable of each word at the places as they are, and its logarithm with the floor. */
  private readonly sums: Float64Array
  private readonly logs: Float64Array
  /** The same at the place that was asked for last, for the words of that dial. */
  private readonly askedSums: Float64Array
  private readonly askedLogs: Float64Array
  private asked: number[] = []

  /** @param best places of all dials as they are, click-equivalents */
  constructor(data: SurfaceData, best: ArrayLike<number>) {
    this.clues = data.clues
    const at = (point: number, dial: number) => data.points[point].at[dial]
    const dials = data.dials.map((_, k) => k)
    this.parts = dials.map((k) =>
      data.clues.flatMap((c, clue) =>
        c.parts
          .filter((p) => p.dial === k)
          .map(({ direction, share }) => {
            const place = at(c.point, k)
            return { clue, at: place, direction, share, now: sayable(direction * (best[k] - place), c) }
          }),
      ),
    )
    this.hints = dials.map((k) =>
      data.hints.filter((h) => h.dial === k).map((h) => ({ ...h, at: at(h.point, k) })),
    )
    this.silences = dials.map((k) =>
      data.silences.filter((x) => x.dial === k).map((x) => ({ ...x, at: at(x.point, k) })),
    )
    this.sums = new Float64Array(data.clues.length)
    for (const list of this.parts) for (const p of list) this.sums[p.clue] += p.share * p.now
    this.logs = this.sums.map((sum, i) => Math.log(data.clues[i].floor + Math.max(0, sum)))
    this.askedSums = new Float64Array(data.clues.length)
    this.askedLogs = new Float64Array(data.clues.length)
  }

  /** What a dial's place changes of the log-likelihood when it goes from where it is to another. */
  change(dial: number, from: number, to: number): number {
    const parts = this.parts[dial]
    this.asked = parts.map((p) => sayable(p.direction * (to - p.at), this.clues[p.clue]))
    for (const p of parts) this.askedSums[p.clue] = this.sums[p.clue]
    parts.forEach((p, i) => (this.askedSums[p.clue] += p.share * (this.asked[i] - p.now)))
    let log = 0
    let last = -1
    for (const { clue } of parts) {
      // Parts of one word stand next to each other; the word counts once.
      if (clue === last) continue
      last = clue
      this.askedLogs[clue] = Math.log(this.clues[clue].floor + Math.max(0, this.askedSums[clue]))
      log += this.askedLogs[clue] - this.logs[clue]
    }
    for (const h of this.hints[dial])
      log += h.weight * (presence(h.direction * (to - h.at)) - presence(h.direction * (from - h.at)))
    for (const x of this.silences[dial])
      log += Math.log((1 - x.weight * farOff(to - x.at)) / (1 - x.weight * farOff(from - x.at)))
    return log
  }

  /** The dial stands where it was asked for last. */
  accept(dial: number): void {
    this.parts[dial].forEach((p, i) => {
      p.now = this.asked[i]
      this.sums[p.clue] = this.askedSums[p.clue]
      this.logs[p.clue] = this.askedLogs[p.clue]
    })
  }
}
