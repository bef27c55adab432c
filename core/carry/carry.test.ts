import { describe, expect, it } from 'vitest'
import type { Adjuster } from '#contract/adjuster'
import { DayBuilder, fork, rearPressure, shock, startPositions } from '../test/dayBuilder.ts'
import { netPressurePsi } from '../spring/air.ts'
import { unitAir } from '../spring/unitSpring.ts'
import { sameSagElsewherePsi } from '../spring/weather.ts'
import { canonicalUnits, type UnitChoice } from '../units/choice.ts'
import { viscosityCst } from '../damper/oil.ts'
import { carriedPositions, carryOver, ontoOtherUnits } from './carryOver.ts'
import { forRider } from './ofAnotherRider.ts'
import type { Situation } from './situation.ts'
import { isSameModel } from '../setup/sameModel.ts'

const usual: Situation = {
  ridingMassKg: 80,
  airTempC: 15,
  altitudeM: 300,
  surface: 'damp',
  steepness: 'usual',
  pace: 'usual',
}
const settled = new DayBuilder().history().setups[0]
const units = [fork, shock]
const carry = (to: Partial<Situation>, from: Partial<Situation> = {}) =>
  carryOver(settled, units, { ...usual, ...from }, { ...usual, ...to })
const at = (list: ReturnType<typeof carry>, id: string) => list.find((c) => c.adjuster.id === id)!

describe('carrying a setup over', () => {
  it('to the same situation changes nothing and knows no spread', () => {
    for (const c of carry({})) expect(c).toMatchObject({ to: c.from, spread: 0, shifts: [], limit: null })
  })
  it('to a heavier rider: the same sag by the air spring itself, dampers closed, spacers left', () => {
    const list = carry({ ridingMassKg: 100 })
    const { shape } = unitAir(shock)
    const load = (psi: number) => netPressurePsi(0.3, psi, shape, { spacers: 1, ambientPa: 97772.6 })
    expect(load(at(list, 'rp').to) / load(180)).toBeCloseTo(110 / 90, 1)
    expect(at(list, 'rp').to).toBeGreaterThan(210)
    expect(at(list, 'rr').to).toBeLessThan(startPositions.rr)
    expect(at(list, 'fc').to).toBeLessThan(startPositions.fc)
    expect(at(list, 'rs').to).toBe(startPositions.rs)
    expect(at(list, 'rp').shifts[0].why).toMatch(/more weight/)
    expect(at(list, 'rp').spread).toBeGreaterThan(0)
  })
  it('there and back again is where it began, within a step', () => {
    const there = carry({ ridingMassKg: 95, airTempC: 28, surface: 'dry-loose', pace: 'faster' })
    const back = carryOver(
      { positions: carriedPositions(there) },
      units,
      { ...usual, ridingMassKg: 95, airTempC: 28, surface: 'dry-loose', pace: 'faster' },
      usual,
    )
    for (const c of back) expect(Math.abs(c.to - startPositions[c.adjuster.id])).toBeLessThanOrEqual(1)
  })
  it('to a hot day closes rebound by what the oil lost, and air pressure is set there, not corrected', () => {
    const list = carry({ airTempC: 35 })
    const lost = Math.log(viscosityCst(43) / viscosityCst(23))
    const clicks = (-0.4 * lost) / Math.log(1.12)
    expect(clicks).toBeGreaterThan(0.8)
    expect(startPositions.rr - at(list, 'rr').to).toBe(Math.round(clicks))
    expect(at(list, 'rp').to).toBe(180)
  })
  it('to a mountain: less absolute air to squeeze at the same reading, so two or three psi go in', () => {
    const high = at(carry({ altitudeM: 2300 }), 'fp')
    const asked = sameSagElsewherePsi(
      80,
      20,
      unitAir(fork).shape,
      0,
      { tempC: 15, altitudeM: 300 },
      { tempC: 15, altitudeM: 2300 },
    )
    expect(Math.abs(high.to - asked)).toBeLessThanOrEqual(0.5)
    expect(high.to - high.from).toBeGreaterThan(1)
    expect(high.to - high.from).toBeLessThan(4)
  })
  it('to loose ground: softer for grip; to a steep trail: firmer in front', () => {
    expect(at(carry({ surface: 'mud' }), 'fc').to).toBeGreaterThan(startPositions.fc)
    expect(at(carry({ surface: 'mud' }), 'rp').to).toBeLessThan(180)
    expect(at(carry({ steepness: 'steep' }), 'fc').to).toBe(startPositions.fc - 1)
    expect(at(carry({ steepness: 'steep' }), 'fp').to).toBeGreaterThan(80)
  })
  it('on ground that nobody noted, there or where it was found, moves nothing for the ground', () => {
    const mud = { ...usual, surface: 'mud' as const }
    const unsaid = { ...usual, surface: null }
    for (const [from, to] of [
      [unsaid, mud],
      [mud, unsaid],
    ])
      expect(carryOver(settled, units, from, to).filter((c) => c.shifts.length > 0)).toEqual([])
  })
  it('stops at the end of a range and says so', () => {
    const small: Adjuster = { ...rearPressure, maxPsi: 190 } as Adjuster
    const list = carryOver(settled, [{ ...shock, adjusters: [small] }], usual, {
      ...usual,
      ridingMassKg: 110,
    })
    expect(list[0].to).toBe(190)
    expect(list[0].limit).toMatch(/another spring or another unit/)
  })
  it('asks for the weight when it is not known', () => {
    expect(() => carry({ ridingMassKg: 0 })).toThrow(/riding weight/)
    expect(() => carry({ ridingMassKg: NaN })).toThrow(/riding weight/)
  })
})

