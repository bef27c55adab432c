import { describe, expect, it } from 'vitest'
import { lookup, type Entry } from './lookup.ts'

const entries: Entry[] = [
  { id: 'c', kind: 'Command', title: 'New trail day', detail: 'begin a day of test runs' },
  { id: 'r', kind: 'Rider', title: 'Ilka', detail: 'intermediate, 2 bikes' },
  { id: 'b', kind: 'Bike', title: 'Ilka’s trail bike', detail: '150 mm fork, 55 mm shock' },
  { id: 'd1', kind: 'Day', title: 'Rootgarden, 3 June', detail: 'Ilka on Trail bike, settled' },
  { id: 'd2', kind: 'Day', title: 'Rootgarden, 4 June', detail: 'Joren on Enduro bike, open' },
  { id: 'w', kind: 'Handbook', title: 'harsh, gets worse', detail: 'word', also: 'packing packs up' },
]
const find = lookup(entries)
const ids = (question: string) => find(question).map((e) => e.id)

describe('looking something up', () => {
  it('every word must be there, by its beginning', () => {
    expect(ids('root jor')).toEqual(['d2'])
    expect(ids('ilk')[0]).toBe('r')
    expect(ids('rootgarden').sort()).toEqual(['d1', 'd2'])
  })
  it('finds a word by what people say instead, and a kind by its name', () => {
    expect(ids('packing')).toEqual(['w'])
    expect(ids('bike 150')).toEqual(['b'])
  })
  it('forgives one letter in a longer word, none in a short one', () => {
    expect(ids('rootgardn 3')).toEqual(['d1'])
    expect(ids('xlka')).toEqual([])
  })
  it('finds nothing where nothing is, and commands for nothing', () => {
    expect(ids('zzzz')).toEqual([])
    expect(ids(' ')[0]).toBe('c')
  })
})
