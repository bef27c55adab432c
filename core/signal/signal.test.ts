import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { bandBothWays, butterworthLowPass, filterBothWays, filterExtra } from './butterworth.ts'
import { oddWindow, savitzkyGolayDerivative } from './derivative.ts'
import reference from './fixtures/reference.json' with { type: 'json' }
import { buildPyramid, viewOf } from './pyramid.ts'
import { median, quantileSorted } from './quantile.ts'
import { resampleUniform } from './resample.ts'
import { finiteSegments, perSegment } from './segments.ts'

const x = Float64Array.from(reference.x)
const fs = reference.sampleRateHz

function worst(got: Float64Array, want: number[]): number {
  const scale = Math.max(...want.map(Math.abs))
  return Math.max(...want.map((w, i) => Math.abs(w - got[i]))) / scale
}

describe('low-pass', () => {
  it('equals the scientific reference to 1e-9', () => {
    expect(worst(filterBothWays(x, butterworthLowPass(60, fs)), reference.lowPass60Hz)).toBeLessThan(1e-9)
  })
  it('passes a constant unchanged and leaves its input alone', () => {
    const c = new Float64Array(50).fill(7)
    const y = filterBothWays(c, butterworthLowPass(20, 200))
    expect(Math.max(...y.map((v) => Math.abs(v - 7)))).toBeLessThan(1e-12)
    expect(c.every((v) => v === 7)).toBe(true)
  })
  it('takes a band as the difference of two low-passes', () => {
    const [upper, lower] = [butterworthLowPass(25, fs), butterworthLowPass(8, fs)]
    const band = new Float32Array(x.length)
    bandBothWays(x, upper, [lower], new Float32Array(2 * (x.length + filterExtra)), band)
    // The signal mirrored through its ends, as far as it goes: the low-passes settle before it begins.
    const n = x.length
    const mirrored = Float64Array.from({ length: 3 * n - 2 }, (_, k) => {
      const i = k - (n - 1)
      return i < 0 ? 2 * x[0] - x[-i] : i < n ? x[i] : 2 * x[n - 1] - x[2 * n - 2 - i]
    })
    const within = (y: Float64Array) => [...y].slice(n - 1, 2 * n - 1)
    const [u, l] = [within(filterBothWays(mirrored, upper)), within(filterBothWays(mirrored, lower))]
    band.forEach((value, i) => expect(value, `sample ${i}`).toBeCloseTo(u[i] - l[i], 5))
  })
  it('refuses too few samples and a cut-off beyond half the rate', () => {
    expect(() => filterBothWays(new Float64Array(9), butterworthLowPass(20, 200))).toThrow(/at least 10/)
    expect(() => butterworthLowPass(100, 200)).toThrow(/100 Hz/)
  })
})

describe('derivative', () => {
  it('equals the scientific reference to 1e-9, edges included', () => {
    expect(worst(savitzkyGolayDerivative(x, fs, 11), reference.derivative11)).toBeLessThan(1e-9)
  })
  it('is exact for any cubic', () => {
    const c = Float64Array.from({ length: 40 }, (_, i) => 2 - i + 0.3 * i ** 2 - 0.01 * i ** 3)
    const d = savitzkyGolayDerivative(c, 1, 9)
    d.forEach((v, i) => expect(v).toBeCloseTo(-1 + 0.6 * i - 0.03 * i ** 2, 8))
  })
  it('chooses an odd window near the asked span', () => {
    expect(oddWindow(21, 500)).toBe(11)
    expect(oddWindow(21, 1000)).toBe(21)
    expect(oddWindow(21, 50)).toBe(5)
  })
})

