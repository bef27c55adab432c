import { describe, expect, it } from 'vitest'
import { noAnswers, type Answers } from './firstBike.ts'
import { startFault } from './startFault.ts'

const said = (over: Partial<Answers>): Answers => ({ ...noAnswers(), name: 'Mara', bodyMassKg: 62, ...over })
const withCounts = (counts: Answers['front']['counts']): Answers => {
  const a = noAnswers()
  return { ...a, front: { ...a.front, parts: ['air', 'red'], counts } }
}

describe('the guided way names the field that stops it', () => {
  it.each([
    ['no name', 'who', said({ name: '  ' }), 'name'],
    ['no weight', 'who', said({ bodyMassKg: null }), 'mass'],
    ['a weight of letters', 'who', said({ bodyMassKg: NaN }), 'mass'],
    ['a weight of a tonne', 'who', said({ bodyMassKg: 1000 }), 'mass'],
    ['nothing seen on the fork', 'fork', noAnswers(), 'parts'],
    ['nothing seen on the shock', 'shock', noAnswers(), 'parts'],
  ])('%s', (_, key, answers, field) => {
    expect(startFault(key, answers, false)?.field).toBe(field)
  })
  it('tells the two travels apart, and asks no rear of a hardtail', () => {
    const a = noAnswers()
    const rear = { ...a, rear: { ...a.rear, travelMm: 15 } }
    expect(startFault('travel', rear, false)?.field).toBe('travel.rear')
    expect(startFault('travel', { ...rear, hardtail: true }, false)).toBeNull()
    expect(startFault('travel', { ...a, front: { ...a.front, travelMm: NaN } }, false)?.field).toBe(
      'travel.front',
    )
  })
  it.each([
    [{ clicks: 12, at: 13 }, 'at'],
    [{ clicks: NaN, at: 3 }, 'clicks'],
    [{ clicks: 12, at: NaN }, 'at'],
    [{ clicks: 12, at: -1 }, 'at'],
    [{ clicks: 200, at: 4 }, 'clicks'],
    [{ clicks: 0, at: 0 }, 'clicks'],
  ])('a count of %o is refused at its field', (count, part) => {
    expect(startFault('count', withCounts({ rebound: count }), true)?.field).toBe(
      `count.front.rebound.${part}`,
    )
  })
  it('lets pass what is only not known, or not asked', () => {
    expect(startFault('who', said({}), false)).toBeNull()
    expect(startFault('who', { ...noAnswers(), riderId: 'r' }, false)).toBeNull()
    expect(startFault('travel', noAnswers(), false)).toBeNull()
    expect(startFault('count', withCounts({}), true)).toBeNull()
    expect(startFault('count', withCounts({ rebound: { clicks: null, at: 4 } }), true)).toBeNull()
    expect(startFault('count', withCounts({ rebound: { clicks: 12, at: 12 } }), true)).toBeNull()
    expect(startFault('count', withCounts({ rebound: { clicks: 12, at: 99 } }), false)).toBeNull()
  })
})
