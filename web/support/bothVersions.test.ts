import { expect, it } from 'vitest'
import { differencesOf, differenceWords } from './bothVersions.ts'

const words = (mine: object, theirs: object) => differencesOf(mine, theirs).map(differenceWords)

it('tells what differs, each number with its unit, and what nobody gave as empty', () => {
  const mine = {
    id: 'a',
    version: 1,
    name: 'Runa',
    bodyMassKg: 64,
    kitMassKg: null,
    readsHighPsi: 2.5,
    hoseCc: 4,
  }
  const theirs = {
    id: 'a',
    version: 2,
    name: 'Runa',
    bodyMassKg: 66.5,
    kitMassKg: 5,
    readsHighPsi: 3,
    hoseCc: 6,
  }
  expect(words(mine, theirs)).toEqual([
    'body mass: yours 64 kg, theirs 66.5 kg',
    'kit mass: yours empty, theirs 5 kg',
    'reads high: yours 2.5 psi, theirs 3 psi',
    'hose: yours 4 cm³, theirs 6 cm³',
  ])
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
