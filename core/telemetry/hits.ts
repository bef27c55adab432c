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
  /** For hits with nothing after them for 0.6 s: damping ratio from the overshoot, 0.8 meaning "0.8 or above". */
  dampingRatio: number | null
}

export const hitRules = {
  /** Least rise and fall around a hit, % of travel. */
  prominencePct: 6,
  apartS: 0.06,
  isolatedS: 0.6,
  dampingCap: 0.8,
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
    const isolated = after - peak >= hitRules.isolatedS * sampleRateHz
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
      dampingRatio: isolated ? overshootDamping(depthPct, peak, after, sampleRateHz) : null,
    })
  }
  return hits
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
  let rising: boolean | null = null
  for (let i = 1; i < x.length; i++) {
    const v = x[i]
    if (rising !== false && v > highest) {
      hi = i
      highest = v
    }
    if (rising !== true && v < lowest) {
      lo = i
      lowest = v
    }
    if (rising !== false && highest - v >= threshold && (rising === true || highest - lowest >= threshold)) {
      turns.push({ at: hi, kind: 'max' })
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

/**
 * Damping ratio of a free return, from successive extremes around the resting depth c: each lies the same ratio
 * os nearer to it, ζ = −ln(os) / √(π² + ln² os). With a second maximum c follows exactly,
 * c = (p₀p₁ − m²)/(p₀ + p₁ − 2m); else it is the median of the quiet tail.
 */
function overshootDamping(x: Float64Array, peak: number, limit: number, rate: number): number | null {
  const stop = Math.min(limit, peak + Math.round(1.5 * rate))
  let low = peak
  while (low + 1 < stop && x[low + 1] <= x[low]) low++
  let high = low
  while (high + 1 < stop && x[high + 1] >= x[high]) high++
  const noise = 0.4
  const p0 = x[peak]
  const m = x[low]
  const p1 = x[high]
  if (p0 - m < hitRules.prominencePct / 2) return null
  let rest: number
  if (p1 - m > noise && high + 1 < stop) rest = (p0 * p1 - m * m) / (p0 + p1 - 2 * m)
  else {
    const tail = x.slice(Math.min(low + 1, stop - 1), stop).sort()
    rest = tail[tail.length >> 1]
  }
  const ratio = (rest - m) / (p0 - rest)
  if (!(ratio > Math.exp((-Math.PI * hitRules.dampingCap) / Math.sqrt(1 - hitRules.dampingCap ** 2))))
    return hitRules.dampingCap
  const l = Math.log(Math.min(ratio, 0.999))
  return Math.min(hitRules.dampingCap, -l / Math.sqrt(Math.PI ** 2 + l * l))
}
