import { farOff, floorOf, loudness, presence, sayable, surfacePriors } from './model.ts'
import type { Clue, SurfaceData } from './model.ts'
import type { Places } from './places.ts'

/** How sayable something is of a dial: words alike in this are worked out once a step. */
interface Saying {
  direction: 1 | -1
  at: number
  clue: Clue
}

/** What one word says of one dial, and how sayable it is at the dial's best place now. */
interface Part {
  dial: number
  share: number
  now: number
  /** Which of the dial's `Saying`s it is. */
  saying: number
}

/** A word as it was heard, where all dials stood then. */
interface Heard {
  floor: number
  parts: readonly Part[]
  /** Of a word that stood alone: how loud each dial is, and all together with what is hardly felt. */
  loud: Float64Array | null
  total: number
  /** Which of its places each dial had. */
  places: Int32Array
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
  private readonly sayings: readonly Saying[][]
  private readonly hints: { at: number; direction: 1 | -1; weight: number }[][]
  private readonly silences: { at: number; weight: number }[][]
  /** What each word would be at what was asked for last, in the order of `touched`. */
  private touched: readonly Heard[] = []
  private readonly askedLogs: Float64Array
  private readonly askedLoud: Float64Array
  /** How sayable each of the dial's sayings would be, and how loud the dial at each of its places. */
  private readonly askedSayable: Float64Array
  private readonly askedPlaces: Float64Array
  private asked = { dial: -1, isMoved: false }
  /** The same for another shape: loudness of each word that stood alone, in their order. */
  private readonly shapedLoud: readonly Float64Array[]
  private readonly shaped: { total: number; log: number }[]

  /**
   * @param places    where the dials stood on the day's runs
   * @param best      places of all dials as they are, click-equivalents
   * @param steepness of all dials, a ninth of the points lost three clicks off
   * @param falls     how ratings fall off at each place of each dial as they are
   */
  constructor(
    { dials, points, clues, hints, silences }: SurfaceData,
    places: Places,
    best: ArrayLike<number>,
    steepness: ArrayLike<number>,
    falls: readonly Float64Array[],
  ) {
    const each = dials.map((_, k) => k)
    const sayings: Saying[][] = each.map(() => [])
    const heard = clues.map((clue): Heard => {
      const { at } = points[clue.point]
      const parts = clue.parts.map(({ dial, direction, share }) => {
        const own = sayings[dial]
        let saying = own.findIndex(
          (s) =>
            s.direction === direction &&
            s.at === at[dial] &&
            s.clue.feltFrom === clue.feltFrom &&
            s.clue.fadesFrom === clue.fadesFrom,
        )
        if (saying < 0) saying = own.push({ direction, at: at[dial], clue }) - 1
        return { dial, share, saying, now: sayable(direction * (best[dial] - at[dial]), clue) }
      })
      const h: Heard = {
        floor: floorOf(clue),
        parts,
        loud: clue.only ? new Float64Array(dials.length) : null,
        total: 1,
        places: Int32Array.from(each, (k) => places.of[k][clue.point]),
        log: 0,
      }
      if (h.loud) h.total = this.hear(h, steepness, falls, h.loud)
      h.log = logOf(h, h.loud, h.total)
      return h
    })
    this.alone = heard.filter((h) => h.loud)
    this.ofDial = each.map((k) => [
      ...this.alone,
      ...heard.filter((h) => !h.loud && h.parts.some((p) => p.dial === k)),
    ])
    this.sayings = sayings
    const placed = <T extends { point: number; dial: number }>(list: readonly T[]) =>
      each.map((k) => list.filter((x) => x.dial === k).map((x) => ({ ...x, at: points[x.point].at[k] })))
    this.hints = placed(hints)
    this.silences = placed(silences)
    this.askedLogs = new Float64Array(clues.length)
    this.askedLoud = new Float64Array(clues.length)
    this.askedSayable = new Float64Array(Math.max(0, ...sayings.map((s) => s.length)))
    this.askedPlaces = new Float64Array(Math.max(0, ...places.different.map((p) => p.length)))
    this.shapedLoud = this.alone.map(() => new Float64Array(dials.length))
    this.shaped = this.alone.map(() => ({ total: 0, log: 0 }))
  }

