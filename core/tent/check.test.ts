import { describe, expect, it } from 'vitest'
import { bundleOf } from '../test/bundle.ts'
import { frontPressure, rearPressure } from '../test/dayBuilder.ts'
import { readBy } from '../setup/known.ts'
import { barToPsi } from '../units/convert.ts'
import { canonicalUnits } from '../units/choice.ts'
import { morningCheck, parsePressures } from './check.ts'

const now = Date.parse('2031-05-02T08:30:00.000Z')
const read = (clock: string, date = '2031-05-02') => readBy({ at: `${date}T${clock}:00.000Z` })
const looked = (b: ReturnType<typeof bundleOf>) =>
  morningCheck(b, [], now)
    .parts.filter((p) => p.lookedAt)
    .map((p) => p.adjuster.id)

describe('the morning check', () => {
  it('has every part of both ends, with what is kept, what the last place had, and what nobody has read', () => {
    const last = bundleOf([{ at: '09:00', turn: { rr: 3 } }], { id: 'last' })
    const { parts, lastPlace, ridden } = morningCheck(bundleOf([], { start: { fp: 80, rr: 7 } }), [last], now)
    expect(parts).toHaveLength(6)
    const of = (id: string) => parts.find((p) => p.adjuster.id === id)!
    expect(of('rr')).toMatchObject({ stored: { value: 7 }, last: 3, lookedAt: false })
    expect(of('fc')).toMatchObject({ stored: null, last: 8 })
    expect(lastPlace).toEqual({ name: 'Old quarry', date: '2031-05-02', settled: false })
    expect(ridden).toBe(false)
  })
  it('counts what was read this morning; not what was set, nor what was read the day before, nor after the first run', () => {
    expect(looked(bundleOf([]))).toEqual([])
    expect(
      looked(bundleOf([{ at: '08:00', turn: { rr: 7 }, source: 'reading', known: read('08:00') }])),
    ).toEqual(['rr'])
    expect(looked(bundleOf([], { start: { rr: 7 }, known: read('18:00', '2031-05-01') }))).toEqual([])
    expect(
      looked(
        bundleOf([
          { at: '08:00', run: 'r1' },
          { at: '08:10', turn: { rr: 7 }, source: 'reading', known: read('08:10') },
        ]),
      ),
    ).toEqual([])
  })
  it('is not looked at any more once it was turned', () => {
    const b = bundleOf([
      { at: '08:00', turn: { rr: 7 }, source: 'reading', known: read('08:00') },
      { at: '08:10', turn: { rr: 5 } },
    ])
    expect(looked(b)).toEqual([])
  })
})

describe('pressures in one go', () => {
  const places = [
    { dayId: 'a', adjuster: frontPressure },
    { dayId: 'b', adjuster: frontPressure },
    { dayId: 'a', adjuster: rearPressure },
  ]
  const psi = (text: string) => parsePressures(text, places, canonicalUnits)
  it('go to the parts in their order; a dash passes one by, and what was not come to stays', () => {
    expect(psi('87 89 184')).toEqual([87, 89, 184])
    expect(psi('87 - 184,5')).toEqual([87, null, 184.5])
    expect(psi('  87/89 ')).toEqual([87, 89, null])
    expect(psi('')).toEqual([null, null, null])
    // With commas, and with their unit, as it is said.
    expect(psi('87, 89, 184')).toEqual([87, 89, 184])
    expect(psi('87,89,184')).toEqual([87, 89, 184])
    expect(psi('87,89')).toEqual([87, 89, null])
    expect(psi('87,5 89')).toEqual([87.5, 89, null])
    expect(psi('87 psi, 89 psi, 184psi')).toEqual([87, 89, 184])
    const bar = parsePressures('5,62 5.8 bar', places, { ...canonicalUnits, pressure: 'bar' })
    expect(bar[0]).toBeCloseTo(barToPsi(5.62), 3)
    expect(bar[1]).toBeCloseTo(barToPsi(5.8), 3)
    expect(parsePressures('6,2', places, { ...canonicalUnits, pressure: 'bar' })[0]).toBeCloseTo(
      barToPsi(6.2),
      3,
    )
  })
  it.each([
    ['87 89 184 190', /4 pressures for 3/],
    ['87 8o 184', /^8o is no pressure/],
    ['87 +2', /^\+2 is no pressure/],
    ['5.6 bar', /Number 1, 5.6, is outside.*check the order and the unit/],
    ['184 89 87', /Number 1, 184, is outside/],
    ['87 89 8', /Number 3, 8, is outside/],
  ])('refuses “%s” whole, and says which', (text, why) => {
    expect(() => psi(text)).toThrow(why)
  })
})