describe('resampling', () => {
  it('keeps a straight line straight on a jittered clock', () => {
    const t = Float64Array.from({ length: 100 }, (_, i) => i * 0.01 + (i % 3) * 0.002)
    const y = t.map((v) => 4 * v + 1)
    const r = resampleUniform(t, y, 100, 99)
    r.forEach((v, i) => expect(v).toBeCloseTo(4 * (i * 0.01) + 1, 9))
  })
  it('keeps a gap of more than 50 ms as a gap', () => {
    const t = Float64Array.of(0, 0.01, 0.02, 0.1, 0.11)
    const r = resampleUniform(t, Float64Array.of(1, 1, 1, 1, 1), 100, 12)
    expect([...r].map(Number.isFinite)).toEqual([
      true,
      true,
      true,
      false,
      false,
      false,
      false,
      false,
      false,
      false,
      true,
      true,
    ])
  })
  it('works on each gap-free stretch by itself', () => {
    const g = Float64Array.of(1, 2, NaN, 3, NaN, 4, 5, 6)
    expect(finiteSegments(g)).toEqual([
      [0, 2],
      [3, 4],
      [5, 8],
    ])
    const tenfold = (x: Float64Array, into: Float64Array) => x.forEach((v, i) => (into[i] = v * 10))
    expect([
      ...perSegment(
        g,
        finiteSegments(g).filter(([a, b]) => b - a >= 2),
        new Float64Array(g.length),
        tenfold,
      ),
    ]).toEqual([10, 20, NaN, NaN, NaN, 40, 50, 60])
  })
})

describe('pyramid', () => {
  it('never hides a peak, at any zoom', () => {
    fc.assert(
      fc.property(fc.integer({ min: 0, max: 9999 }), fc.integer({ min: 20, max: 900 }), (spike, columns) => {
        const y = new Float32Array(10000)
        y[spike] = 9
        const v = viewOf(y, buildPyramid(y), 0, 10000, columns)
        return Math.max(...v.high) === 9 && v.high.length <= columns + 1
      }),
      { numRuns: 40 },
    )
  })
  it('gives each column its own lowest and highest, wherever the view begins', () => {
    const y = Float32Array.from({ length: 9001 }, (_, i) => (i % 977 < 40 ? NaN : Math.sin(i * i)))
    const pyramid = buildPyramid(y)
    const part = fc.tuple(fc.integer({ min: -500, max: 8900 }), fc.integer({ min: 50, max: 9500 }))
    fc.assert(
      fc.property(part, fc.integer({ min: 5, max: 900 }), ([from, length], columns) => {
        const v = viewOf(y, pyramid, from, from + length, columns)
        for (let k = 0; k < v.low.length; k++) {
          const start = v.first + k * v.columnSamples
          const own = y.subarray(start, start + v.columnSamples).filter((value) => !Number.isNaN(value))
          // A column at the edge of the view may hold only the blocks that are seen.
          if (k < v.low.length - 1 || v.columnSamples === 1) {
            expect(v.low[k]).toBe(own.length ? own.reduce((m, value) => Math.min(m, value)) : NaN)
            expect(v.high[k]).toBe(own.length ? own.reduce((m, value) => Math.max(m, value)) : NaN)
          }
        }
        expect(v.first).toBeLessThanOrEqual(Math.max(0, from))
        expect(v.first + v.low.length * v.columnSamples).toBeGreaterThanOrEqual(
          Math.min(y.length, from + length),
        )
      }),
      { numRuns: 60 },
    )
  })
  it('keeps its columns in place while the view moves', () => {
    const y = Float32Array.from({ length: 50_000 }, (_, i) => Math.sin(i))
    const pyramid = buildPyramid(y)
    const at = (from: number) => viewOf(y, pyramid, from, from + 30_000, 300)
    for (const from of [1, 50, 333, 7777]) expect(at(from).first % at(from).columnSamples).toBe(0)
  })
  it('shows raw samples when zoomed in', () => {
    const y = Float32Array.from({ length: 4000 }, (_, i) => i)
    const v = viewOf(y, buildPyramid(y), 100, 110, 500)
    expect([...v.low]).toEqual([100, 101, 102, 103, 104, 105, 106, 107, 108, 109])
    expect([v.first, v.columnSamples]).toEqual([100, 1])
  })
})

describe('quantiles', () => {
  it('follow type 7', () => {
    expect(quantileSorted([1, 2, 3, 4], 0.5)).toBe(2.5)
    expect(quantileSorted([1, 2, 3, 4], 0.95)).toBeCloseTo(3.85, 12)
    expect(quantileSorted([], 0.5)).toBeNaN()
    expect(median([5, 1, 9])).toBe(5)
  })
})
