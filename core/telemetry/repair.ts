/** Faster than this at the axle, mm/s, is no movement of a wheel but a fault of the signal. */
const impossibleMmS = 12_000
const longestRepairS = 0.02
/** A plateau that is jumped onto and off again within this long is a lost signal, s. */
const longestPlateauS = 1

/**
 * Takes out spikes: samples reached and left faster than a wheel can move, up to 20 ms long, become the straight
 * line between their neighbours; longer ones, until the jump back, become a gap. Works in place.
 * @param depthMm uniform samples, mm
 * @returns how many samples were repaired, and how many turned into gaps
 */
export function repairSpikesInto(
  depthMm: Float64Array,
  sampleRateHz: number,
): { repaired: number; gapped: number } {
  const maxStep = impossibleMmS / sampleRateHz
  const longest = Math.max(1, Math.floor(longestRepairS * sampleRateHz))
  const n = depthMm.length
  let repaired = 0
  let gapped = gapFlats(depthMm, sampleRateHz)
  // The first sample has no neighbour before it: the two after it say whether it belongs.
  if (n > 2 && Math.abs(depthMm[1] - depthMm[0]) > maxStep && Math.abs(depthMm[2] - depthMm[1]) <= maxStep) {
    depthMm[0] = NaN
    gapped++
  }
  let i = 1
  while (i < n) {
    const before = depthMm[i - 1]
    if (!(Math.abs(depthMm[i] - before) > maxStep)) {
      i++
      continue
    }
    const end = leftAt(depthMm, i, maxStep, longestPlateauS * sampleRateHz)
    if (end !== null && end - i <= longest) {
      for (let k = i; k < end; k++)
        depthMm[k] = before + ((depthMm[end] - before) * (k - i + 1)) / (end - i + 1)
      repaired += end - i
      i = end + 1
    } else {
      depthMm.fill(NaN, i, end ?? i + 1)
      gapped += (end ?? i + 1) - i
      i = (end ?? i + 1) + 1
    }
  }
  return { repaired, gapped }
}

/**
 * First sample after the plateau that `at` has jumped onto: reached by a jump the other way, back where the wheel can be.
 * @returns null when it is not left in time: then the jump was a step, and the sensor stands elsewhere now
 */
function leftAt(depthMm: Float64Array, at: number, maxStep: number, longest: number): number | null {
  const before = depthMm[at - 1]
  const up = depthMm[at] > before
  for (let k = at + 1; k < depthMm.length && k - at <= longest; k++) {
    const step = depthMm[k] - depthMm[k - 1]
    if ((up ? step < -maxStep : step > maxStep) && Math.abs(depthMm[k] - before) <= maxStep * (k - at + 1))
      return k
  }
  return null
}

/** No wheel stands at one number to the last digit for so long between two jumps, s. */
const flatS = 0.1
/** No wheel comes out of its travel, or leaves its stop, faster than this, mm/s. */
const flatJumpMmS = 4000

/** A lost signal that stands at one number: jumped onto and off again, or never left. @returns how many samples became gaps */
function gapFlats(depthMm: Float64Array, sampleRateHz: number): number {
  const jump = flatJumpMmS / sampleRateHz
  const least = Math.max(5, Math.round(flatS * sampleRateHz))
  const n = depthMm.length
  let gapped = 0
  for (let from = 1; from < n;) {
    let to = from + 1
    while (to < n && depthMm[to] === depthMm[from]) to++
    const isJumpedOnto = Math.abs(depthMm[from] - depthMm[from - 1]) > jump
    const isLeft = to >= n || Math.abs(depthMm[to] - depthMm[from]) > jump
    if (to - from >= least && isJumpedOnto && isLeft) {
      depthMm.fill(NaN, from, to)
      gapped += to - from
    }
    from = to
  }
  return gapped
}
