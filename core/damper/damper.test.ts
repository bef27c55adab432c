import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import type { Adjuster } from '#contract/adjuster'
import { forkAir, netPressurePsi } from '../spring/air.ts'
import { fork, frontRebound } from '../test/dayBuilder.ts'
import { slopeOf } from '../test/integrate.ts'
import { clicksForTemperature, viscosityCst } from './oil.ts'
import {
  airFrequencyRadS,
  cleanSpeedMS,
  coilFrequencyRadS,
  packedDepthPct,
  recoveryTimeS,
  shareLeft,
  timeToShareS,
} from './recovery.ts'
import { startClicks } from './startClicks.ts'

const anyRatio = fc.double({ min: 0.1, max: 2.5, noNaN: true })
const anyOmega = fc.double({ min: 5, max: 40, noNaN: true })

/** Fourth-order Runge–Kutta of ẍ = −2ζω·ẋ − ω²·x from x = 1, at rest. */
function integrate(timeS: number, w: number, z: number, steps = 4000): number {
  const h = timeS / steps
  let x = 1
  let v = 0
  const acc = (p: number, q: number) => -2 * z * w * q - w * w * p
  for (let i = 0; i < steps; i++) {
    const [a1, b1] = [v, acc(x, v)]
    const [a2, b2] = [v + (h / 2) * b1, acc(x + (h / 2) * a1, v + (h / 2) * b1)]
    const [a3, b3] = [v + (h / 2) * b2, acc(x + (h / 2) * a2, v + (h / 2) * b2)]
    const [a4, b4] = [v + h * b3, acc(x + h * a3, v + h * b3)]
    x += (h / 6) * (a1 + 2 * a2 + 2 * a3 + a4)
    v += (h / 6) * (b1 + 2 * b2 + 2 * b3 + b4)
  }
  return x
}

describe('recovery', () => {
  it('is the solution of the equation of motion, below, at and above critical damping', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 0.01, max: 0.6, noNaN: true }),
        anyOmega,
        fc.oneof(anyRatio, fc.constant(1)),
        (t, w, z) => {
          expect(shareLeft(t, w, z)).toBeCloseTo(integrate(t, w, z), 6)
        },
      ),
      { numRuns: 60 },
    )
  })
  it('t90 is where a tenth is left for the first time', () => {
    fc.assert(
      fc.property(anyOmega, anyRatio, (w, z) => {
        const t = recoveryTimeS(w, z)
        expect(shareLeft(t, w, z)).toBeCloseTo(0.1, 9)
        for (let i = 1; i < 20; i++) expect(shareLeft((t * i) / 20, w, z)).toBeGreaterThan(0.1)
      }),
    )
  })
  it('is 3.89/ω at critical damping: the root of (1 + a)·e^−a = 0.1', () => {
    expect(recoveryTimeS(10, 1) * 10).toBeCloseTo(3.8897, 4)
  })
  it('slower rebound takes longer', () => {
    expect(recoveryTimeS(16, 0.9)).toBeGreaterThan(recoveryTimeS(16, 0.6))
    expect(() => recoveryTimeS(0, 0.6)).toThrow(/above 0/)
  })
})

