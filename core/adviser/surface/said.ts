import { farOff, floorOf, loudness, presence, sayable, surfacePriors } from './model.ts'
import type { Clue, SurfaceData } from './model.ts'
import type { Places } from './places.ts'

/** How sayable something is of a dial: words alike in this are worked out once a step. */
interface Saying {
  direction: 1 | -1
  at: number
  clue: Clue
}

/** What the words of a day say of one dial; they stand as numbers in a row, this is the innermost loop of a long day. */
interface OfDial {
  sayings: Saying[]
  /** Which words a step of the dial touches: those that stood alone first, all of them, then others that speak of it. */
  words: Int32Array
  /** What each of them says of the dial: from `first[i]` to before `first[i + 1]`, each a share of a saying. */
  first: Int32Array
  share: Float64Array
  saying: Int32Array
  /** Which of its places the dial had when each word was heard that stood alone. */
  places: Int32Array
}

/** Logarithms are dear: of this many likelihoods one is taken of their product. */
const together = 64

/**
 * Likelihood of what was said and measured. A dial's step works out the words that speak of it, and those that stood alone:
 * of these another dial may be what was worse.
 *
 * A word's likelihood is its floor and, over all dials, what it says of each times how loud that one is, by how loud all
 * are together; of one that did not stand alone every dial is as loud.
 */
