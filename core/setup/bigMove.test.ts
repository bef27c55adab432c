import { describe, expect, it } from 'vitest'
import type { Adjuster } from '#contract/adjuster'
import { setBy } from './known.ts'
import { frontPressure, frontRebound, rearSpacers, shock } from '../test/dayBuilder.ts'
import { bigMoveWords, isBigMove } from './bigMove.ts'
import { pressureHere } from './pressureHere.ts'

const lever: Adjuster = {
  id: 'l',
  alias: null,
  tool: 'hand',
  kind: 'lever',
  role: 'lever',
  positions: ['Open', 'Middle', 'Firm'],
}

describe('a move far beyond a usual step', () => {
  it.each([
    ['4 clicks', frontRebound, 6, 10, false],
    ['5 clicks', frontRebound, 6, 11, true],
    ['5 clicks the other way', frontRebound, 6, 1, true],
    ['10 psi', frontPressure, 80, 90, false],
    ['20 psi', frontPressure, 80, 60, true],
    ['one spacer', rearSpacers, 1, 2, false],
    ['two spacers', rearSpacers, 1, 3, true],
    ['a lever from open to firm', lever, 0, 2, false],
  ] as const)('%s', (_, adjuster, from, to, big) => {
    expect(isBigMove({ adjuster, from, to })).toBe(big)
  })
  it('is asked about in its own words', () => {
    const words = bigMoveWords({ end: 'front', adjuster: frontRebound, from: 8, to: 2 })
    expect(words).toMatch(/^6 clicks slower in one go/)
  })
})

describe('a pressure in the air of the day', () => {
  const known = { ...setBy({ at: '2031-05-02T08:00:00Z' }), airTempC: 25, altitudeM: 400 }
  it('reads less in the cold: 180 psi set at 25 °C, at 0 °C', () => {
    const here = pressureHere(180, known, { airTempC: 0, altitudeM: 400 }, shock, 1)!
    // By hand: (180 + 14.01) · 273.15 / 298.15 − 14.01 psi, with 14.01 psi of air at 400 m.
    expect(here.readsPsi).toBeCloseTo(163.7, 1)
    expect(here.sameSagPsi).toBeCloseTo(180, 1)
  })
  it('says nothing where it makes no difference, or where nobody knows', () => {
    expect(pressureHere(180, known, { airTempC: 25, altitudeM: 410 }, shock, 1)).toBeNull()
    expect(pressureHere(180, known, { airTempC: null, altitudeM: 400 }, shock, 1)).toBeNull()
    expect(
      pressureHere(180, { ...known, airTempC: null }, { airTempC: 0, altitudeM: 400 }, shock, 1),
    ).toBeNull()
    expect(
      pressureHere(180, { ...known, how: 'assumed' }, { airTempC: 0, altitudeM: 400 }, shock, 1),
    ).toBeNull()
  })
})
