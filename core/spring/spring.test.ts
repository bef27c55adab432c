import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import type { Adjuster } from '#contract/adjuster'
import type { SuspensionUnit } from '#contract/unit'
import { linearLeverage, leverageFromPoints, wheelTravelMm } from '../linkage/leverage.ts'
import { fork, shock } from '../test/dayBuilder.ts'
import { simpson } from '../test/integrate.ts'
import { lbInToNPerMm } from '../units/convert.ts'
import { forkAir, netPressurePsi, shockAir } from './air.ts'
import { readChart } from './chart.ts'
import {
  axleLoadFromSagN,
  checkPreload,
  chooseCoil,
  coilForceN,
  coilSagMm,
  standardRatesNear,
  wantedRateNPerMm,
  type CoilUnit,
} from './coil.ts'
import { afterReconnectPsi, chamberCc, shownByGaugePsi, truePressurePsi } from './gauge.ts'
import { axleLoadN, ridingMassKg, sprungMassKg } from './load.ts'
import { judgeRepeats, sagAtUnitMm, unitSlipMm } from './reading.ts'
import { energyCurve, energyToBottom, forceCurve, spacerCases } from './spacers.ts'
import { startPressures } from './start.ts'
import { ambientPa, gaugeElsewherePsi, sameSagElsewherePsi, weatherOfBoth } from './weather.ts'

describe('a reading', () => {
  it('comes from a ring by either edge, two lengths, or the wheel', () => {
    expect(sagAtUnitMm({ method: 'ring', ringMm: 30, edge: 'facing-wiper' }, 150, null, null)).toBe(30)
    expect(sagAtUnitMm({ method: 'ring', ringMm: 32, edge: 'far-edge' }, 150, null, null)).toBe(30)
    expect(sagAtUnitMm({ method: 'eye-to-eye', freeMm: 210, loadedMm: 194.5 }, 55, null, null)).toBe(15.5)
    const l = linearLeverage(3, 2.4, 55)
    const moved = wheelTravelMm(16.5, l)
    expect(
      sagAtUnitMm({ method: 'wheel', unloadedMm: 900, loadedMm: 900 - moved }, 55, l, 148.5),
    ).toBeCloseTo(16.5, 9)
    expect(sagAtUnitMm({ method: 'wheel', unloadedMm: 900, loadedMm: 855.45 }, 55, null, 148.5)).toBeCloseTo(
      16.5,
      9,
    )
  })
  it.each([
    [
      'a ring beyond the stroke',
      { method: 'ring', ringMm: 60, edge: 'facing-wiper' },
      /longer than the stroke of 55 mm/,
    ],
    ['eyes that grow', { method: 'eye-to-eye', freeMm: 190, loadedMm: 200 }, /shorter than the free length/],
    [
      'a wheel moved beyond its travel',
      { method: 'wheel', unloadedMm: 900, loadedMm: 700 },
      /more than the wheel travel of 140 mm/,
    ],
    ['a ring below nothing', { method: 'ring', ringMm: -2, edge: 'facing-wiper' }, /below 0 mm/],
  ] as const)('refuses %s', (_, m, reason) => {
    expect(() => sagAtUnitMm(m, 55, null, 140)).toThrow(reason)
  })
  it('refuses a wheel reading without any travel, and a stroke of 0', () => {
    const wheel = { method: 'wheel', unloadedMm: 900, loadedMm: 870 } as const
    expect(() => sagAtUnitMm(wheel, 55, null, null)).toThrow(/Wheel travel of the bike is not known/)
    expect(() => sagAtUnitMm(wheel, 0, null, 140)).toThrow(/above 0 mm/)
  })
  it('asks when a number looks as if typed in the other unit', () => {
    expect(unitSlipMm(30, 'mm', 65, 30)).toBe(19.5)
    expect(unitSlipMm(28, 'mm', 55, 28)).toBeCloseTo(15.4, 12)
    expect(unitSlipMm(20, 'mm', 150, 20)).toBeNull()
    expect(unitSlipMm(19.5, 'mm', 65, 30)).toBeNull()
    // 32 mm of a 150 mm fork, typed where per cent was asked.
    expect(unitSlipMm(32, 'per-cent', 150, 20)).toBe(32)
    expect(unitSlipMm(22, 'per-cent', 150, 20)).toBeNull()
    // Nobody rides 60 % of sag, and 30 mm of 55 is hardly meant as a length: far from the target, too.
    expect(unitSlipMm(60, 'per-cent', 150, 20)).toBe(60)
    expect(unitSlipMm(30, 'mm', 55, 25)).toBeCloseTo(16.5, 12)
    expect(unitSlipMm(20, 'mm', 55, 25)).toBeNull()
  })
  it('judges repeats by what the others say', () => {
    expect(judgeRepeats([25, 25.6, 24.8], 55)).toMatchObject({ again: false, outlying: [] })
    const odd = judgeRepeats([25, 25.6, 30.5], 55)
    expect(odd.outlying).toEqual([2])
    // Two readings good to 1 mm each may lie 1.4 mm apart; further, neither is known to be the right one.
    expect(judgeRepeats([25, 29], 55)).toMatchObject({ outlying: [0, 1], meanPct: null, again: true })
    expect(judgeRepeats([25, 27.5], 55)).toMatchObject({ meanPct: 26.25, again: false })
    expect(judgeRepeats([25, 27.9], 55).meanPct).toBeNull()
    expect(judgeRepeats([20, 20.9], 150).meanPct).toBeCloseTo(20.45, 12)
    // The odd one of three does not drag the mean.
    expect(odd.meanPct).toBeCloseTo(25.3, 12)
    expect(odd.again).toBe(true)
    expect(odd.rangePct).toBeCloseTo(5.5, 12)
    expect(judgeRepeats([25], 55)).toEqual({ meanPct: 25, rangePct: 0, outlying: [], again: false })
  })
})

