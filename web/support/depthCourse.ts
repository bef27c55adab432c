import type { AlignedPiece } from '#core/signal/align'
import { viewOf } from '#core/signal/pyramid'
import type { DrawableChannel } from '../composables/useRecording.ts'

/** Where a depth course lies on its picture, in its pixels: width, and where time 0, 1 s, depth 0 and 1 % are. */
export interface CourseFrame {
  width: number
  timeZero: number
  perS: number
  depthZero: number
  /** Negative upwards. */
  perPct: number
}

export interface CourseStyle {
  color: string
  /** Pixels. */
  lineWidth: number
  opacity: number
  /** Of what lies between the centre line and the course; 0 for nothing. */
  areaOpacity: number
}

/** One unbroken stretch of a course: equal columns side by side, with the shallowest and the deepest place in each, pixels. */
export interface Stretch {
  left: number
  columnWidth: number
  near: Float64Array
  /** The same array as `near` when a column is one sample. */
  far: Float64Array
}

/**
 * The visible part of a depth course. A gap in the samples begins a new stretch.
 * @param pieces stretches of the time axis and how much later the samples lie there, at both ends where pace differs; null
 *   for all of it, not moved
 * Cost: one column for a pixel at most, whatever the zoom.
 */
export function courseStretches(
  channel: DrawableChannel,
  rateHz: number,
  frame: CourseFrame,
  pieces: readonly AlignedPiece[] | null,
): Stretch[] {
  const fromS = -frame.timeZero / frame.perS
  const toS = fromS + frame.width / frame.perS
  const whole = [{ startS: fromS, endS: toS, lagS: 0, endLagS: 0 }]
  return (pieces ?? whole).flatMap(({ startS, endS, lagS, endLagS = lagS }) => {
    const from = Math.max(fromS, startS)
    const to = Math.min(toS, endS)
    if (!(to > from)) return []
    /** Time of the samples passes so much faster than that of the axis. */
    const pace = 1 + (endLagS - lagS) / (endS - startS)
    const sampleS = (atS: number) => startS + lagS + (atS - startS) * pace
    // Where the samples stand still there is nothing to draw.
    return pace > 0.01 ? pieceStretches(channel, rateHz, frame, { from, to, pace, sampleS }) : []
  })
}

interface PieceInView {
  from: number
  to: number
  pace: number
  /** Time of the samples at a time of the axis. */
  sampleS: (atS: number) => number
}

function pieceStretches(
  { depthPct, pyramid }: DrawableChannel,
  rateHz: number,
  frame: CourseFrame,
  { from, to, pace, sampleS }: PieceInView,
): Stretch[] {
  const columns = Math.max(1, Math.round((to - from) * frame.perS))
  // One sample before and one behind, so that a line runs to the edge.
  const first = sampleS(from) * rateHz - 1
  const last = sampleS(to) * rateHz + 2
  const view = viewOf(depthPct, pyramid, first, last, columns)
  // A sample stands in the middle of its time.
  const shift = view.columnSamples === 1 ? 0.5 : 0
  const perSampleS = frame.perS / pace
  const columnWidth = (view.columnSamples / rateHz) * perSampleS
  const start =
    frame.timeZero + from * frame.perS + ((view.first - shift) / rateHz - sampleS(from)) * perSampleS
  const places = (depths: Float32Array) =>
    Float64Array.from(depths, (v) => frame.depthZero + v * frame.perPct)
  const near = places(view.low)
  const far = view.high === view.low ? near : places(view.high)
  const out: Stretch[] = []
  for (let i = 0; i < near.length; i++) {
    if (Number.isNaN(near[i])) continue
    const begin = i
    while (i < near.length && !Number.isNaN(near[i])) i++
    const cut = near.subarray(begin, i)
    out.push({
      left: start + begin * columnWidth,
      columnWidth,
      near: cut,
      far: far === near ? cut : far.subarray(begin, i),
    })
  }
  return out
}

/** From this width of a column on, samples are joined by a line. */
const lineFromPx = 2

/** Paints a depth course into a picture of its frame's width. */
export function paintCourse(
  ctx: CanvasRenderingContext2D,
  stretches: readonly Stretch[],
  frame: CourseFrame,
  style: CourseStyle,
) {
  ctx.fillStyle = ctx.strokeStyle = style.color
  ctx.lineWidth = style.lineWidth
  ctx.lineJoin = 'bevel'
  for (const s of stretches)
    if (s.far === s.near && s.columnWidth >= lineFromPx) paintLine(ctx, s, frame, style)
    else paintBars(ctx, s, frame, style)
}

function paintLine(
  ctx: CanvasRenderingContext2D,
  { left, columnWidth, near }: Stretch,
  { depthZero }: CourseFrame,
  { opacity, areaOpacity }: CourseStyle,
) {
  const x = (k: number) => left + (k + 0.5) * columnWidth
  ctx.beginPath()
  near.forEach((y, k) => ctx.lineTo(x(k), y))
  ctx.globalAlpha = opacity
  ctx.stroke()
  if (areaOpacity === 0) return
  ctx.lineTo(x(near.length - 1), depthZero)
  ctx.lineTo(x(0), depthZero)
  ctx.globalAlpha = areaOpacity
  ctx.fill()
}

/**
 * A bar for each column, joined to the one before, so that a steep slope has no holes. A path through thousands of points
 * takes a software renderer tens of milliseconds, the same picture in bars one or two.
 */
function paintBars(
  ctx: CanvasRenderingContext2D,
  { left, columnWidth, near, far }: Stretch,
  { depthZero }: CourseFrame,
  { lineWidth, opacity, areaOpacity }: CourseStyle,
) {
  // Whole pixels across, so that neighbours neither overlap nor leave a seam.
  const edge = (k: number) => Math.round(left + k * columnWidth)
  if (areaOpacity > 0) {
    ctx.globalAlpha = areaOpacity
    for (let k = 0; k < near.length; k++)
      ctx.fillRect(edge(k), depthZero, edge(k + 1) - edge(k), near[k] - depthZero)
  }
  ctx.globalAlpha = opacity
  for (let k = 0; k < near.length; k++) {
    const b = Math.max(0, k - 1)
    const top = Math.min(near[k], far[k], Math.max(near[b], far[b]))
    const bottom = Math.max(near[k], far[k], Math.min(near[b], far[b]))
    const thin = Math.max(0, lineWidth - (bottom - top))
    ctx.fillRect(edge(k), top - thin / 2, edge(k + 1) - edge(k), bottom - top + thin)
  }
  ctx.globalAlpha = 1
}
