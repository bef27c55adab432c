import type { RiddenWay } from '#contract/recording'

/** Coarse enough to be sent with a page, fine enough that a change of pace is followed. */
const stepS = 0.5

/**
 * Metres ridden at even steps of time, never falling: by the distance of a recording, else by its speed. A gap of either
 * adds no metres.
 *
 * @returns null without both, or when nothing was ridden
 */
export function wayCourse(ride: {
  sampleRateHz: number
  distanceM: ArrayLike<number> | null
  speedMS: ArrayLike<number> | null
}): RiddenWay | null {
  const whole = ride.distanceM
    ? filled(ride.distanceM)
    : ride.speedMS && filled(integrated(ride.speedMS, ride.sampleRateHz))
  if (!whole) return null
  const wayM: number[] = []
  const every = stepS * ride.sampleRateHz
  for (let k = 0; Math.round(k * every) < whole.length; k++) {
    const here = whole[Math.round(k * every)] - whole[0]
    wayM.push(Math.max(here, k > 0 ? wayM[k - 1] : 0))
  }
  return { stepS, wayM }
}

/** Metres by a speed, m/s. */
export function integrated(speedMS: ArrayLike<number>, sampleRateHz: number): Float64Array {
  const out = new Float64Array(speedMS.length)
  for (let i = 1; i < out.length; i++)
    out[i] = out[i - 1] + (Number.isFinite(speedMS[i]) ? speedMS[i] / sampleRateHz : 0)
  return out
}

/** Without its gaps; null when nothing is there, or nothing was ridden. */
export function filled(distance: ArrayLike<number>): Float64Array | null {
  const out = Float64Array.from(distance)
  const first = out.findIndex(Number.isFinite)
  if (first < 0) return null
  out.fill(out[first], 0, first)
  for (let i = first + 1; i < out.length; i++) if (!Number.isFinite(out[i])) out[i] = out[i - 1]
  return out[out.length - 1] > out[0] ? out : null
}