describe('weather and height', () => {
  const home = { tempC: 10, altitudeM: 0 }
  it('10 to 30 °C adds 18.7 psi to 250, and 300 to 2000 m 2.65 psi', () => {
    expect(gaugeElsewherePsi(250, home, { ...home, tempC: 30 }) - 250).toBeCloseTo(18.7, 1)
    expect(
      gaugeElsewherePsi(250, { tempC: 15, altitudeM: 300 }, { tempC: 15, altitudeM: 2000 }) - 250,
    ).toBeCloseTo(2.65, 2)
  })
  it('agrees with the published standard atmosphere', () => {
    expect(ambientPa(0)).toBe(101325)
    expect(() => ambientPa(NaN)).toThrow('Height must lie between -500 and 9000 m, got no number.')
    // ISO 2533: 1000 m 89 874.6 Pa, 3000 m 70 121.2 Pa (geopotential).
    expect(ambientPa(1000) / 89874.6).toBeCloseTo(1, 4)
    expect(ambientPa(3000) / 70121.2).toBeCloseTo(1, 3)
  })
  it('there and back is where it was', () => {
    const there = { tempC: 31, altitudeM: 2100 }
    expect(gaugeElsewherePsi(gaugeElsewherePsi(180, home, there), there, home)).toBeCloseTo(180, 9)
  })
  it('the same sag up high holds the same load in thinner air', () => {
    const there = { tempC: 10, altitudeM: 2000 }
    const psi = sameSagElsewherePsi(180, 28, shockAir, 1, home, there)
    const load = netPressurePsi(0.28, 180, shockAir, { spacers: 1, ambientPa: ambientPa(0) })
    expect(netPressurePsi(0.28, psi, shockAir, { spacers: 1, ambientPa: ambientPa(2000) })).toBeCloseTo(
      load,
      9,
    )
    expect(Math.abs(psi - 180)).toBeLessThan(3)
  })
  it('a height that nobody noted makes no difference, a temperature that nobody noted leaves nothing to compare', () => {
    const noted = (airTempC: number | null, altitudeM: number | null) => ({ airTempC, altitudeM })
    const both = (a: ReturnType<typeof noted>, b: ReturnType<typeof noted>) => {
      const w = weatherOfBoth(a, b)
      return w && gaugeElsewherePsi(150, w.from, w.to)
    }
    const warmer = gaugeElsewherePsi(150, { tempC: 5, altitudeM: 1400 }, { tempC: 25, altitudeM: 1400 })
    expect(both(noted(5, null), noted(25, 1400))).toBeCloseTo(warmer, 9)
    expect(both(noted(5, 1400), noted(25, null))).toBeCloseTo(warmer, 9)
    expect(both(noted(5, 0), noted(25, 1400))).not.toBeCloseTo(warmer, 1)
    expect(both(noted(null, 0), noted(25, 1400))).toBeNull()
    expect(both(noted(5, 0), noted(null, 1400))).toBeNull()
  })
  it('refuses what no thermometer or map shows', () => {
    expect(() => gaugeElsewherePsi(100, home, { tempC: -300, altitudeM: 0 })).toThrow(/absolute zero/)
    expect(() => ambientPa(12000)).toThrow(/between -500 and 9000 m/)
  })
})

