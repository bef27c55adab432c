import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { butterworthLowPass, filterBothWays } from './butterworth.ts'
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
        return Math.max(...v.value) === 9 && v.value.length <= 2 * columns + 4
      }),
      { numRuns: 40 },
    )
  })
  it('draws a smooth slope without teeth, up and down', () => {
    for (const sign of [1, -1]) {
      const y = Float32Array.from({ length: 50_000 }, (_, i) => sign * i)
      const { value } = viewOf(y, buildPyramid(y), 0, 50_000, 300)
      const steps = [...value].slice(1).map((v, i) => sign * (v - value[i]))
      // The first column has none before it to tell its way.
      expect(Math.min(...steps.slice(1))).toBeGreaterThanOrEqual(0)
    }
  })
  it('shows raw samples when zoomed in', () => {
    const y = Float32Array.from({ length: 4000 }, (_, i) => i)
    const v = viewOf(y, buildPyramid(y), 100, 110, 500)
    expect([...v.value]).toEqual([100, 101, 102, 103, 104, 105, 106, 107, 108, 109])
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
