import type { Spot } from '#core/lineage/lanes'

/** How a map of trails is drawn, px: rows from the top, lanes from the left. */
export interface MapSize {
  rowHeight: number
  /** Room for all lanes. */
  width: number
}

export interface TrailPath {
  id: string
  d: string
  /** Width of the trail: wider ground was ridden more. */
  width: number
  wanted: boolean
}

const margin = 24
const widestLane = 44

/** Middle of a lane; many lanes stand closer. */
export function laneX(lane: number, lanes: number, { width }: MapSize): number {
  const step = lanes < 2 ? 0 : Math.min(widestLane, (width - 2 * margin) / (lanes - 1))
  return margin + lane * step
}
export const rowY = (row: number, { rowHeight }: MapSize) => (row + 0.5) * rowHeight

/** Ridden often enough to be at its widest. */
const manyRuns = 12
const widthOf = (runs: number) => 7 + 11 * Math.min(1, runs / manyRuns)

/**
 * A path for each place that came from another: up from where it parts, in a curve into its own lane, straight to the
 * place.
 */
export function trailPaths(spots: readonly Spot[], runsOf: (s: Spot) => number, size: MapSize): TrailPath[] {
  const at = new Map(spots.map((s) => [s.place.id, s]))
  const lanes = Math.max(0, ...spots.map((s) => s.lane)) + 1
  return spots.flatMap((s) => {
    const parent = s.parentId === null ? undefined : at.get(s.parentId)
    if (!parent) return []
    const x0 = laneX(parent.lane, lanes, size)
    const y0 = rowY(parent.row, size)
    const x1 = laneX(s.lane, lanes, size)
    const y1 = rowY(s.row, size)
    const bend = y0 - size.rowHeight
    const curve =
      x0 === x1
        ? ''
        : ` C${x0} ${y0 - size.rowHeight * 0.55} ${x1} ${y0 - size.rowHeight * 0.45} ${x1} ${bend}`
    return [
      {
        id: s.place.id,
        d: `M${x0} ${y0}${curve} L${x1} ${y1}`,
        width: widthOf(runsOf(s)),
        wanted: s.place.wanted,
      },
    ]
  })
}