describe('gauge and hose', () => {
  it('an offset goes on and comes off', () => {
    expect(shownByGaugePsi(80, 4)).toBe(84)
    expect(truePressurePsi(shownByGaugePsi(80, -3.5), -3.5)).toBe(80)
  })
  it('filling a hose keeps the amount of air', () => {
    const after = afterReconnectPsi(180, 100, 4)
    const outside = 101325 / 6894.757293168
    expect((after + outside) * 104).toBeCloseTo((180 + outside) * 100 + outside * 4, 9)
    expect(180 - after).toBeCloseTo(180 * (4 / 104), 9)
  })
  it('spacers take room, so the same hose costs more', () => {
    const full = afterReconnectPsi(80, chamberCc(fork, 0), 4)
    expect(afterReconnectPsi(80, chamberCc(fork, 3), 4)).toBeLessThan(full)
    // 12.5 cm² · 15 cm swept ÷ k0 = 0.5454…
    expect(chamberCc(fork, 0)).toBeCloseTo(187.5 / (1 - 1 / 2.2), 9)
  })
})

describe('spacers', () => {
  const now = { sagPct: 20, pressurePsi: 120, spacers: 0 }
  it('three more need 116.5 psi at the same sag', () => {
    const [, two] = spacerCases({ ...now, spacers: 0 }, 4, forkAir)
    expect(two.spacers).toBe(1)
    expect(two.pressurePsi).toBeLessThan(120)
    const steps = [0, 1, 2].reduce((at) => {
      const next = spacerCases(at, 4, forkAir).find((c) => c.spacers === at.spacers + 1)!
      return { sagPct: 20, pressurePsi: next.pressurePsi, spacers: next.spacers }
    }, now)
    expect(steps).toMatchObject({ spacers: 3, pressurePsi: expect.closeTo(116.5, 1) })
  })
  it('stay inside what the unit takes', () => {
    expect(spacerCases(now, 0, forkAir).map((c) => c.spacers)).toEqual([0])
    expect(spacerCases({ ...now, spacers: 2 }, 2, forkAir).map((c) => c.spacers)).toEqual([1, 2])
  })
  it('energy to the end is the integral of the force, by formula, by Simpson and on the curve', () => {
    fc.assert(
      fc.property(
        fc.constantFrom(forkAir, shockAir),
        fc.double({ min: 40, max: 300, noNaN: true }),
        fc.integer({ min: 0, max: 5 }),
        (shape, psi, spacers) => {
          const load = netPressurePsi(0.25, psi, shape, { spacers })
          const force = (u: number) => netPressurePsi(u, psi, shape, { spacers, exponent: 1.3 }) / load
          const e = energyToBottom(psi, spacers, load, shape)
          expect(e / simpson(force, 0, 1)).toBeCloseTo(1, 8)
          const curve = energyCurve(forceCurve(psi, spacers, load, shape, 400))
          expect(curve[400] / e).toBeCloseTo(1, 3)
        },
      ),
      { numRuns: 40 },
    )
  })
  it('more of them take more energy to bottom and end firmer, at the same sag', () => {
    const [less, same, more] = spacerCases({ ...now, spacers: 2 }, 4, forkAir)
    expect(same.energyRatio).toBe(1)
    expect(more.energyRatio).toBeGreaterThan(1)
    expect(less.energyRatio).toBeLessThan(1)
    expect(more.endRatio).toBeGreaterThan(same.endRatio)
  })
})

