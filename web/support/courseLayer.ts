import { token } from './chartTheme.ts'
import { courseStretches, paintCourse, type CourseFrame, type CourseStyle } from './depthCourse.ts'
import type { MirrorView } from './mirrorOption.ts'

/** Where the axes of a chart lie, in CSS px of the plot: time 0, 1 s, depth 0 and 1 % (front; the rear goes the other way). */
export type PlotAxes = Omit<CourseFrame, 'width'>

/**
 * Paints the sections' ground and all courses of a mirror trace, for whatever part of the time axis is in view. They lie in a
 * picture of their own under the chart: what lies on top can move without them, and a chart's own lines would be drawn
 * through every recorded sample.
 */
export function paintCourses(picture: HTMLCanvasElement, axes: PlotAxes, view: MirrorView) {
  const dense = window.devicePixelRatio
  // Setting the size of a canvas clears it, also to the same size.
  picture.width = Math.round(picture.clientWidth * dense)
  picture.height = Math.round(picture.clientHeight * dense)
  const ctx = picture.getContext('2d')
  if (!ctx) return
  const frame = {
    width: picture.width,
    timeZero: axes.timeZero * dense,
    perS: axes.perS * dense,
    depthZero: axes.depthZero * dense,
    perPct: axes.perPct * dense,
  }
  paintGround(ctx, frame, view)
  const paint = (end: 'front' | 'rear', which: 'main' | 'other', style: CourseStyle) => {
    const channel = view[which]?.[end]
    if (!channel) return
    const rateHz = view[which]!.recording.sampleRateHz
    const own = { ...frame, perPct: end === 'front' ? frame.perPct : -frame.perPct }
    paintCourse(
      ctx,
      courseStretches(channel, rateHz, own, which === 'other' ? view.pieces : null),
      own,
      style,
    )
  }
  for (const end of ['front', 'rear'] as const)
    paint(end, 'main', {
      color: token(`--${end}`),
      lineWidth: 1.2 * dense,
      opacity: 1,
      areaOpacity: 0.3,
    })
  for (const end of ['front', 'rear'] as const)
    paint(end, 'other', { color: token('--ink'), lineWidth: dense, opacity: 0.75, areaOpacity: 0 })
}

/** Every second section on a darker ground. */
function paintGround(ctx: CanvasRenderingContext2D, { timeZero, perS }: CourseFrame, { main }: MirrorView) {
  ctx.fillStyle = token('--paper-deep')
  ctx.globalAlpha = 0.7
  main.recording.analysis.sections.forEach((s, i) => {
    if (i % 2) ctx.fillRect(timeZero + s.startS * perS, 0, (s.endS - s.startS) * perS, ctx.canvas.height)
  })
  ctx.globalAlpha = 1
}
