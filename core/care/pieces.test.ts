import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { StockItem, type StockSpring } from '#contract/care'
import { freePieces, springExchanged, springsFor } from './pieces.ts'

const id = (n: number) => `018f0000-0000-7000-8000-00000000000${n}`
const spring = (n: number, over: Partial<StockSpring> = {}): StockItem =>
  StockItem.parse({
    id: id(n),
    version: 1,
    kind: 'spring',
    name: `spring ${n}`,
    count: 1,
    rateNPerMm: 96.3,
    strokeMm: 65,
    ratePoints: null,
    note: '',
    ...over,
  })
const onBike = (bike: number, end: 'front' | 'rear' = 'rear') => ({
  where: 'bike' as const,
  bikeId: id(bike),
  end,
})
const lent = { where: 'loan' as const, to: 'Wren', since: '2026-11-02' }
/** 550 lb/in: 550 × 4.4482216 N / 25.4 mm. */
const need = { rateNPerMm: (550 * 4.4482216) / 25.4, strokeMm: 60 }
const ids = (list: readonly StockItem[]) => list.map((s) => s.id)

describe('springs on the shelf', () => {
  it('are those of that print that are long enough, whatever unit the print is in', () => {
    const stock = [
      spring(1),
      spring(2, { rateNPerMm: 100.7 }),
      spring(3, { strokeMm: 55 }),
      spring(4, { strokeMm: null }),
      spring(5, { count: 0 }),
    ]
    expect(ids(springsFor(stock, need, null))).toEqual([id(1), id(4)])
  })
  it('that are free come before those that are out, one’s own before nobody’s and another’s', () => {
    const stock = [
      spring(1, { ownerId: id(8) }),
      spring(2, { ownerId: id(9), out: [lent] }),
      spring(3),
      spring(4, { ownerId: id(9) }),
      spring(5, { out: [onBike(7)] }),
    ]
    expect(ids(springsFor(stock, need, id(9)))).toEqual([id(4), id(3), id(1), id(2), id(5)])
  })
})

describe('an exchange of springs', () => {
  it('puts the old one back on the shelf and the new one on the bike; what is lent stays lent', () => {
    const stock = [spring(1, { out: [onBike(7)] }), spring(2, { count: 2, out: [lent] })]
    const changed = springExchanged(stock, id(7), 'rear', id(2))
    expect(changed.map((s) => [s.id, s.out])).toEqual([
      [id(1), []],
      [id(2), [lent, onBike(7)]],
    ])
  })
  it('leaves the other end and other bikes alone, and changes nothing where nothing changes', () => {
    const stock = [spring(1, { out: [onBike(7, 'front')] }), spring(2, { out: [onBike(8)] })]
    expect(springExchanged(stock, id(7), 'rear', null)).toEqual([])
    const same = [spring(3, { out: [onBike(7)] })]
    expect(springExchanged(same, id(7), 'rear', id(3))).toEqual([])
  })
  it('never makes more of a spring than there are, nor puts two into one shock', () => {
    const place = fc.oneof(
      fc.constant(lent),
      fc
        .record({
          bike: fc.integer({ min: 6, max: 8 }),
          end: fc.constantFrom('front' as const, 'rear' as const),
        })
        .map(({ bike, end }) => onBike(bike, end)),
    )
    const stocks = fc
      .array(fc.array(place, { maxLength: 3 }), { minLength: 1, maxLength: 4 })
      .map((list) => list.map((out, i) => spring(i + 1, { count: 3, out })))
    fc.assert(
      fc.property(stocks, fc.option(fc.integer({ min: 1, max: 5 })), (stock, chosen) => {
        const changed = springExchanged(stock, id(7), 'rear', chosen === null ? null : id(chosen))
        const after = stock.map((s) => changed.find((c) => c.id === s.id) ?? s)
        const here = after
          .flatMap((s) => s.out)
          .filter((o) => o.where === 'bike' && o.bikeId === id(7) && o.end === 'rear')
        expect(here.length).toBeLessThanOrEqual(1)
        for (const s of after) expect(s.out.length).toBeLessThanOrEqual(s.count)
        const elsewhere = (list: readonly StockItem[]) =>
          list.reduce(
            (n, s) =>
              n + s.out.filter((o) => o.where === 'loan' || o.bikeId !== id(7) || o.end !== 'rear').length,
            0,
          )
        expect(elsewhere(after)).toBe(elsewhere(stock))
        for (const s of after) expect(freePieces(s)).toBe(s.count - s.out.length)
      }),
    )
  })
})