export class Said {
  private readonly ofDial: readonly OfDial[]
  private readonly hints: { at: number; direction: 1 | -1; weight: number }[][]
  private readonly silences: { at: number; weight: number }[][]
  /** How many words stood alone; they come first. */
  private readonly alone: number
  private readonly floor: Float64Array
  /** Per word: said of all dials, each as loud as it is; how loud all are, with what is hardly felt; its likelihood. */
  private readonly sum: Float64Array
  private readonly total: Float64Array
  private readonly likelihood: Float64Array
  /** Per word and dial, word-major: said of it, and how loud it is. */
  private readonly own: Float64Array
  private readonly loud: Float64Array
  /** The same of what was asked for last: in the order of the dial's words, or for another shape. */
  private readonly asked: Record<'sum' | 'total' | 'likelihood' | 'own' | 'loud', Float64Array>
  private readonly shapedLoud: Float64Array
  /** How sayable each of the dial's sayings would be, and how loud the dial at each of its places. */
  private readonly askedSayable: Float64Array
  private readonly askedPlaces: Float64Array
  private step = { dial: -1, isMoved: false }

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
    const K = dials.length
    const each = dials.map((_, k) => k)
    const heard = [...clues.filter((c) => c.only), ...clues.filter((c) => !c.only)]
    const C = heard.length
    this.alone = clues.filter((c) => c.only).length
    this.ofDial = each.map((k) => ofDial(k, heard, this.alone, points, places))
    this.floor = Float64Array.from(heard, floorOf)
    this.sum = new Float64Array(C)
    this.total = new Float64Array(C).fill(1)
    this.likelihood = new Float64Array(C)
    this.own = new Float64Array(C * K)
    this.loud = new Float64Array(this.alone * K)
    this.asked = {
      sum: new Float64Array(C),
      total: new Float64Array(C),
      likelihood: new Float64Array(C),
      own: new Float64Array(C),
      loud: new Float64Array(C),
    }
    this.shapedLoud = new Float64Array(this.alone * K)
    this.askedSayable = new Float64Array(Math.max(0, ...this.ofDial.map((d) => d.sayings.length)))
    this.askedPlaces = new Float64Array(Math.max(0, ...places.different.map((p) => p.length)))
    this.ofDial.forEach((d, k) => {
      const now = d.sayings.map((s) => sayable(s.direction * (best[k] - s.at), s.clue))
      d.words.forEach((c, i) => {
        for (let p = d.first[i]; p < d.first[i + 1]; p++) this.own[c * K + k] += d.share[p] * now[d.saying[p]]
        if (c < this.alone) return
        this.sum[c] += this.own[c * K + k]
        this.likelihood[c] = this.floor[c] + this.sum[c]
      })
    })
    this.reshaped(steepness, falls)
    this.acceptShape()
    const placed = <T extends { point: number; dial: number }>(list: readonly T[]) =>
      each.map((k) => list.filter((x) => x.dial === k).map((x) => ({ ...x, at: points[x.point].at[k] })))
    this.hints = placed(hints)
    this.silences = placed(silences)
  }

  /**
   * What a dial's step changes of the log-likelihood.
   * @param from place as it is, and `to` the one that is asked for
   * @param steepness the one that is asked for, and `falls` how ratings fall off from there at each of the dial's places
   */
  change(dial: number, from: number, to: number, steepness: number, falls: Float64Array): number {
    const { asked, askedSayable, askedPlaces, alone, own, loud, floor, sum, total, likelihood } = this
    const isMoved = from !== to
    this.step.dial = dial
    this.step.isMoved = isMoved
    const { sayings, words, first, share, saying, places } = this.ofDial[dial]
    if (isMoved)
      for (let s = 0; s < sayings.length; s++)
        askedSayable[s] = sayable(sayings[s].direction * (to - sayings[s].at), sayings[s].clue)
    if (alone > 0) for (let p = 0; p < falls.length; p++) askedPlaces[p] = loudness(steepness * falls[p])
    const K = this.ofDial.length
    const touched = isMoved ? words.length : alone
    let log = 0
    let product = 1
    for (let i = 0; i < touched; i++) {
      const c = words[i]
      const at = c * K + dial
      let says = own[at]
      if (isMoved) {
        says = 0
        for (let p = first[i]; p < first[i + 1]; p++) says += share[p] * askedSayable[saying[p]]
      }
      asked.own[i] = says
      if (c < alone) {
        const mine = askedPlaces[places[i]]
        asked.loud[i] = mine
        asked.sum[i] = sum[c] - own[at] * loud[at] + says * mine
        asked.total[i] = total[c] - loud[at] + mine
        asked.likelihood[i] = floor[c] + asked.sum[i] / asked.total[i]
      } else {
        asked.sum[i] = sum[c] - own[at] + says
        asked.likelihood[i] = floor[c] + asked.sum[i]
      }
      product *= asked.likelihood[i] / likelihood[c]
      if (i % together === together - 1) {
        log += Math.log(product)
        product = 1
      }
    }
    log += Math.log(product)
    if (!isMoved) return log
    for (const h of this.hints[dial])
      log += h.weight * (presence(h.direction * (to - h.at)) - presence(h.direction * (from - h.at)))
    for (const x of this.silences[dial])
      log += Math.log((1 - x.weight * farOff(to - x.at)) / (1 - x.weight * farOff(from - x.at)))
    return log
  }

  /** The dial stands where it was asked for last. */
  accept(): void {
    const { asked, alone } = this
    const { dial, isMoved } = this.step
    const { words } = this.ofDial[dial]
    const K = this.ofDial.length
    const touched = isMoved ? words.length : alone
    for (let i = 0; i < touched; i++) {
      const c = words[i]
      this.own[c * K + dial] = asked.own[i]
      this.sum[c] = asked.sum[i]
      this.likelihood[c] = asked.likelihood[i]
      if (c >= alone) continue
      this.loud[c * K + dial] = asked.loud[i]
      this.total[c] = asked.total[i]
    }
  }

  /** What another shape changes of the log-likelihood. @param falls of that shape, at each place of each dial */
  reshaped(steepness: ArrayLike<number>, falls: readonly Float64Array[]): number {
    const { asked, alone, own, floor, shapedLoud, likelihood } = this
    const K = this.ofDial.length
    let log = 0
    let product = 1
    for (let c = 0; c < alone; c++) {
      let sum = 0
      let total = loudness(surfacePriors.hardlyFelt)
      for (let k = 0; k < K; k++) {
        const mine = loudness(steepness[k] * falls[k][this.ofDial[k].places[c]])
        shapedLoud[c * K + k] = mine
        sum += own[c * K + k] * mine
        total += mine
      }
      asked.sum[c] = sum
      asked.total[c] = total
      asked.likelihood[c] = floor[c] + sum / total
      product *= asked.likelihood[c] / likelihood[c]
      if (c % together === together - 1) {
        log += Math.log(product)
        product = 1
      }
    }
    return log + Math.log(product)
  }

  /** The shape is the one that was asked for last. */
  acceptShape(): void {
    const { asked, alone } = this
    this.loud.set(this.shapedLoud)
    for (let c = 0; c < alone; c++) {
      this.sum[c] = asked.sum[c]
      this.total[c] = asked.total[c]
      this.likelihood[c] = asked.likelihood[c]
    }
  }
}

/** @param heard all words, those that stood alone first */
function ofDial(
  dial: number,
  heard: readonly Clue[],
  alone: number,
  points: SurfaceData['points'],
  places: Places,
): OfDial {
  const sayings: Saying[] = []
  const [words, first, share, saying]: number[][] = [[], [0], [], []]
  heard.forEach((clue, c) => {
    const at = points[clue.point].at[dial]
    const parts = clue.parts.filter((p) => p.dial === dial)
    if (c >= alone && parts.length === 0) return
    for (const { direction, share: by } of parts) {
      const alike = sayings.findIndex(
        (s) =>
          s.direction === direction &&
          s.at === at &&
          s.clue.feltFrom === clue.feltFrom &&
          s.clue.fadesFrom === clue.fadesFrom,
      )
      saying.push(alike >= 0 ? alike : sayings.push({ direction, at, clue }) - 1)
      share.push(by)
    }
    words.push(c)
    first.push(share.length)
  })
  return {
    sayings,
    words: Int32Array.from(words),
    first: Int32Array.from(first),
    share: Float64Array.from(share),
    saying: Int32Array.from(saying),
    places: Int32Array.from(heard.slice(0, alone), (c) => places.of[dial][c.point]),
  }
}
