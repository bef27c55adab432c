import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import type { StockItem } from '#contract/care'
import type { Trend } from '#core/tent/trend'
import { laneLabels } from './laneLabels.ts'
import { offerWords, ownedName, whereWords as pieceWords, type ShelfNames } from './shelfWords.ts'
import { scheduleWords, trendWords, whereWords } from './tentWords.ts'

const at = (clock: string) => new Date(`2026-11-21T${clock}:00`).getTime()

describe('labels of a lane', () => {
  it('never lie over each other or beyond the edge, and stand at their marks where there is room', () => {
    const marks = fc
      .array(
        fc.record({ x: fc.integer({ min: 0, max: 730 }), label: fc.string({ minLength: 3, maxLength: 18 }) }),
        {
          maxLength: 14,
        },
      )
      .map((list) => list.sort((a, b) => a.x - b.x))
    fc.assert(
      fc.property(marks, (list) => {
        const middles = laneLabels(list, 735)
        // 6 px is less than any letter of the label's size takes.
        const boxes = list.flatMap((m, i) =>
          middles[i] === null
            ? []
            : [{ from: middles[i] - m.label.length * 3, to: middles[i] + m.label.length * 3 }],
        )
        boxes.forEach((b, i) => i > 0 && expect(b.from).toBeGreaterThan(boxes[i - 1].to))
        for (const b of boxes) expect(b.to).toBeLessThanOrEqual(735)
        if (list.length === 1 && list[0].x > 80 && list[0].x < 650) expect(middles[0]).toBe(list[0].x)
      }),
    )
  })
})

describe('words of a tent', () => {
  it('tell where a rider is, in minutes while it is minutes', () => {
    expect(whereWords('here', at('11:47'), at('11:49'))).toBe('here, 2 min')
    expect(whereWords('here', at('08:00'), at('11:49'))).toBe('here since 08:00')
    expect(whereWords('out', at('11:38'), at('11:49'))).toBe('out since 11:38')
    expect(whereWords('settled', at('11:05'), at('11:49'))).toBe('settled 11:05')
    // A phone whose clock is ahead does not make it negative.
    expect(whereWords('here', at('11:52'), at('11:49'))).toBe('here, 0 min')
  })
  it('tell what is left of the track’s time, or when it opens', () => {
    const window = {
      kind: 'practice' as const,
      from: new Date(at('09:00')).toISOString(),
      to: new Date(at('12:30')).toISOString(),
    }
    expect(scheduleWords({ window, begun: true, minutes: 41 })).toEqual({
      text: 'practice ends 12:30',
      minutes: '41 min',
    })
    expect(scheduleWords({ window, begun: false, minutes: 125 })).toEqual({
      text: 'practice from 09:00',
      minutes: 'in 2 h 5 min',
    })
    expect(scheduleWords(null)).toBeNull()
  })
  it('name in a trend only who agreed, and count the others', () => {
    const t: Trend = {
      family: 'rebound',
      way: 'slower',
      dayIds: ['a', 'b', 'c'],
      sinceMs: at('10:30'),
      by: 'heat',
    }
    expect(trendWords(t, ['Mika'])).toMatchObject({ who: 'Mika and 2 others' })
    expect(trendWords(t, []).who).toBe('')
    expect(trendWords(t, ['Mika', 'Nuri', 'Runa']).who).toBe('Mika, Nuri, Runa')
    expect(trendWords(t, []).text).toBe('rebound slower: 3 riders since 10:30')
    expect(trendWords({ ...t, by: null }, []).by).toBe('')
  })
})

describe('words of the shelf', () => {
  const names: ShelfNames = {
    rider: (id) => (id === 'tarek' ? ({ name: 'Tarek' } as ReturnType<ShelfNames['rider']>) : undefined),
    bike: (id) => (id === 'trail' ? ({ name: 'Trail bike' } as ReturnType<ShelfNames['bike']>) : undefined),
  }
  const spring = (over: Partial<StockItem> = {}) =>
    ({
      kind: 'spring',
      name: 'yellow spring',
      count: 1,
      ownerId: 'tarek',
      out: [],
      ...over,
    }) as unknown as StockItem
  const lent = { where: 'loan' as const, to: 'Obi', since: '2026-11-03' }
  it('say whose is free, or where it is', () => {
    expect(offerWords(spring(), names)).toBe('Tarek’s yellow spring is free')
    expect(offerWords(spring({ out: [lent] }), names)).toBe(
      'Tarek’s yellow spring is on loan to Obi since 3 Nov 2026',
    )
    expect(pieceWords(spring({ count: 3, out: [lent] }), names)).toBe(
      '2 free; on loan to Obi since 3 Nov 2026',
    )
    expect(pieceWords(spring({ out: [{ where: 'bike', bikeId: 'trail', end: 'rear' }] }), names)).toBe(
      'on Trail bike, rear',
    )
    expect(pieceWords(spring({ count: 0 }), names)).toBe('none left')
  })
  it('stay true when an owner or a bike was removed', () => {
    expect(ownedName(spring({ ownerId: 'gone' }), names)).toBe('yellow spring')
    expect(pieceWords(spring({ out: [{ where: 'bike', bikeId: 'gone', end: 'front' }] }), names)).toBe(
      'on a bike that was removed, front',
    )
  })
})
