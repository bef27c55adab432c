import { describe, expect, it } from 'vitest'
import type { Setup } from '#contract/setup'
import { assumed, readBy, setBy } from './known.ts'
import { readBetween, readingsBetween } from './readBetween.ts'

const setup = (id: string, parentId: string | null, at: Record<string, number>, source = 'own-idea') =>
  ({
    id,
    parentId,
    reason: { source },
    positions: Object.entries(at).map(([adjusterId, value]) => ({
      adjusterId,
      value,
      known: setBy({ at: id }),
    })),
  }) as unknown as Setup
const between = (setups: Setup[], from = 'a', to = setups.at(-1)!.id) =>
  Object.fromEntries(readBetween(setups, from, to))

describe('what readings put right between two setups', () => {
  it('is what was counted, and never what a hand turned before or after', () => {
    const chain = [
      setup('a', null, { rr: 6, fr: 5 }),
      setup('b', 'a', { rr: 6, fr: 7 }),
      setup('c', 'b', { rr: 10, fr: 7 }, 'reading'),
      setup('d', 'c', { rr: 9, fr: 7 }),
    ]
    expect(between(chain)).toEqual({ rr: { written: 6, read: 10 } })
    expect(between(chain, 'a', 'b')).toEqual({})
    expect(between(chain, 'c', 'd')).toEqual({})
  })
  it('adds up over several readings, from what was written first', () => {
    const chain = [
      setup('a', null, { rp: 180 }),
      setup('b', 'a', { rp: 176 }, 'reading'),
      setup('c', 'b', { rp: 180 }),
      setup('d', 'c', { rp: 177 }, 'reading'),
    ]
    expect(between(chain)).toEqual({ rp: { written: 180, read: 173 } })
  })
  it('is nothing where a place was unread, where nothing differed, or where one does not follow from the other', () => {
    expect(between([setup('a', null, {}), setup('b', 'a', { rr: 6 }, 'reading')])).toEqual({})
    expect(between([setup('a', null, { rr: 6 }), setup('b', 'a', { rr: 6 }, 'reading')])).toEqual({})
    expect(between([setup('a', null, { rr: 6 }), setup('b', null, { rr: 9 }, 'reading')])).toEqual({})
    const ring = [setup('x', 'y', { rr: 1 }, 'reading'), setup('y', 'x', { rr: 2 }, 'reading')]
    expect(between(ring, 'a', 'y')).toEqual({})
  })
  it('of a part that nobody was sure of meanwhile is what it was last said to be', () => {
    const chain = [
      setup('a', null, { rr: 6, fr: 5 }),
      setup('b', 'a', { fr: 5 }, 'reading'),
      setup('c', 'b', { rr: 9, fr: 5 }, 'reading'),
    ]
    expect(between(chain)).toEqual({ rr: { written: 6, read: 9 } })
    expect(between(chain, 'b', 'c')).toEqual({})
  })
  it('of what was read it tells also what was as written, and nothing of what was only carried along', () => {
    const [a, b] = [setup('a', null, { rr: 6, rp: 180 }), setup('b', 'a', { rr: 6, rp: 180 }, 'reading')]
    b.positions = [
      { ...b.positions[0], known: readBy({ at: 'b' }) },
      { ...b.positions[1], known: a.positions[1].known },
    ]
    expect(Object.fromEntries(readingsBetween([a, b], 'a', 'b'))).toEqual({ rr: { written: 6, read: 6 } })
    // Read again: what was read before had another time.
    const c = setup('c', 'b', { rr: 6, rp: 180 }, 'reading')
    c.positions = b.positions.map((p) => ({ ...p, known: { ...p.known } }))
    expect(readingsBetween([a, b, c], 'b', 'c').size).toBe(0)
    c.positions[0].known = readBy({ at: 'c' })
    expect([...readingsBetween([a, b, c], 'b', 'c').keys()]).toEqual(['rr'])
    b.positions[1].known = assumed('typical')
    expect([...readingsBetween([a, b], 'a', 'b').keys()]).toEqual(['rr'])
  })
})
