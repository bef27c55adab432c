/** Faster than this at the axle, mm/s, is no movement of a wheel but a fault of the signal. */
const impossibleMmS = 12_000
const longestRepairS = 0.02

/**
 * Takes out spikes: samples reached and left faster than a wheel can move, up to 20 ms long, become the straight
 * line between their neighbours; longer ones become a gap. Works in place.
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
  let gapped = 0
  let i = 1
  while (i < n) {
    const before = depthMm[i - 1]
    if (!(Math.abs(depthMm[i] - before) > maxStep)) {
      i++
      continue
    }
    let end = i
    while (end < n && end - i <= longest && Math.abs(depthMm[end] - before) > maxStep * (end - i + 1)) end++
    if (end < n && end - i <= longest) {
      for (let k = i; k < end; k++)
        depthMm[k] = before + ((depthMm[end] - before) * (k - i + 1)) / (end - i + 1)
      repaired += end - i
      i = end + 1
    } else {
      depthMm[i] = NaN
      gapped++
      i += 2
    }
  }
  return { repaired, gapped }
}