describe('coil', () => {
  const linkage = leverageFromPoints([
    { shaftMm: 0, ratio: 3 },
    { shaftMm: 60, ratio: 2.4 },
  ])
  const unit: CoilUnit = { strokeMm: 60, pitchMm: 1.5, leverage: linkage, meanLeverage: 2.7 }
  const linear = (rateNPerMm: number) => ({ rateNPerMm, ratePoints: null })
  it('force is rate times travel and preload; a table is its integral', () => {
    expect(coilForceN(linear(80), 20, 3)).toBe(80 * 23)
    const table = {
      rateNPerMm: 80,
      ratePoints: [
        { atMm: 0, nPerMm: 70 },
        { atMm: 40, nPerMm: 90 },
        { atMm: 60, nPerMm: 120 },
      ],
    }
    const rate = (x: number) => (x <= 40 ? 70 + x / 2 : x <= 60 ? 90 + (x - 40) * 1.5 : 120)
    // Simpson is exact on each straight piece.
    const integral = simpson(rate, 0, 40) + simpson(rate, 40, 60) + 120 * 5
    expect(coilForceN(table, 62, 3)).toBeCloseTo(integral, 9)
    const flat = {
      rateNPerMm: 80,
      ratePoints: [
        { atMm: 0, nPerMm: 80 },
        { atMm: 60, nPerMm: 80 },
      ],
    }
    expect(coilForceN(flat, 31, 2)).toBeCloseTo(coilForceN(linear(80), 31, 2), 9)
  })
  it('a sag that was read gives the load, and the load gives that sag', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 40, max: 150, noNaN: true }),
        fc.double({ min: 0, max: 2, noNaN: true }),
        fc.double({ min: 4, max: 40, noNaN: true }),
        (rate, turns, sag) => {
          const w = axleLoadFromSagN(linear(rate), turns, sag, unit)
          expect(coilSagMm(linear(rate), turns, w, unit)).toBeCloseTo(sag, 8)
        },
      ),
    )
  })
  it('the wanted rate meets the target with no preload', () => {
    const rate = wantedRateNPerMm(600, 30, unit)
    expect(coilSagMm(linear(rate), 0, 600, unit)).toBeCloseTo(18, 9)
    // K = W·LR/x with LR(18 mm) = 2.82
    expect(rate).toBeCloseTo((600 * 2.82) / 18, 9)
  })
  it('chooses the spring that meets the target, then the one with the fewest turns', () => {
    const rate = wantedRateNPerMm(600, 30, unit)
    const owned = [rate - 8, rate - 3, rate + 20].map(linear)
    const choices = chooseCoil(owned, 600, 30, unit)
    expect(choices[0].spring).toBe(owned[1])
    expect(choices[0].meets).toBe(true)
    expect(choices[0].preloadTurns).toBeGreaterThan(0)
    const firm = choices.find((c) => c.spring === owned[2])!
    expect(firm).toMatchObject({ preloadTurns: 0, meets: false })
    expect(firm.sagPct).toBeLessThan(30)
    expect(choices.every((c) => c.preloadTurns <= 2)).toBe(true)
    expect(() => chooseCoil([], 600, 30, unit)).toThrow(/at least one spring/)
  })
  it('preload alone holds a light load, and a heavy one goes to the end', () => {
    expect(coilSagMm(linear(100), 2, 50, unit)).toBe(0)
    expect(coilSagMm(linear(40), 0, 5000, unit)).toBe(60)
  })
  it('standard rates come in steps of 25 lb/in around the wish', () => {
    expect(standardRatesNear(lbInToNPerMm(463)).map((n) => Math.round(n / lbInToNPerMm(1)))).toEqual(
      [425, 450, 475, 500, 525].map((x) => x - 0).map((x) => x),
    )
  })
  it('more than two turns are refused', () => {
    expect(checkPreload(1.75)).toBe(1.75)
    expect(() => checkPreload(2.5)).toThrow(/outside 0 to 2; beyond that take another spring/)
  })
  it('refuses a rate of nothing and a table out of order', () => {
    expect(() => coilForceN(linear(0), 10, 0)).toThrow(/above 0 N\/mm/)
    const bad = {
      rateNPerMm: 80,
      ratePoints: [
        { atMm: 20, nPerMm: 80 },
        { atMm: 10, nPerMm: 90 },
      ],
    }
    expect(() => coilForceN(bad, 10, 0)).toThrow(/rise from row to row/)
  })
})