describe('onto another bike', () => {
  const other = {
    ...shock,
    id: 'other',
    adjusters: shock.adjusters.map((a) => ({
      ...a,
      id: `o${a.id}`,
      ...(a.kind === 'click' ? { clicks: 28 } : {}),
    })),
  }
  const standing = [
    { end: 'rear' as const, adjusterId: 'orp', value: 150 },
    { end: 'rear' as const, adjusterId: 'orr', value: 3 },
    { end: 'rear' as const, adjusterId: 'ors', value: 0 },
  ]
  it('takes the same share of a dial that has another number of clicks, with a wide spread', () => {
    const list = ontoOtherUnits(carry({}), units, [other], standing)
    const dial = list.find((c) => c.adjuster.id === 'orr')!
    expect(dial.to).toBe(14)
    expect(dial.spread).toBeGreaterThan(4)
    expect(dial.shifts[0].why).toMatch(/its own chart comes first/)
  })
  it('leaves what has no counterpart where it stands', () => {
    const list = ontoOtherUnits(
      carry({}).filter((c) => c.adjuster.kind !== 'spacer'),
      units,
      [other],
      standing,
    )
    expect(list.find((c) => c.adjuster.id === 'ors')).toMatchObject({ to: 0, shifts: [] })
  })
})

describe('another rider’s settings', () => {
  const theirs = {
    source: 'another-rider' as const,
    riderMassKg: 95,
    positions: [
      { end: 'rear' as const, adjusterId: 'rp', value: 210 },
      { end: 'rear' as const, adjusterId: 'rr', value: 4 },
    ],
  }
  it('at another weight are not handed over as written: less air and a faster rebound for who is lighter', () => {
    const { positions, words } = forRider(theirs, units, 70)
    const value = (id: string) => positions.find((p) => p.adjusterId === id)!.value
    expect(value('rp')).toBeLessThan(190)
    expect(value('rr')).toBeGreaterThan(4)
    expect(words).toMatch(/^Not as written: found by a rider of 95 kg/)
  })
  it('say nothing while the own weight is not known', () => {
    expect(forRider(theirs, units, null)).toMatchObject({
      positions: [],
      words: expect.stringMatching(/95 kg/),
    })
  })
  it('of the same weight, and what a maker writes, are taken as they are', () => {
    expect(forRider(theirs, units, 96)).toEqual({ positions: theirs.positions, words: null })
    expect(forRider({ ...theirs, source: 'unit-maker' }, units, 60).words).toBeNull()
  })
})

describe('a unit of the same model on another bike', () => {
  const twin = { ...shock, id: 'twin', adjusters: shock.adjusters.map((a) => ({ ...a, id: `t${a.id}` })) }
  it('takes the clicks as they are, not a share of the dial with a wide spread', () => {
    const list = ontoOtherUnits(carry({}), units, [twin], [])
    const dial = list.find((c) => c.adjuster.id === 'trr')!
    expect(dial).toMatchObject({ to: startPositions.rr, spread: 0, shifts: [] })
  })
  it('is none when it was re-valved, is longer, or has another dial', () => {
    expect(isSameModel(shock, twin)).toBe(true)
    expect(isSameModel(shock, { ...twin, revalved: true })).toBe(false)
    expect(isSameModel(shock, { ...twin, strokeMm: 60 })).toBe(false)
    expect(isSameModel(shock, { ...twin, adjusters: twin.adjusters.slice(1) })).toBe(false)
    expect(isSameModel(shock, { ...twin, name: 'another' })).toBe(false)
  })
  it('gives its reasons in the units of whoever reads them', () => {
    const whys = (choice?: UnitChoice) =>
      carryOver(
        settled,
        units,
        usual,
        { ...usual, airTempC: usual.airTempC + 10, altitudeM: usual.altitudeM + 1000 },
        choice,
      )
        .flatMap((c) => c.shifts.map((s) => s.why))
        .join('; ')
    expect(whys()).toMatch(/10 °C warmer/)
    expect(whys()).toMatch(/1000 m higher/)
    const theirs = whys({ ...canonicalUnits, temperature: '°F', altitude: 'ft' })
    expect(theirs).toMatch(/18 °F warmer/)
    expect(theirs).toMatch(/3281 ft higher/)
    expect(theirs).not.toMatch(/°C|\d m /)
  })
})
