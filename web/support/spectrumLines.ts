import type { Analysis } from '#contract/recording'
import type { FigureLine } from '../components/shell/LineFigure.vue'

type End = 'front' | 'rear'
const ends: End[] = ['front', 'rear']

/** RMS of depth in each tenth-wide band over its middle frequency, % of travel; the second run dashed. */
export function spectrumLines(a: Analysis, other: Analysis | null): FigureLine[] {
  const of = (x: Analysis, tag: string, dashed: boolean) =>
    ends.flatMap((end): FigureLine[] => {
      const s = x.spectra[end]
      if (!s) return []
      const points = s.density.map((d, i): [number, number] => {
        const from = s.startHz * s.ratio ** i
        return [from * Math.sqrt(s.ratio), Math.sqrt(d * from * (s.ratio - 1))]
      })
      return [{ name: `${tag}${end}`, colour: `--${end}`, points, dashed }]
    })
  return [...of(a, other ? 'A ' : '', false), ...(other ? of(other, 'B ', true) : [])]
}

/** Each hit's return speed over its depth, and the straight line through them. */
export function returnLines(a: Analysis): FigureLine[] {
  return ends.flatMap((end): FigureLine[] => {
    const m = a.whole[end]
    const points = a.hitPoints[end].map(([pct, mmS]): [number, number] => [pct, mmS / 1000])
    if (!m || points.length === 0) return []
    const dots: FigureLine = { name: `${end}, each hit`, colour: `--${end}`, points, dots: true }
    if (m.returnSlopePerS === null || m.returnInterceptMmS === null) return [dots]
    // The law is kept per mm of depth; a line through its value at both ends of the points needs the travel back.
    const line = fitThrough(points)
    return [dots, { name: `${end}, the line through them`, colour: `--${end}`, points: line, width: 2.5 }]
  })
}

/** Least-squares line through points, as its two ends. */
function fitThrough(points: readonly [number, number][]): [number, number][] {
  const n = points.length
  const mx = points.reduce((s, p) => s + p[0], 0) / n
  const my = points.reduce((s, p) => s + p[1], 0) / n
  let [xx, xy] = [0, 0]
  for (const [x, y] of points) {
    xx += (x - mx) ** 2
    xy += (x - mx) * (y - my)
  }
  const slope = xx > 0 ? xy / xx : 0
  const xs = points.map((p) => p[0])
  return [Math.min(...xs), Math.max(...xs)].map((x): [number, number] => [
    x,
    Math.max(0, my + slope * (x - mx)),
  ])
}

/** What the return law says, in words: the faster the deeper, or all alike. */
export function returnWords(a: Analysis, end: End): string | null {
  const m = a.whole[end]
  if (!m || m.returnSlopePerS === null) return null
  return `${end} comes back ${m.returnSlopePerS.toFixed(1)} mm/s faster for each mm it went deeper`
}
