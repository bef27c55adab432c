import { describe, expect, it } from 'vitest'
import { seededRandom, normalFrom } from '../numeric/random.ts'
import { fftInPlace } from './fft.ts'
import reference from './fixtures/reference.json' with { type: 'json' }
import { handArmGain } from './handArm.ts'
import { bandRms, inBands, welch, welchSegment } from './spectrum.ts'

const x = Float64Array.from(reference.x)

describe('Fourier transform', () => {
  it('equals the sum that defines it', () => {
    const n = 16
    const r = seededRandom(1)
    const re = Float64Array.from({ length: n }, () => r())
    const im = Float64Array.from({ length: n }, () => r())
    const want = Array.from({ length: n }, (_, k) => {
      let [a, b] = [0, 0]
      for (let i = 0; i < n; i++) {
        const t = (-2 * Math.PI * k * i) / n
        a += re[i] * Math.cos(t) - im[i] * Math.sin(t)
        b += re[i] * Math.sin(t) + im[i] * Math.cos(t)
      }
      return [a, b]
    })
    fftInPlace(re, im)
    want.forEach(([a, b], k) => {
      expect(re[k]).toBeCloseTo(a, 12)
      expect(im[k]).toBeCloseTo(b, 12)
    })
  })
})

describe('Welch spectrum', () => {
  it('equals the scientific reference to 1e-9', () => {
    const { power } = welch(x, reference.sampleRateHz, 64)!
    const scale = Math.max(...reference.welch64)
    reference.welch64.forEach((w, k) =>
      expect(Math.abs(power[k] - w) / scale, `line ${k}`).toBeLessThan(1e-9),
    )
  })
  it('of white noise integrates to its variance', () => {
    const r = seededRandom(5)
    const noise = Float64Array.from({ length: 60_000 }, () => 3 * normalFrom(r))
    expect(bandRms(welch(noise, 500, 1024)!, 0, 251)).toBeCloseTo(3, 1)
  })
  it('puts a sine into its band, with amplitude over √2', () => {
    const sine = Float64Array.from({ length: 20_000 }, (_, i) => 4 * Math.sin((2 * Math.PI * 12 * i) / 500))
    const d = welch(sine, 500, welchSegment(500))!
    expect(bandRms(d, 10, 14)).toBeCloseTo(4 / Math.SQRT2, 2)
    expect(bandRms(d, 20, 200)).toBeLessThan(0.01)
    const bands = inBands(d, 0.25, 1.1, 58)
    const top = bands.indexOf(Math.max(...bands))
    expect(Math.abs(Math.log(12 / (0.25 * 1.1 ** (top + 0.5))))).toBeLessThan(Math.log(1.1))
  })
  it('leaves gaps out', () => {
    const gappy = Float64Array.from({ length: 20_000 }, (_, i) =>
      i % 5000 < 40 ? NaN : 4 * Math.sin((2 * Math.PI * 12 * i) / 500),
    )
    expect(bandRms(welch(gappy, 500, 1024)!, 10, 14)).toBeCloseTo(4 / Math.SQRT2, 2)
    expect(welch(gappy.subarray(0, 100), 500, 1024)).toBeNull()
  })
  it('takes the power of two nearest to two seconds', () => {
    expect(welchSegment(500)).toBe(1024)
    expect(welchSegment(1000)).toBe(2048)
    expect(welchSegment(200)).toBe(512)
  })
})

describe('hand-arm weighting', () => {
  // ISO 5349-1:2001, table A.2.
  const published: [number, number][] = [
    [6.3, 0.727],
    [8, 0.873],
    [10, 0.951],
    [12.5, 0.958],
    [16, 0.896],
    [20, 0.782],
    [25, 0.647],
    [31.5, 0.519],
    [63, 0.256],
    [125, 0.127],
    [250, 0.0634],
    [500, 0.0314],
  ]
  it.each(published)('at %s Hz is %s as published', (hz, gain) => {
    // The table is for exact third-octave centres, 10^(n/10).
    const exact = 10 ** (Math.round(10 * Math.log10(hz)) / 10)
    expect(Math.abs(handArmGain(exact) / gain - 1)).toBeLessThan(0.01)
  })
})