describe('packing', () => {
  it('steady depth is what a long train of hits really comes to', () => {
    fc.assert(
      fc.property(
        anyOmega,
        fc.double({ min: 0.4, max: 2, noNaN: true }),
        fc.double({ min: 3, max: 12, noNaN: true }),
        (w, z, v) => {
          const left = Math.max(0, shareLeft(1 / v, w, z))
          fc.pre(left < 0.95)
          let depth = 0
          for (let i = 0; i < 2000; i++) depth = (depth + 20) * left
          expect(packedDepthPct(20, 1, v, w, z)).toBeCloseTo(depth, 6)
        },
      ),
    )
  })
  it('the clean speed is where it reaches 10 % of travel', () => {
    fc.assert(
      fc.property(anyOmega, anyRatio, fc.double({ min: 0.3, max: 3, noNaN: true }), (w, z, spacing) => {
        const v = cleanSpeedMS(20, spacing, w, z)
        expect(packedDepthPct(20, spacing, v, w, z)).toBeCloseTo(10, 6)
        expect(packedDepthPct(20, spacing, v * 1.05, w, z)).toBeGreaterThan(10)
      }),
    )
  })
  it('doubles with the distance between hits', () => {
    expect(cleanSpeedMS(20, 2, 16, 0.7)).toBeCloseTo(2 * cleanSpeedMS(20, 1, 16, 0.7), 9)
    expect(timeToShareS(10 / 30, 16, 0.7)).toBeCloseTo(1 / cleanSpeedMS(20, 1, 16, 0.7), 9)
  })
  it('the frequency is that of stiffness over mass at sag, whatever rides', () => {
    const g = 9.80665
    // A 40 kg end on a fork that stands at 20 %: area from the load, stiffness from a finite difference.
    const area = (40 * g) / netPressurePsi(0.2, 80, forkAir)
    const k = slopeOf((u) => area * netPressurePsi(u, 80, forkAir, { exponent: 1.3 }), 0.2) / 0.15
    expect(airFrequencyRadS(20, 80, 0, forkAir, 0.15)).toBeCloseTo(Math.sqrt(k / 40), 6)
    expect(coilFrequencyRadS(0.04, 0)).toBeCloseTo(Math.sqrt(g / 0.04), 12)
  })
})

describe('oil', () => {
  it('passes through its two points and falls between', () => {
    expect(viscosityCst(40)).toBeCloseTo(16, 9)
    expect(viscosityCst(100)).toBeCloseTo(4, 9)
    // A mineral oil of VG 32 (32 cSt at 40, 5.4 at 100) by published D341 tables: about 76 cSt at 20 °C.
    expect(viscosityCst(20, { at40: 32, at100: 5.4 })).toBeGreaterThan(70)
    expect(viscosityCst(20, { at40: 32, at100: 5.4 })).toBeLessThan(90)
  })
  it('+15 °C asks to close one to two clicks, −15 °C to open them', () => {
    const warm = clicksForTemperature(15, 30)
    expect(warm).toBeGreaterThan(1)
    expect(warm).toBeLessThan(2.2)
    expect(clicksForTemperature(30, 15)).toBeCloseTo(-warm, 12)
    expect(clicksForTemperature(20, 20)).toBe(-0)
  })
})

describe('clicks to start with', () => {
  const dial = frontRebound as Extract<Adjuster, { kind: 'click' }>
  const rider = { ridingMassKg: 80, level: 'advanced' as const }
  const chart = {
    id: 'c',
    adjusterId: 'fr',
    input: 'pressure-psi' as const,
    source: 'manual, page 13',
    rows: [
      { at: 60, value: 9 },
      { at: 100, value: 5 },
    ],
  }
  it('ask the chart by pressure, then what was ridden, then compute', () => {
    const found = startClicks({ charts: [chart], revalved: false }, dial, rider, 80, 6)
    expect(found.map((f) => [f.from, f.value])).toEqual([
      ['chart', 7],
      ['earlier', 6],
      ['computed', 6],
    ])
  })
  it('a heavier rider closes, a novice closes, both within the dial', () => {
    const at = (ridingMassKg: number, level: 'novice' | 'race') =>
      startClicks(fork, dial, { ridingMassKg, level }, null, null)[0].value
    expect(at(110, 'race')).toBeLessThan(at(70, 'race'))
    expect(at(80, 'novice')).toBeLessThan(at(80, 'race'))
    expect(at(400, 'novice')).toBe(0)
  })
  it('distrust the chart of a re-valved unit', () => {
    const found = startClicks({ charts: [chart], revalved: true }, dial, rider, 80, null)
    expect(found[0].from).toBe('computed')
    expect(found[1].words).toMatch(/re-valved/)
  })
})
