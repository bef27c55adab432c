import type { StockItem, StockSpring } from '#contract/care'
import type { End } from '#contract/common'

/** What a coil unit is to get. */
export interface SpringNeed {
  rateNPerMm: number
  /** Of the unit; a spring for shorter strokes binds. */
  strokeMm: number
}

/** Springs are printed in steps of a few per cent; within one, it is the same print in another unit. */
const samePrintShare = 0.01

/** Pieces that lie on the shelf: neither on a bike nor lent. */
export const freePieces = (item: StockItem): number => Math.max(0, item.count - item.out.length)

/** Springs of that rate that are long enough: what is free before what is out, one's own before nobody's and others'. */
export function springsFor(
  stock: readonly StockItem[],
  need: SpringNeed,
  riderId: string | null,
): StockSpring[] {
  const near = (s: StockSpring) => (s.ownerId === riderId ? 0 : s.ownerId === null ? 1 : 2)
  return stock
    .filter((s): s is StockSpring => s.kind === 'spring' && s.count > 0)
    .filter((s) => Math.abs(s.rateNPerMm - need.rateNPerMm) <= samePrintShare * need.rateNPerMm)
    .filter((s) => s.strokeMm === null || s.strokeMm >= need.strokeMm)
    .sort((a, b) => Number(freePieces(a) === 0) - Number(freePieces(b) === 0) || near(a) - near(b))
}

/**
 * The shelf after a spring was exchanged: what was at that end of the bike lies on the shelf again, a piece of the chosen
 * one is on the bike. Only records that changed.
 *
 * @param chosenId null: the new spring is none of the shelf
 */
export function springExchanged(
  stock: readonly StockItem[],
  bikeId: string,
  end: End,
  chosenId: string | null,
): StockItem[] {
  return stock.flatMap((s) => {
    if (s.kind !== 'spring') return []
    const others = s.out.filter((o) => o.where !== 'bike' || o.bikeId !== bikeId || o.end !== end)
    const here = s.id === chosenId && others.length < s.count
    const out = here ? [...others, { where: 'bike' as const, bikeId, end }] : others
    const same = out.length === s.out.length && (!here || others.length < s.out.length)
    return same ? [] : [{ ...s, out }]
  })
}
