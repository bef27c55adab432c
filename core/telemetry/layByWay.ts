import type { RiddenWay, SectionSpan } from '#contract/recording'
import { sure, type AlignedPiece } from '../signal/align.ts'
import { blockCorrelation, blockHz, blocksOf } from '../signal/blocks.ts'

/** A ride on its way: depth of one end, where its sections lie, and the metres ridden. */
export interface RideOnWay {
  depth: ArrayLike<number>
  rateHz: number
  spans: readonly SectionSpan[]
  way: RiddenWay
}

export interface LaidByWay {
  pieces: AlignedPiece[]
  /** Of each section: whether its hits were alike enough to be laid on each other. */
  sections: { sectionId: string; isHitOnHit: boolean }[]
}

const pieceS = 1
/** Metres of a receiver are good to some metres: hits are looked for so far around, s. */
const reachS = 2.5
/** What a receiver is off changes within seconds: after the section, windows of it are laid, so far around it. */
const window = { lengthS: 4, everyS: 2, reachS: 2, sure: 0.6 } as const
const leastM = 5

/**
 * Lays a second ride under the first, metre on metre within each section that both have; pace may change as it likes. In each
 * section the hits then settle what is left, first by one lag and then by windows of some seconds, where they are alike enough.
 *
 * @returns null when no section was ridden in both
 * Cost O(samples + sections · reach · length) at 25 Hz.
 */
export function layByWay(main: RideOnWay, other: RideOnWay): LaidByWay | null {
  const a = blocksOf(main.depth, main.rateHz)
  const b = blocksOf(other.depth, other.rateHz)
  const pieces: AlignedPiece[] = []
  const sections: LaidByWay['sections'] = []
  for (const here of main.spans) {
    const there = other.spans.find((s) => s.sectionId === here.sectionId)
    const timeOf = there && timeOn(main.way, here, other.way, there)
    if (!timeOf) continue
    const { lagAt, correlation, isSure } = settle(a, b, here, timeOf)
    sections.push({ sectionId: here.sectionId, isHitOnHit: isSure })
    const count = Math.ceil((here.endS - here.startS) / pieceS)
    for (let k = 0; k < count; k++) {
      const startS = here.startS + k * pieceS
      const endS = Math.min(here.endS, startS + pieceS)
      const laterS = (atS: number) => timeOf(atS) + lagAt(atS) - atS
      pieces.push({ startS, endS, lagS: laterS(startS), endLagS: laterS(endS), correlation })
    }
  }
  return pieces.length ? { pieces, sections } : null
}

/** When the other ride was where this one is at a moment of a section; null when either does not move in it. */
function timeOn(
  way: RiddenWay,
  here: SectionSpan,
  otherWay: RiddenWay,
  there: SectionSpan,
): ((atS: number) => number) | null {
  const [from, to] = [wayAt(way, here.startS), wayAt(way, here.endS)]
  const [otherFrom, otherTo] = [wayAt(otherWay, there.startS), wayAt(otherWay, there.endS)]
  if (to - from < leastM || otherTo - otherFrom < leastM) return null
  return (atS) => {
    const share = (wayAt(way, atS) - from) / (to - from)
    const goalM = otherFrom + share * (otherTo - otherFrom)
    return Math.min(there.endS, Math.max(there.startS, timeAt(otherWay, goalM)))
  }
}

function wayAt({ stepS, wayM }: RiddenWay, atS: number): number {
  const k = Math.min(wayM.length - 1, Math.max(0, atS / stepS))
  const i = Math.min(wayM.length - 2, Math.floor(k))
  return i < 0 ? wayM[0] : wayM[i] + (k - i) * (wayM[i + 1] - wayM[i])
}

/** The first moment at which so many metres are ridden, between two steps on a straight line. */
function timeAt({ stepS, wayM }: RiddenWay, goalM: number): number {
  let [low, high] = [0, wayM.length - 1]
  while (high > low) {
    const middle = (low + high) >> 1
    if (wayM[middle] >= goalM) high = middle
    else low = middle + 1
  }
  if (low === 0) return 0
  const step = wayM[low] - wayM[low - 1]
  return stepS * (low - 1 + (step > 0 ? (goalM - wayM[low - 1]) / step : 1))
}

/** How much later than by the metres the hits of a section lie, by moment. */
function settle(
  a: Float64Array,
  b: Float64Array,
  { startS, endS }: SectionSpan,
  timeOf: (atS: number) => number,
): { lagAt: (atS: number) => number; correlation: number; isSure: boolean } {
  const first = Math.ceil(startS * blockHz)
  const n = Math.max(0, Math.min(a.length, Math.floor(endS * blockHz)) - first)
  const places = Float64Array.from({ length: n }, (_, i) => timeOf((first + i) / blockHz) * blockHz)
  const warped = new Float64Array(n)
  /** The lag that lays some of the section best, in blocks; null where nothing is alike, or only at the edge of the search. */
  const best = (from: number, to: number, around: number, reach: number, least: number) => {
    let found = { lag: around, correlation: -1 }
    for (let lag = around - reach; lag <= around + reach; lag++) {
      for (let i = from; i < to; i++) warped[i] = b[Math.round(places[i] + lag)] ?? NaN
      const correlation = blockCorrelation(a, first + from, warped, from, to - from)
      if (correlation > found.correlation) found = { lag, correlation }
    }
    const isSure = found.correlation >= least && Math.abs(found.lag - around) < reach
    return { ...found, isSure }
  }
  const whole =
    n < blockHz
      ? { lag: 0, correlation: 0, isSure: false }
      : best(0, n, 0, Math.round(reachS * blockHz), sure)
  const [around, reach] = whole.isSure ? [whole.lag, window.reachS] : [0, reachS]
  let windows = 0
  const known: { atS: number; lagS: number }[] = []
  const length = window.lengthS * blockHz
  for (let from = 0; from + length <= n; from += window.everyS * blockHz) {
    windows++
    const w = best(from, from + length, around, Math.round(reach * blockHz), window.sure)
    if (w.isSure) known.push({ atS: (first + from + length / 2) / blockHz, lagS: w.lag / blockHz })
  }
  const isSure = whole.isSure || (windows > 0 && known.length > windows / 2)
  const lagAt = isSure ? between(known, around / blockHz) : () => 0
  return { lagAt, correlation: whole.correlation, isSure }
}

/** Straight lines between known lags, level before the first and after the last; `usual` without any. */
function between(known: readonly { atS: number; lagS: number }[], usual: number): (atS: number) => number {
  return (atS) => {
    const next = known.findIndex((k) => k.atS > atS)
    const before = known.at(next < 0 ? -1 : Math.max(0, next - 1))
    const after = next < 0 ? before : known[next]
    if (!before || !after) return usual
    const width = after.atS - before.atS
    const share = width > 0 ? Math.max(0, (atS - before.atS) / width) : 0
    return before.lagS + share * (after.lagS - before.lagS)
  }
}
