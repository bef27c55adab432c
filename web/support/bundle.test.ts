import { describe, expect, it } from 'vitest'
import type { BundleHead } from '#contract/bundle'
import { bundleWords, countOf, fieldWords, leftOutWords, takenWords } from './bundleWords.ts'

const head = (over: Partial<BundleHead> = {}): BundleHead => ({
  format: 'wild-spring-bundle',
  version: 1,
  shape: '0010_imports',
  by: '0.1.0',
  madeAt: '2031-05-02T12:00:00.000Z',
  scope: { kind: 'rider', name: 'Ilka' },
  with: { weights: true, voices: true, inside: true },
  counts: {},
  ...over,
})

describe('words of a bundle', () => {
  it('of what it is, and when', () => {
    expect(bundleWords(head())).toMatch(/^Ilka, as it stood on 2 May 2031, \d\d:\d\d$/)
    expect(bundleWords(head({ scope: { kind: 'everything', name: 'everything' } }))).toMatch(/^Everything, /)
  })
  it('what is not in it is said, and what becomes of ours; nothing where nothing was left out', () => {
    expect(leftOutWords(head())).toBe('')
    expect(leftOutWords(head({ with: { weights: false, voices: true, inside: true } }))).toMatch(
      /^Not in it: weights\. /,
    )
    expect(leftOutWords(head({ with: { weights: false, voices: false, inside: true } }))).toContain(
      'weights and spoken notes.',
    )
  })
  it.each([
    [1, 0, '1 new record'],
    [609, 3, '609 new records, 3 replaced'],
    [0, 3, '3 replaced'],
    [0, 0, 'nothing new'],
  ])('%i new and %i replaced', (fresh, replaced, words) =>
    expect(takenWords({ id: '', at: '', head: head(), fresh, replaced })).toBe(words),
  )
  it('one and many of a kind; a kind nobody named goes by its own name', () => {
    expect([countOf('tents', 1), countOf('feels', 2), countOf('moons', 2)]).toEqual([
      '1 event',
      '2 feels of runs',
      '2 moons',
    ])
  })
  it.each([
    ['rating', 'rating'],
    ['conditions.airTempC', 'conditions, air temperature (°C)'],
    ['marks.1.strength', 'marks, no. 2, strength'],
    ['tyreFrontPsi', 'tyre front (psi)'],
    ['on the bike', 'on the bike'],
    ['name', 'name'],
  ])('the field %s', (path, words) => expect(fieldWords(path)).toBe(words))
})