describe('weights', () => {
  const load = {
    ridingMassKg: 75,
    bikeMassKg: null,
    eBike: false,
    frontSharePct: null,
    posture: 'seated',
  } as const
  it('kit and water ride along', () => {
    expect(ridingMassKg({ bodyMassKg: 66, kitMassKg: 5.5, waterL: 2 })).toBe(73.5)
    expect(ridingMassKg({ bodyMassKg: 66, kitMassKg: null, waterL: 0 })).toBe(66)
    expect(() => ridingMassKg({ bodyMassKg: null, kitMassKg: 5, waterL: 0 })).toThrow(/riding weight first/)
  })
  it('front and rear together carry rider and sprung bike', () => {
    expect(sprungMassKg('front', load) + sprungMassKg('rear', load)).toBeCloseTo(85, 12)
    expect(sprungMassKg('front', load)).toBeCloseTo(34, 12)
    expect(sprungMassKg('front', { ...load, posture: 'ready' })).toBeCloseTo(85 * 0.47, 12)
    expect(sprungMassKg('front', { ...load, frontSharePct: 50, bikeMassKg: 20 })).toBeCloseTo(
      (75 + 14) / 2,
      12,
    )
    expect(axleLoadN('rear', load)).toBeCloseTo(51 * 9.80665, 9)
  })
})

describe('charts', () => {
  const rows = [
    { at: 60, value: 70 },
    { at: 70, value: 80 },
    { at: 90, value: 110 },
  ]
  const chart = { input: 'riding-mass-kg' as const, rows }
  it('are straight between rows and held outside, which is said', () => {
    expect(readChart(chart, 65)).toEqual({ value: 75, beyond: 0, tooFar: false })
    expect(readChart(chart, 80).value).toBe(95)
    expect(readChart(chart, 93)).toEqual({ value: 110, beyond: 3, tooFar: false })
    expect(readChart(chart, 52)).toEqual({ value: 70, beyond: 8, tooFar: true })
  })
})

describe('pressure to start with', () => {
  const load = {
    ridingMassKg: 80,
    bikeMassKg: 14.3,
    eBike: false,
    frontSharePct: null,
    posture: 'ready',
  } as const
  const charted: SuspensionUnit = {
    ...fork,
    charts: [
      {
        id: 'c',
        adjusterId: 'fp',
        input: 'riding-mass-kg',
        source: 'manual, page 12',
        rows: [
          { at: 70, value: 74 },
          { at: 90, value: 94 },
        ],
      },
    ],
  }
  it('asks the chart first, then what was ridden, then weight and unit, then the rule', () => {
    const found = startPressures(charted, load, 83, null)
    expect(found.map((f) => f.from)).toEqual(['chart', 'earlier', 'solved', 'rule'])
    expect(found.map((f) => f.psi)).toEqual([84, 83, expect.any(Number), 80])
    expect(found[0].words).toBe('manual, page 12')
  })
  it('the usual figures agree with the 1:1 rules where these are at home', () => {
    const front = startPressures(fork, load, null, null)
    expect(front[0].from).toBe('solved')
    expect(Math.abs(front[0].psi - 80)).toBeLessThan(6)
    const rear = startPressures(shock, { ...load, posture: 'seated' }, null, 2.7)
    expect(rear.find((f) => f.from === 'rule')!.psi).toBe(176)
    expect(Math.abs(rear[0].psi - 176)).toBeLessThan(18)
  })
  it('never leaves the unit’s limits, and warns outside a chart', () => {
    const heavy = startPressures(charted, { ...load, ridingMassKg: 160 }, null, null)
    expect(heavy[0].words).toMatch(/outside its rows/)
    for (const f of heavy) expect(f.psi).toBeLessThanOrEqual(140)
    expect(heavy.find((f) => f.from === 'rule')).toMatchObject({ psi: 140, clamped: true })
  })
  it('a coil unit has none', () => {
    const coil: Adjuster = {
      id: 'k',
      alias: null,
      tool: 'workshop',
      kind: 'spring-rate',
      role: 'spring-rate',
      ratesNPerMm: [80],
    }
    expect(startPressures({ ...shock, spring: 'coil', adjusters: [coil] }, load, null, null)).toEqual([])
  })
})
