import type { EndMetrics } from '#contract/recording'

export const depthEdges = [0, 15, 30, 50, 70, 90, 100]

/** Time shares in coarse depth bands, from the 2 % histogram. */
export function depthBands(m: EndMetrics): { from: number; to: number; share: number }[] {
  const { width, share } = m.depthHistogram
  return depthEdges.slice(0, -1).map((from, i) => {
    const to = depthEdges[i + 1]
    let sum = 0
    share.forEach((s, k) => {
      const low = k * width
      // A bin on an edge belongs to both sides by its overlap.
      const overlap = Math.max(0, Math.min(to, low + width) - Math.max(from, low))
      sum += (s * overlap) / width
    })
    return { from, to, share: sum }
  })
}

/** Where slow ends, mm/s at the axle, unless a person chooses another; a multiple of the histogram's 100 mm/s. */
export const usualSlowMmS = 200
export const slowChoicesMmS = [100, 200, 300, 400]

/** Shaft speed in coarse bands, mm/s at the axle; below zero is rebound. */
const edgesFor = (slowMmS: number) => [-4000, -800, -slowMmS, 0, slowMmS, 800, 4000]
export const speedNames = ['fast back', 'middling back', 'slow back', 'slow in', 'middling in', 'fast in']

export function speedBands(m: EndMetrics, slowMmS = usualSlowMmS): { name: string; share: number }[] {
  const speedEdges = edgesFor(slowMmS)
  const { start, width, share } = m.speedHistogram
  return speedNames.map((name, i) => {
    let sum = 0
    share.forEach((s, k) => {
      const low = start + k * width
      if (low >= speedEdges[i] && low < speedEdges[i + 1]) sum += s
    })
    return { name, share: sum }
  })
}
