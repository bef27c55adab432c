import { graphic } from 'echarts/core'

/** A line of a figure as it is drawn, in pixels; points that are no numbers part it. */
export interface DrawnLine {
  points: readonly (readonly [number, number])[]
  colour: string
  width: number
  dashed: boolean
  filled: boolean
  /** No line between the points. */
  dots: boolean
  /** Diameter of a point on every value, px; 0: none. */
  dotPx: number
}
/** A line across the figure at a value of one axis, with its name, px. */
export interface DrawnMark {
  across: 'x' | 'y'
  at: number
  name: string
}
/** Where lines may be drawn, px. */
export interface Frame {
  x: number
  y: number
  width: number
  height: number
}

interface CourseShape {
  points: DrawnLine['points']
  /** Closed down to here, px; null: the line alone. */
  downTo: number | null
  /** Points instead of the line, diameter; 0: the line, px. */
  dotPx: number
}

const isPlace = (p: readonly [number, number]) => Number.isFinite(p[0]) && Number.isFinite(p[1])

/** A course with breaks, its area or its points: one shape each, whatever it holds. */
const Course = graphic.extendShape({
  type: 'course',
  shape: { points: [], downTo: null, dotPx: 0 } as CourseShape,
  buildPath(path: CanvasRenderingContext2D, { points, downTo, dotPx }: CourseShape) {
    if (dotPx > 0) {
      for (const p of points) {
        if (!isPlace(p)) continue
        path.moveTo(p[0] + dotPx / 2, p[1])
        path.arc(p[0], p[1], dotPx / 2, 0, 2 * Math.PI)
      }
      return
    }
    let first: readonly [number, number] | null = null
    let last: readonly [number, number] | null = null
    const close = () => {
      if (first && last && downTo !== null) {
        path.lineTo(last[0], downTo)
        path.lineTo(first[0], downTo)
        path.closePath()
      }
      first = null
    }
    for (const p of points) {
      if (!isPlace(p)) close()
      else if (first) path.lineTo(p[0], p[1])
      else {
        path.moveTo(p[0], p[1])
        first = p
      }
      if (isPlace(p)) last = p
    }
    close()
  },
})
type Shape = InstanceType<typeof Course>

const givePx = 0.5
const isInside = (f: Frame, [x, y]: readonly [number, number]) =>
  x >= f.x - givePx && x <= f.x + f.width + givePx && y >= f.y - givePx && y <= f.y + f.height + givePx

/** Above the axes, on a canvas of its own: they are not painted again while lines move. */
const ownCanvas = 1
const faint = 0.12
const markGapPx = 4

/**
 * Lines and marks of a figure, drawn on what a chart paints its axes on. A step of a slider only puts other points into
 * shapes that are there.
 */
export function lineLayer(paper: { add: (x: InstanceType<typeof graphic.Group>) => void }) {
  const group = new graphic.Group({ silent: true })
  /** Lines end at the frame; a point on its edge is whole. */
  const inFrame = new graphic.Group({ silent: true })
  paper.add(group)
  const frameRect = new graphic.Rect()
  inFrame.setClipPath(frameRect)
  let drawn = ''
  let shapes: { line: Shape | null; area: Shape | null; dots: Shape | null }[] = []
  let marks: { line: InstanceType<typeof graphic.Line>; name: InstanceType<typeof graphic.Text> }[] = []

  const add = (style: object, z: number, to = inFrame): Shape => {
    const shape = new Course({
      silent: true,
      zlevel: ownCanvas,
      z,
      shape: { points: [], downTo: null, dotPx: 0 },
      style: { fill: 'none', ...style },
    })
    to.add(shape)
    return shape
  }
  function begin(lines: readonly DrawnLine[], marked: readonly DrawnMark[], ink: string, soft: string) {
    inFrame.removeAll()
    group.removeAll()
    group.add(inFrame)
    shapes = lines.map((l, i) => ({
      area: l.filled ? add({ fill: l.colour, opacity: faint }, i) : null,
      line: l.dots
        ? null
        : add(
            {
              stroke: l.colour,
              lineWidth: l.width,
              lineJoin: 'bevel',
              lineDash: l.dashed ? 'dashed' : 'solid',
            },
            i,
          ),
      dots: l.dotPx > 0 ? add({ fill: l.colour }, i, group) : null,
    }))
    marks = marked.map(() => {
      const line = new graphic.Line({ silent: true, zlevel: ownCanvas, z: 50 })
      line.setStyle({ stroke: soft, lineWidth: 1, lineDash: 'dotted' })
      const name = new graphic.Text({ silent: true, zlevel: ownCanvas, z: 51 })
      name.setStyle({ fill: ink, fontSize: 12, fontFamily: 'Atkinson Hyperlegible Next Variable' })
      group.add(line)
      group.add(name)
      return { line, name }
    })
  }
  return {
    /** @param kind what stays the same while only points move; another one begins anew */
    draw(
      kind: string,
      frame: Frame,
      lines: readonly DrawnLine[],
      marked: readonly DrawnMark[],
      colours: { ink: string; soft: string },
    ) {
      if (kind !== drawn) begin(lines, marked, colours.ink, colours.soft)
      drawn = kind
      // Half of a line that lies on the frame lies outside of it.
      const half = Math.max(0, ...lines.map((l) => l.width)) / 2
      frameRect.setShape({
        x: frame.x - half,
        y: frame.y - half,
        width: frame.width + 2 * half,
        height: frame.height + 2 * half,
      })
      lines.forEach(({ points, dotPx }, i) => {
        shapes[i].line?.setShape({ points, downTo: null, dotPx: 0 })
        shapes[i].area?.setShape({ points, downTo: frame.y + frame.height, dotPx: 0 })
        shapes[i].dots?.setShape({ points: points.filter((p) => isInside(frame, p)), downTo: null, dotPx })
      })
      const [right, bottom] = [frame.x + frame.width, frame.y + frame.height]
      marked.forEach(({ across, at, name }, i) => {
        marks[i].line.setShape(
          across === 'x'
            ? { x1: at, x2: at, y1: frame.y, y2: bottom }
            : { x1: frame.x, x2: right, y1: at, y2: at },
        )
        marks[i].name.setStyle(
          across === 'x'
            ? { text: name, x: at + markGapPx, y: frame.y + markGapPx, align: 'left', verticalAlign: 'top' }
            : {
                text: name,
                x: right - markGapPx,
                y: at - markGapPx,
                align: 'right',
                verticalAlign: 'bottom',
              },
        )
      })
    },
  }
}
