const [f1, f2, f3, f4] = [10 ** 0.8, 10 ** 3.1, 100 / (2 * Math.PI), 100 / (2 * Math.PI)]
const [q1, q2] = [1 / Math.SQRT2, 0.64]

/**
 * Magnitude of the hand-arm weighting W_h: band limits at 6.3 and 1259 Hz and the acceleration–velocity transition.
 * Source: ISO 5349-1:2001, annex A.
 */
export function handArmGain(hz: number): number {
  if (hz <= 0) return 0
  const band = (f: number, q: number) => Math.hypot(1 - (hz / f) ** 2, hz / (f * q))
  const high = (hz / f1) ** 2 / band(f1, q1)
  const low = 1 / band(f2, q1)
  const transition = Math.hypot(1, hz / f3) / band(f4, q2)
  return high * low * transition
}
