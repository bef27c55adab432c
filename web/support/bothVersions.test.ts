import { expect, it } from 'vitest'
import { canonicalUnits, type UnitChoice } from '#core/units/choice'
import { differencesOf, differenceWords } from './bothVersions.ts'

const names: Record<string, string> = { 'unit-1': 'Long fork', 'unit-2': 'Short fork' }
const words = (mine: object, theirs: object, units: UnitChoice = canonicalUnits) =>
  differencesOf(mine, theirs).map((d) => differenceWords(d, { units, nameOf: (id) => names[id] ?? null }))

const rider = {
  id: 'a',
  version: 1,
  name: 'Runa',
  bodyMassKg: 64,
  kitMassKg: null,
  readsHighPsi: 2,
  hoseCc: 4,
}
const heavier = { ...rider, version: 2, bodyMassKg: 66.5, kitMassKg: 5, readsHighPsi: 3, hoseCc: 6 }

it('tells what differs, each number with its unit, and what nobody gave as empty', () => {
  expect(words(rider, heavier)).toEqual([
    'body mass: yours 64 kg, theirs 66.5 kg',
    'kit mass: yours empty, theirs 5 kg',
    'reads high: yours 2 psi, theirs 3 psi',
    'hose: yours 4 cm³, theirs 6 cm³',
  ])
})

it('speaks in the units that are read here', () => {
  const units: UnitChoice = { ...canonicalUnits, mass: 'lb', temperature: '°F', pressure: 'bar' }
  expect(
    words({ ...rider, foundAt: { airTempC: 10 } }, { ...heavier, foundAt: { airTempC: 20 } }, units),
  ).toEqual([
    'body mass: yours 141 lb, theirs 147 lb',
    'kit mass: yours empty, theirs 11 lb',
    'reads high: yours 0.14 bar, theirs 0.21 bar',
    'hose: yours 4 cm³, theirs 6 cm³',
    'found at, air temp: yours 50 °F, theirs 68 °F',
  ])
})

it('goes down to the single thing: an entry by its name or number, one that only one side has, another order', () => {
  const trail = (...sections: [id: string, name: string, lengthM: number][]) => ({
    sections: sections.map(([id, name, lengthM]) => ({ id, name, lengthM })),
  })
  expect(
    words(
      trail(['r', 'Roots', 80], ['b', '', 60]),
      trail(['b', '', 70], ['r', 'Roots', 80], ['l', 'Lip', 9]),
    ),
  ).toEqual([
    'sections, no. 2, length: yours 60 m, theirs 70 m',
    'sections, Lip: yours without it, theirs has it',
  ])
  expect(
    words(trail(['r', 'Roots', 80], ['b', 'Berms', 60]), trail(['b', 'Berms', 60], ['r', 'Roots', 80])),
  ).toEqual(['sections, order: yours Roots, Berms, theirs Berms, Roots'])
  expect(words({ curve: [{ at: 0, ratio: 2.9 }] }, { curve: null })).toEqual([
    'curve, no. 1: yours has it, theirs without it',
  ])
  expect(words({ airSpring: null }, { airSpring: { chamberCc: 180 } })).toEqual([
    'air spring, chamber: yours empty, theirs 180 cm³',
  ])
})

it('names what a field points at, and says truth, times and lists as people do', () => {
  expect(
    words(
      {
        frontUnitId: 'unit-1',
        eBike: true,
        madeOn: '2031-05-02',
        at: '2031-05-02T10:05:00Z',
        track: ['dry'],
      },
      { frontUnitId: 'unit-9', eBike: false, madeOn: '2031-05-03', at: '2031-05-02T11:05:00Z', track: [] },
    ),
  ).toEqual([
    'front unit: yours Long fork, theirs another one',
    'e bike: yours yes, theirs no',
    'made on: yours 2 May 2031, theirs 3 May 2031',
    expect.stringMatching(/^at: yours .*2 May, \d\d:05, theirs .*2 May, \d\d:05$/),
    'track: yours dry, theirs empty',
  ])
})

it('is nothing where both say nothing, each in its own way', () => {
  expect(words({ note: null, more: { a: 1 } }, { more: { a: 1 } })).toEqual([])
})

it('takes no letter of a word for a unit', () => {
  expect(
    words({ nameInC: 'x', springRateNPerMm: 70, DIM: 1 }, { nameInC: 'y', springRateNPerMm: 75, DIM: 2 }),
  ).toEqual([
    'name in: yours x, theirs y',
    'spring rate: yours 70 N/mm, theirs 75 N/mm',
    expect.stringMatching(/yours 1, theirs 2$/),
  ])
})
