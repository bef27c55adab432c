import { freeReturn } from './freeReturn.ts'

/** One compression and return of one end. Depth in % of travel, speed in mm/s, times in s from the start. */
export interface Hit {
  entryIndex: number
  peakIndex: number
  /** Deepest return before the next hit, or the end of the stretch. */
  valleyIndex: number
  entryPct: number
  peakPct: number
  valleyPct: number
  compressionMmS: number
  reboundMmS: number
  /** Time from the peak back to entry depth + 10 % of the rise; null if it does not get there before the next hit. */
  recoveryS: number | null
  /** For hits that settle by themselves: damping ratio of the return, 0.8 meaning "0.8 or above"; see freeReturn.ts. */
  dampingRatio: number | null
}

export const hitRules = {
  /** Least rise and fall around a hit, % of travel. */
  prominencePct: 6,
  apartS: 0.06,
} as const

/**
 * Finds hits: local maxima of depth that rise and fall by at least 6 % of travel and lie ≥ 60 ms apart.
 *
 * @param depthPct low-passed depth of one gap-free stretch
 * @param speedMmS its derivative at the axle, + = compressing
 * @param offset   index of the first sample in the whole recording, added to all indices
 */
export function findHits(
  depthPct: Float64Array,
  speedMmS: Float64Array,
  sampleRateHz: number,
  offset = 0,
): Hit[] {
  const turns = turningPoints(depthPct, hitRules.prominencePct)
  const peaks = turns.filter((t) => t.kind === 'max')
  const apart = hitRules.apartS * sampleRateHz
  const kept: typeof peaks = []
  for (const p of peaks) {
    const last = kept[kept.length - 1]
    if (last && p.at - last.at < apart) {
      if (depthPct[p.at] > depthPct[last.at]) kept[kept.length - 1] = p
    } else kept.push(p)
  }
  const hits: Hit[] = []
  let valley = kept.length ? lowestBetween(depthPct, 0, kept[0].at) : 0
  for (let k = 0; k < kept.length; k++) {
    const peak = kept[k].at
    const after = k + 1 < kept.length ? kept[k + 1].at : depthPct.length - 1
    const entry = valley
    // The valley behind a hit is where the next one begins.
    valley = lowestBetween(depthPct, peak, after)
    const rise = depthPct[peak] - depthPct[entry]
    let recoveryS: number | null = null
    const back = depthPct[entry] + 0.1 * rise
    for (let i = peak; i <= after; i++) {
      if (depthPct[i] <= back) {
        recoveryS = (i - peak) / sampleRateHz
        break
      }
    }
    hits.push({
      entryIndex: entry + offset,
      peakIndex: peak + offset,
      valleyIndex: valley + offset,
      entryPct: depthPct[entry],
      peakPct: depthPct[peak],
      valleyPct: depthPct[valley],
      compressionMmS: largest(speedMmS, entry, peak, 1),
      reboundMmS: largest(speedMmS, peak, valley, -1),
      recoveryS,
      dampingRatio: null,
    })
  }
  markFreeReturns(hits, depthPct, sampleRateHz, offset)
  return hits
}

/** A swing that dies away comes back to ever lower peaks, this much lower at least, share of the one before. */
const diesAway = 0.97
/** Slower than this it is no swing but the next bump, s. */
const longestSwingS = 1

/**
 * The damping ratio of hits that settle by themselves. The smaller peaks of a swing are no hits of the ground: a return goes
 * on through them, up to where something else begins.
 */
function markFreeReturns(hits: Hit[], depthPct: Float64Array, rate: number, offset: number): void {
  for (let k = 0; k < hits.length;) {
    const chainEnd = endOfSwing(hits, k, rate)
    const starts = hits[k].peakIndex - offset
    const next = hits.at(chainEnd + 1)
    const ends = next ? startOfRise(depthPct, starts, next.peakIndex - offset, rate) : depthPct.length
    const found = freeReturn(depthPct, starts, ends, rate)
    hits[k].dampingRatio = found?.dampingRatio ?? null
    // What was part of the swing tells nothing again.
    k = found ? chainEnd + 1 : k + 1
  }
}

/** A wheel is at the top of a bump within this, s. */
const longestRiseS = 0.35
/** Before it rises it is pushed already, s. */
const pushedS = 0.03

/** Where the rise to a peak begins. The entry of a hit will not do: it may be the first low point of the swing before. */
function startOfRise(depthPct: Float64Array, from: number, peak: number, rate: number): number {
  const low = lowestBetween(depthPct, Math.max(from, peak - Math.round(longestRiseS * rate)), peak)
  return low - Math.round(pushedS * rate)
}

/** The last hit that may be a later peak of the swing which begins at hit `k`. */
function endOfSwing(hits: readonly Hit[], k: number, rate: number): number {
  let last = k
  while (last + 1 < hits.length) {
    const [now, next] = [hits[last], hits[last + 1]]
    const falls = next.peakPct - next.entryPct < diesAway * (now.peakPct - now.valleyPct)
    if (next.peakPct >= now.peakPct || !falls || next.peakIndex - now.peakIndex > longestSwingS * rate) break
    last++
  }
  return last
}

interface Turn {
  at: number
  kind: 'max' | 'min'
}

/** Alternating maxima and minima, each at least `threshold` away from the one before. */
function turningPoints(x: Float64Array, threshold: number): Turn[] {
  const turns: Turn[] = []
  let lo = 0
  let hi = 0
  let lowest = x[0]
  let highest = x[0]
  /** Before anything turned: where the way up to the highest began. */
  let upFrom = x[0]
  let rising: boolean | null = null
  for (let i = 1; i < x.length; i++) {
    const v = x[i]
    if (rising !== false && v > highest) {
      hi = i
      highest = v
      if (rising === null) upFrom = lowest
    }
    if (rising !== true && v < lowest) {
      lo = i
      lowest = v
    }
    if (rising !== false && highest - v >= threshold) {
      // What begins deep and only comes up has not been hit.
      if (rising === true || highest - upFrom >= threshold) turns.push({ at: hi, kind: 'max' })
      rising = false
      lo = i
      lowest = v
    } else if (rising !== true && v - lowest >= threshold) {
      if (rising === false) turns.push({ at: lo, kind: 'min' })
      rising = true
      hi = i
      highest = v
    }
  }
  return turns
}

function lowestBetween(x: Float64Array, from: number, to: number): number {
  let at = from
  let lowest = x[from]
  for (let i = from + 1; i <= to; i++) {
    const v = x[i]
    if (v > lowest) continue
    at = i
    lowest = v
  }
  return at
}

function largest(v: Float64Array, from: number, to: number, sign: 1 | -1): number {
  let best = 0
  for (let i = from; i <= to; i++) if (sign * v[i] > best) best = sign * v[i]
  return best
}
