import { describe, expect, it } from 'vitest'
import { buildPyramid } from '#core/signal/pyramid'
import { courseStretches, paintCourse, type CourseFrame } from './depthCourse.ts'

const rateHz = 100
const depthPct = Float32Array.from({ length: 6000 }, (_, i) =>
  i >= 2000 && i < 2300 ? NaN : 40 + 30 * Math.sin(i / 9),
)
const channel = { depthPct, pyramid: buildPyramid(depthPct) }
/** 60 s in 500 px; the centre line at 100 px, one pixel a percent, upwards. */
const whole: CourseFrame = { width: 500, timeZero: 0, perS: 500 / 60, depthZero: 100, perPct: -1 }
/** One second in 500 px, from 10 s. */
const close: CourseFrame = { ...whole, perS: 500, timeZero: -10 * 500 }
const style = { color: 'black', lineWidth: 1, opacity: 1, areaOpacity: 0.3 }

/** Notes what is drawn instead of drawing it. */
function paper() {
  const rects: number[][] = []
  const points: number[][] = []
  const ctx = {
    fillRect: (...r: number[]) => rects.push(r),
    lineTo: (...p: number[]) => points.push(p),
    beginPath() {},
    stroke() {},
    fill() {},
  }
  return { rects, points, ctx: ctx as unknown as CanvasRenderingContext2D }
}

describe('the course of a depth channel', () => {
  it('is two stretches around a gap, in place', () => {
    const [a, b, ...rest] = courseStretches(channel, rateHz, whole, null)
    expect(rest).toEqual([])
    expect(a.left).toBeCloseTo(0, 6)
    expect(a.left + a.near.length * a.columnWidth).toBeCloseTo((20 / 60) * 500, -1)
    expect(b.left).toBeCloseTo((23 / 60) * 500, -1)
    // Upwards, the deepest lies highest: at 100 − 70.
    expect(Math.min(...a.far)).toBeCloseTo(30, 0)
    expect(Math.max(...a.near)).toBeCloseTo(90, 0)
  })
  it('is the samples themselves when there are few, each in the middle of its time', () => {
    const [a] = courseStretches(channel, rateHz, close, null)
    expect(a.far).toBe(a.near)
    const k = a.near.findIndex((_, i) => Math.abs(a.left + (i + 0.5) * a.columnWidth - 250) < 1e-6)
    expect(a.near[k]).toBeCloseTo(100 - depthPct[1050], 4)
  })
  it('lies under another clock where pieces say so, and only there', () => {
    const piece = { startS: 10.2, endS: 10.6, lagS: 3, correlation: 1 }
    const [a, ...rest] = courseStretches(channel, rateHz, close, [piece])
    expect(rest).toEqual([])
    const k = a.near.findIndex((_, i) => Math.abs(a.left + (i + 0.5) * a.columnWidth - 200) < 1e-6)
    expect(a.near[k]).toBeCloseTo(100 - depthPct[1340], 4)
    expect(a.left).toBeGreaterThan(0.2 * 500 - 15)
    expect(a.left + a.near.length * a.columnWidth).toBeLessThan(0.6 * 500 + 15)
  })
  it('is drawn out where the other clock runs slower, and its ends lie where the piece says', () => {
    // 0.4 s of the axis hold 0.8 s of the samples, from 13.2 s on.
    const piece = { startS: 10.2, endS: 10.6, lagS: 3, endLagS: 3.4, correlation: 1 }
    const [a, ...rest] = courseStretches(channel, rateHz, close, [piece])
    expect(rest).toEqual([])
    const at = (axisS: number, sample: number) => {
      const px = (axisS - 10) * 500
      const k = a.near.findIndex((_, i) => Math.abs(a.left + (i + 0.5) * a.columnWidth - px) < 1e-6)
      expect(a.near[k], `${axisS} s`).toBeCloseTo(100 - depthPct[sample], 4)
    }
    at(10.2, 1320)
    at(10.4, 1360)
    at(10.6, 1400)
  })
  it('shows nothing where the other stood still', () => {
    const piece = { startS: 10.2, endS: 10.6, lagS: 3, endLagS: 2.6, correlation: 1 }
    expect(courseStretches(channel, rateHz, close, [piece])).toEqual([])
  })
  it('is painted without holes: each bar touches the one before', () => {
    const { ctx, rects } = paper()
    const [a] = courseStretches(channel, rateHz, whole, null)
    paintCourse(ctx, [a], whole, { ...style, areaOpacity: 0 })
    expect(rects).toHaveLength(a.near.length)
    for (let k = 1; k < rects.length; k++) {
      const [x, y, width, height] = rects[k]
      const [beforeX, beforeY, beforeWidth, beforeHeight] = rects[k - 1]
      expect(x).toBe(beforeX + beforeWidth)
      expect(width).toBeGreaterThan(0)
      expect(y).toBeLessThanOrEqual(beforeY + beforeHeight + 1e-9)
      expect(y + height).toBeGreaterThanOrEqual(beforeY - 1e-9)
    }
  })
  it('is painted as a line when zoomed in, with what lies under it', () => {
    const { ctx, rects, points } = paper()
    const [a] = courseStretches(channel, rateHz, close, null)
    paintCourse(ctx, [a], close, style)
    expect(rects).toEqual([])
    expect(points).toHaveLength(a.near.length + 2)
    expect(points.slice(-2).map(([, y]) => y)).toEqual([100, 100])
  })
})
