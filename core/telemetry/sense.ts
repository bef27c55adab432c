import { quantileSorted } from '../signal/quantile.ts'

export const senseRules = {
  /** The fastest of each direction are compared at this quantile. */
  fastQuantile: 0.998,
  /** Hits come so many times faster than returns, and the depths lean so far, before they say anything. */
  speedRatio: 1.28,
  skew: 0.5,
  /** Half of a ride lies above or below these shares of the stroke. */
  mostlyBelow: 0.4,
  mostlyAbove: 0.6,
} as const

/** Which way a travel sensor counts: deeper is more, deeper is less, or its ride does not tell. */
export type Sense = 'deeper-is-more' | 'deeper-is-less' | 'unclear'

/**
 * Which way a travel sensor counts, by what no setting turns round: the ground hits faster than a damper returns (two
 * votes), the depths of a ride have their tail towards the end of the stroke (one), and a ride spends its time in the
 * outer half of it (one). A ride with jumps has a second tail in the air, and one about the middle no level to speak of:
 * the speeds tell there.
 *
 * @param shares of the stroke as the sensor counts them now; NaN = gap
 */
export function senseOf(shares: Float64Array): Sense {
  const r = senseRules
  const depths = shares.filter(Number.isFinite).sort()
  if (depths.length < 10) return 'unclear'
  const speeds = new Float64Array(shares.length)
  // Over two samples: one alone is half noise.
  for (let i = 1; i < shares.length - 1; i++) speeds[i] = shares[i + 1] - shares[i - 1]
  const rising = speeds.filter(Number.isFinite).sort()
  const fastest = quantileSorted(rising, r.fastQuantile)
  const fastestBack = -quantileSorted(rising, 1 - r.fastQuantile)
  const ratio = fastest > 0 && fastestBack > 0 ? fastest / fastestBack : 1
  const lean = skewOf(depths)
  const middle = quantileSorted(depths, 0.5)
  const votes =
    2 * sign(Math.log(ratio), Math.log(r.speedRatio)) +
    sign(lean, r.skew) -
    (middle > r.mostlyAbove ? 1 : middle < r.mostlyBelow ? -1 : 0)
  if (votes >= 1) return 'deeper-is-more'
  return votes <= -2 ? 'deeper-is-less' : 'unclear'
}

/** −1, 0 or 1: 0 within the threshold. */
const sign = (value: number, threshold: number) => (value >= threshold ? 1 : value <= -threshold ? -1 : 0)

/** Third standardised moment; without the outermost thousandth, which may be spikes. */
function skewOf(sorted: Float64Array): number {
  const cut = Math.floor(sorted.length / 1000)
  const x = sorted.subarray(cut, sorted.length - cut)
  let sum = 0
  for (const v of x) sum += v
  const mean = sum / x.length
  let [two, three] = [0, 0]
  for (const v of x) {
    two += (v - mean) ** 2
    three += (v - mean) ** 3
  }
  return two > 0 ? three / x.length / Math.pow(two / x.length, 1.5) : 0
}
