import { fallOff, farOff, floorOf, loudness, presence, sayable, surfacePriors } from './model.ts'
import type { Clue, SurfaceData } from './model.ts'

/** What one word says of one dial, and how sayable it is at the dial's best place now. */
interface Part {
  dial: number
  direction: 1 | -1
  share: number
  now: number
}

/** A word as it was heard, where all dials stood then. */
interface Heard {
  clue: Clue
  at: Float64Array
  parts: Part[]
  /** Of a word that stood alone: how loud each dial is, and all together with what is hardly felt. */
  loud: Float64Array | null
  total: number
  /** Logarithm of its likelihood. */
  log: number
}

/**
 * Likelihood of what was said and measured. A dial's step works out the words that speak of it, and those that stood alone:
 * of these another dial may be what was worse. This is the innermost loop of a long day.
 */
export class Said {
  /** Words that stood alone, and with them those among others that speak of a dial, per dial. */
  private readonly alone: readonly Heard[]
  private readonly ofDial: readonly (readonly Heard[])[]
  private readonly hints: { at: number; direction: 1 | -1; weight: number }[][]
  private readonly silences: { at: number; weight: number }[][]
  /** What each word would be at what was asked for last, in the order of `touched`. */
  private touched: readonly Heard[] = []
  private readonly askedLogs: Float64Array
  private readonly askedLoud: Float64Array
  private asked = { dial: -1, to: 0 }

  /**
   * @param best         places of all dials as they are, click-equivalents
   * @param steepness    of all dials, a ninth of the points lost three clicks off
   * @param straightFrom shape of the fall-off
   */
  constructor(
    { dials, points, clues, hints, silences }: SurfaceData,
    best: ArrayLike<number>,
    steepness: ArrayLike<number>,
    straightFrom: number,
  ) {
    const heard = clues.map((clue): Heard => {
      const { at } = points[clue.point]
      const parts = clue.parts.map((p) => ({
        ...p,
        now: sayable(p.direction * (best[p.dial] - at[p.dial]), clue),
      }))
      const loud = clue.only
        ? Float64Array.from(at, (z, k) => loudness(steepness[k] * fallOff(z - best[k], straightFrom)))
        : null
      const h: Heard = { clue, at, parts, loud, total: totalOf(loud), log: 0 }
      return { ...h, log: logOf(h) }
    })
    this.alone = heard.filter((h) => h.loud)
    const each = dials.map((_, k) => k)
    this.ofDial = each.map((k) => [
      ...this.alone,
      ...heard.filter((h) => !h.loud && h.parts.some((p) => p.dial === k)),
    ])
    const placed = <T extends { point: number; dial: number }>(list: readonly T[]) =>
      each.map((k) => list.filter((x) => x.dial === k).map((x) => ({ ...x, at: points[x.point].at[k] })))
    this.hints = placed(hints)
    this.silences = placed(silences)
    this.askedLogs = new Float64Array(clues.length)
    this.askedLoud = new Float64Array(clues.length)
  }

  /**
   * What a dial's step changes of the log-likelihood.
   * @param from place as it is, and `to` the one that is asked for
   * @param steepness the one that is asked for
   */
  change(dial: number, from: number, to: number, steepness: number, straightFrom: number): number {
    this.asked = { dial, to }
    this.touched = from === to ? this.alone : this.ofDial[dial]
    let log = 0
    this.touched.forEach((h, i) => {
      const mine = h.loud ? loudness(steepness * fallOff(h.at[dial] - to, straightFrom)) : 0
      this.askedLoud[i] = mine
      this.askedLogs[i] = logOf(h, dial, to, mine)
      log += this.askedLogs[i] - h.log
    })
    if (from === to) return log
    for (const h of this.hints[dial])
      log += h.weight * (presence(h.direction * (to - h.at)) - presence(h.direction * (from - h.at)))
    for (const x of this.silences[dial])
      log += Math.log((1 - x.weight * farOff(to - x.at)) / (1 - x.weight * farOff(from - x.at)))
    return log
  }

  /** The dial stands where it was asked for last. */
  accept(): void {
    const { dial, to } = this.asked
    this.touched.forEach((h, i) => {
      h.log = this.askedLogs[i]
      for (const p of h.parts) if (p.dial === dial) p.now = sayable(p.direction * (to - h.at[dial]), h.clue)
      if (!h.loud) return
      h.loud[dial] = this.askedLoud[i]
      h.total = totalOf(h.loud)
    })
  }

  /** What another shape changes of the log-likelihood, and what takes it on. */
  reshaped(
    best: ArrayLike<number>,
    steepness: ArrayLike<number>,
    straightFrom: number,
  ): { log: number; accept: () => void } {
    const there = this.alone.map((h): Heard => {
      const loud = h.loud!.map((_, k) => loudness(steepness[k] * fallOff(h.at[k] - best[k], straightFrom)))
      const shaped = { ...h, loud, total: totalOf(loud) }
      return { ...shaped, log: logOf(shaped) }
    })
    return {
      log: there.reduce((t, h, i) => t + h.log - this.alone[i].log, 0),
      accept: () =>
        this.alone.forEach((h, i) => {
          h.loud!.set(there[i].loud!)
          h.total = there[i].total
          h.log = there[i].log
        }),
    }
  }
}

function totalOf(loud: Float64Array | null): number {
  if (!loud) return 1
  let total = loudness(surfacePriors.hardlyFelt)
  for (const x of loud) total += x
  return total
}

/** Logarithm of a word's likelihood as all stands, or with one dial at another place and as loud as `mine` there. */
function logOf(h: Heard, dial = -1, to = 0, mine = 0): number {
  const { clue, loud } = h
  const total = loud && dial >= 0 ? h.total - loud[dial] + mine : h.total
  let sum = floorOf(clue)
  for (const p of h.parts) {
    const moved = p.dial === dial
    const said = moved ? sayable(p.direction * (to - h.at[dial]), clue) : p.now
    sum += p.share * said * (loud ? (moved ? mine : loud[p.dial]) / total : 1)
  }
  return Math.log(sum)
}
