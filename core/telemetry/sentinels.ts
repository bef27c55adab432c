/** Numbers that loggers write for "no reading". */
const known = new Set([
  -999, -9999, -99, -32768, 32767, 65535, 9999, 99999, 16777215, 2147483647, -2147483648, -1,
])

/** So far beyond everything else it is no reading, share of the span of the rest. */
const beyond = 0.5

/**
 * Turns what a logger writes for "no reading" into gaps, in place: a number of that kind that comes back exactly, far
 * outside of all other readings. Raw readings, before any unit.
 *
 * @returns how many readings were lost, and the number that stood for them; null: none
 */
export function gapSentinels(x: Float64Array): { count: number; value: number } | null {
  let [low, high] = [Infinity, -Infinity]
  for (let i = 0; i < x.length; i++) {
    const v = x[i]
    if (v < low) low = v
    if (v > high) high = v
  }
  // What is far outside is the least or the most of all.
  for (const value of [low, high]) {
    if (!known.has(value)) continue
    let count = 0
    let [least, most] = [Infinity, -Infinity]
    for (let i = 0; i < x.length; i++) {
      const v = x[i]
      if (v === value) count++
      else {
        if (v < least) least = v
        if (v > most) most = v
      }
    }
    if (count < 2 || count > 0.9 * x.length || !(most > least)) continue
    const margin = beyond * (most - least)
    if (value > least - margin && value < most + margin) continue
    for (let i = 0; i < x.length; i++) if (x[i] === value) x[i] = NaN
    return { count, value }
  }
  return null
}