  /**
   * What a dial's step changes of the log-likelihood.
   * @param from place as it is, and `to` the one that is asked for
   * @param steepness the one that is asked for, and `falls` how ratings fall off from there at each of the dial's places
   */
  change(dial: number, from: number, to: number, steepness: number, falls: Float64Array): number {
    const { askedLogs, askedLoud, askedSayable, askedPlaces } = this
    const isMoved = from !== to
    this.asked.dial = dial
    this.asked.isMoved = isMoved
    const touched = isMoved ? this.ofDial[dial] : this.alone
    this.touched = touched
    if (isMoved) {
      const own = this.sayings[dial]
      for (let i = 0; i < own.length; i++)
        askedSayable[i] = sayable(own[i].direction * (to - own[i].at), own[i].clue)
    }
    if (this.alone.length > 0)
      for (let i = 0; i < falls.length; i++) askedPlaces[i] = loudness(steepness * falls[i])
    let log = 0
    for (let i = 0; i < touched.length; i++) {
      const h = touched[i]
      const mine = h.loud ? askedPlaces[h.places[dial]] : 0
      const asked = this.askedLog(h, dial, isMoved, mine)
      askedLoud[i] = mine
      askedLogs[i] = asked
      log += asked - h.log
    }
    if (!isMoved) return log
    for (const h of this.hints[dial])
      log += h.weight * (presence(h.direction * (to - h.at)) - presence(h.direction * (from - h.at)))
    for (const x of this.silences[dial])
      log += Math.log((1 - x.weight * farOff(to - x.at)) / (1 - x.weight * farOff(from - x.at)))
    return log
  }

  /** The dial stands where it was asked for last. */
  accept(): void {
    const { dial, isMoved } = this.asked
    for (let i = 0; i < this.touched.length; i++) {
      const h = this.touched[i]
      h.log = this.askedLogs[i]
      if (isMoved) for (const p of h.parts) if (p.dial === dial) p.now = this.askedSayable[p.saying]
      if (!h.loud) continue
      h.loud[dial] = this.askedLoud[i]
      h.total = totalOf(h.loud)
    }
  }

  /** What another shape changes of the log-likelihood. @param falls of that shape, at each place of each dial */
  reshaped(steepness: ArrayLike<number>, falls: readonly Float64Array[]): number {
    let log = 0
    for (let i = 0; i < this.alone.length; i++) {
      const h = this.alone[i]
      const there = this.shaped[i]
      there.total = this.hear(h, steepness, falls, this.shapedLoud[i])
      there.log = logOf(h, this.shapedLoud[i], there.total)
      log = log + there.log - h.log
    }
    return log
  }

  /** The shape is the one that was asked for last. */
  acceptShape(): void {
    for (let i = 0; i < this.alone.length; i++) {
      const h = this.alone[i]
      h.loud!.set(this.shapedLoud[i])
      h.total = this.shaped[i].total
      h.log = this.shaped[i].log
    }
  }

  /** Writes how loud each dial was when a word was heard; returns all together, with what is hardly felt. */
  private hear(
    h: Heard,
    steepness: ArrayLike<number>,
    falls: readonly Float64Array[],
    out: Float64Array,
  ): number {
    for (let k = 0; k < out.length; k++) out[k] = loudness(steepness[k] * falls[k][h.places[k]])
    return totalOf(out)
  }

  /** Logarithm of a word's likelihood with one dial where it is asked for, and as loud as `mine` there. */
  private askedLog(h: Heard, dial: number, isMoved: boolean, mine: number): number {
    const { parts, loud } = h
    const total = loud ? h.total - loud[dial] + mine : 1
    let sum = h.floor
    for (let i = 0; i < parts.length; i++) {
      const p = parts[i]
      const mineToo = p.dial === dial
      const said = p.share * (mineToo && isMoved ? this.askedSayable[p.saying] : p.now)
      sum += loud ? said * ((mineToo ? mine : loud[p.dial]) / total) : said
    }
    return Math.log(sum)
  }
}

function totalOf(loud: Float64Array): number {
  let total = loudness(surfacePriors.hardlyFelt)
  for (let k = 0; k < loud.length; k++) total += loud[k]
  return total
}

/** Logarithm of a word's likelihood as all stands. */
function logOf(h: Heard, loud: Float64Array | null, total: number): number {
  let sum = h.floor
  for (const p of h.parts) sum += p.share * p.now * (loud ? loud[p.dial] / total : 1)
  return Math.log(sum)
}
