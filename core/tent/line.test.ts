import { describe, expect, it } from 'vitest'
import { FeelWord } from '#contract/run'
import { effectWords, endWords, fillers, partWords, separators, toWords } from '../command/lexicon.ts'
import { feelCodes, feelOfCode } from './feelCodes.ts'
import { parseTentLine } from './line.ts'

const numbers = [1, 2, 3, 12]
const read = (line: string) => parseTentLine(line, numbers)

describe('a line in the tent', () => {
  // As it is said over a bike, with what is meant.
  it.each([
    ['3', 3, { kind: 'who' }],
    ['12', 12, { kind: 'who' }],
    ['2 shock reb slower 1, fork +2', 2, { kind: 'change', line: 'shock reb slower 1, fork +2' }],
    ['shock reb slower 1', null, { kind: 'change', line: 'shock reb slower 1' }],
    ['4 clicks out on the shock reb', null, { kind: 'change', line: '4 clicks out on the shock reb' }],
    ['1 out', 1, { kind: 'whereabouts', to: 'out' }],
    ['rest', null, { kind: 'whereabouts', to: 'resting' }],
    ['3 in', 3, { kind: 'in', feel: { rating: null, marks: [], verdict: null } }],
    [
      '3 in 6.5 rki',
      3,
      { kind: 'in', feel: { rating: 6.5, marks: [{ word: 'kicks', end: 'rear' }], verdict: null } },
    ],
    ['1 7,5 better', 1, { kind: 'feel', feel: { rating: 7.5, marks: [], verdict: 1 } }],
    [
      'w di',
      null,
      { kind: 'feel', feel: { rating: null, marks: [{ word: 'dives', end: 'front' }], verdict: -1 } },
    ],
    ['2 10', 2, { kind: 'feel', feel: { rating: 10, marks: [], verdict: null } }],
    ['2 leave alone, rode it twice', 2, { kind: 'note', note: 'left-alone', text: 'rode it twice' }],
    [
      '2 Leave it alone: nothing to answer',
      2,
      { kind: 'note', note: 'left-alone', text: 'nothing to answer' },
    ],
    ['1 later fork +2', 1, { kind: 'note', note: 'later', text: 'fork +2' }],
    ['3 no time', 3, { kind: 'note', note: 'no-time', text: '' }],
  ])('%s', (line, number, entry) => {
    expect(read(line)).toEqual({ number, entry })
  })
  it('a number nobody has is no rider: alone it is a rating, in front of a part it is an amount', () => {
    expect(read('7')).toEqual({
      number: null,
      entry: { kind: 'feel', feel: { rating: 7, marks: [], verdict: null } },
    })
    expect(read('5 clicks slower on the shock')).toMatchObject({ number: null, entry: { kind: 'change' } })
  })
  it('an amount is no rider, and what can be either is asked for', () => {
    // Rider 2 is here, and so is whoever is chosen.
    for (const line of [
      '2 clicks slower on the shock',
      '2 psi in the fork',
      '2 more psi in the fork',
      '1 spacer out',
    ])
      expect(read(line)).toEqual({ number: null, entry: { kind: 'change', line } })
    for (const line of [
      '2 slower on the shock',
      '2 in on the fork rebound',
      '1 softer lsc',
      '2 more on the shock',
    ])
      expect(read(line)).toMatchObject({ entry: { kind: 'unclear' } })
    expect(read('2 slower shock reb 1')).toMatchObject({ number: 2, entry: { line: 'slower shock reb 1' } })
    expect(read('2 slow the shock down one')).toMatchObject({ number: 2, entry: { kind: 'change' } })
    expect(read('2 psi fork +2')).toMatchObject({ number: 2, entry: { line: 'psi fork +2' } })
    expect(read('3 in rki better')).toMatchObject({ number: 3, entry: { kind: 'in', feel: { verdict: 1 } } })
    expect(read('3 in')).toMatchObject({ number: 3, entry: { kind: 'in' } })
    expect(read('1 out')).toMatchObject({ number: 1, entry: { kind: 'whereabouts' } })
  })
  it('"in" before a part is a way to turn it, not a rider who comes in', () => {
    expect(read('in 2 on the fork lsc')).toMatchObject({ entry: { kind: 'change' } })
    expect(read('1 in 2 on the fork lsc')).toMatchObject({ number: 1, entry: { kind: 'change' } })
  })
  it('two ratings, or a word that is none, is no feel', () => {
    expect(read('7 8 ki')).toMatchObject({ entry: { kind: 'change' } })
    expect(read('1 6 kicks')).toMatchObject({ entry: { kind: 'change' } })
    expect(read('1 11')).toMatchObject({ entry: { kind: 'change' } })
  })
  it('nothing typed says nothing', () => {
    for (const line of ['', '   ']) expect(read(line)).toBeNull()
  })
})

describe('two letters for a word', () => {
  it('are two, one word each, at any end', () => {
    const codes = Object.values(feelCodes)
    expect(new Set(codes).size).toBe(FeelWord.options.length)
    for (const [word, code] of Object.entries(feelCodes)) {
      expect(code).toMatch(/^[a-z]{2}$/)
      expect(feelOfCode(code)?.word).toBe(word)
      for (const [letter, end] of [
        ['f', 'front'],
        ['r', 'rear'],
        ['b', 'both'],
      ]) {
        // A prefixed code must not be read as another word.
        expect(feelOfCode(letter + code)).toEqual({ word, end })
      }
    }
  })
  it('mean nothing in a line of changes, and no change is made of them alone', () => {
    const said = new Set([
      ...Object.keys(endWords),
      ...partWords.flatMap(([names]) => names),
      ...effectWords.keys(),
      ...fillers,
      ...separators,
      ...toWords,
    ])
    for (const code of Object.values(feelCodes))
      for (const typed of [code, `f${code}`, `r${code}`, `b${code}`])
        expect(said.has(typed), typed).toBe(false)
  })
})
