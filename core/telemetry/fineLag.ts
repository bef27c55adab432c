import type { CleanRecording } from './cleanRecording.ts'

export const fineRules = {
  /** Searched so far on either side of the coarse match; that one steps by half a second. */
  reachS: 1.2,
  rateHz: 100,
  /** Front and rear axle stand about so far apart; without a pace the rear follows by about so long. */
  wheelbaseM: 1.2,
  usualDelayS: 0.22,
  /** Least correlation to be believed, and how far it must stand above any other moment. */
  least: 0.3,
  above: 0.05,
  apartS: 0.12,
  slowestMS: 2,
} as const

export interface FineLag {
  offsetS: number
  correlation: number
  /** About how far it may be off, s. */
  withinS: number
}

/**
 * Where another logger's file lies, finely: the rear meets what the front met, a wheelbase later at the pace of the moment;
 * the same end in both files meets it at once. Correlation of speeds over all lags around a coarse match.
 *
 * @param coarseS where the other file begins by a coarse match, s
 * @returns null when no lag stands out
 * Cost O(N · 240) at 100 Hz.
 */
export function fineLag(main: CleanRecording, other: CleanRecording, coarseS: number): FineLag | null {
  const r = fineRules
  const same = main.ends.find((e) => other.depthPct[e])
  const [mine, theirs] = same ? [same, same] : [main.ends[0], other.ends[0]]
  if (!main.depthPct[mine] || !other.depthPct[theirs]) return null
  const a = speedsOf(main, mine)
  const b = speedsOf(other, theirs)
  // What the front meets now, the rear meets later: the other file is looked at so much later, or earlier.
  const later = same ? 0 : theirs === 'rear' ? 1 : -1
  const pace = main.speedMS
  const delayed = a.map((_, i) => {
    const v = pace ? pace[Math.round((i * main.sampleRateHz) / r.rateHz)] : NaN
    const delayS = pace ? (v >= r.slowestMS ? r.wheelbaseM / v : NaN) : r.usualDelayS
    return later === 0 ? i : i + later * delayS * r.rateHz
  })
  const steps = Math.round(r.reachS * r.rateHz)
  const course = Float64Array.from({ length: 2 * steps + 1 }, (_, k) =>
    correlationAt(a, b, delayed, coarseS * r.rateHz + k - steps),
  )
  let best = 0
  for (let k = 1; k < course.length; k++) if (course[k] > course[best]) best = k
  const apart = Math.round(r.apartS * r.rateHz)
  const next = course.reduce((m, c, k) => (Math.abs(k - best) > apart && c > m ? c : m), -1)
  if (!(course[best] >= r.least && course[best] - next >= r.above)) return null
  return {
    offsetS: coarseS + (best - steps) / r.rateHz,
    correlation: course[best],
    withinS: same ? 0.01 : pace ? 0.03 : 0.15,
  }
}

/** Speed of an end on a common clock; NaN = gap. */
function speedsOf(recording: CleanRecording, end: 'front' | 'rear'): Float64Array {
  const { sampleRateHz: rate, samples } = recording
  const depth = recording.depthPct[end]!
  const n = Math.floor((samples / rate) * fineRules.rateHz) - 2
  const at = (i: number) => depth[Math.min(samples - 1, Math.round((i * rate) / fineRules.rateHz))]
  return Float64Array.from({ length: Math.max(0, n) }, (_, i) => at(i + 1) - at(Math.max(0, i - 1)))
}

/** Correlation of a with b, b beginning `offset` steps into a and looked at where `delayed` says. −1 without enough. */
function correlationAt(a: Float64Array, b: Float64Array, delayed: Float64Array, offset: number): number {
  let [n, sa, sb, saa, sbb, sab] = [0, 0, 0, 0, 0, 0]
  for (let i = 0; i < a.length; i++) {
    const j = Math.round(delayed[i] - offset)
    if (!(j >= 0 && j < b.length)) continue
    const x = a[i]
    const y = b[j]
    if (!(x === x && y === y)) continue
    n++
    sa += x
    sb += y
    saa += x * x
    sbb += y * y
    sab += x * y
  }
  const va = saa - (sa * sa) / n
  const vb = sbb - (sb * sb) / n
  return n >= 5 * fineRules.rateHz && va > 1e-9 && vb > 1e-9 ? (sab - (sa * sb) / n) / Math.sqrt(va * vb) : -1
}
