import type { Bike } from '#contract/bike'
import type { End } from '#contract/common'
import { freePieces, springExchanged, springsFor, type SpringNeed } from '#core/care/pieces'
import { useGarage } from '../stores/garage.ts'
import { offerWords, ownedName } from '../support/shelfWords.ts'
import { useUnits } from './useUnits.ts'

/** Springs that lie around or are lent, asked for by what a bike needs. */
export function useShelf() {
  const garage = useGarage()
  const { say } = useUnits()
  const found = (need: SpringNeed, riderId: string | null) => springsFor(garage.stock, need, riderId)

  /** "Tarek’s yellow spring is free"; null: nobody owns one. */
  function offerFor(need: SpringNeed, riderId: string | null): string | null {
    const best = found(need, riderId).at(0)
    return best ? offerWords(best, garage) : null
  }
  /** "550 lb/in: Tarek’s yellow spring is free"; says too when there is none. */
  const needWords = (need: SpringNeed, riderId: string | null) =>
    `${say('springRate', need.rateNPerMm)}: ${offerFor(need, riderId) ?? 'none on the shelf'}`
  /** Pieces that can be taken now, to choose from. */
  const freeFor = (need: SpringNeed, riderId: string | null) =>
    found(need, riderId)
      .filter((s) => freePieces(s) > 0)
      .map((s) => ({ value: s.id, text: ownedName(s, garage) }))
  /** Notes on the shelf what is on the bike now. @throws ApiError */
  async function noteExchange(bike: Bike, end: End, chosenId: string | null): Promise<void> {
    for (const item of springExchanged(garage.stock, bike.id, end, chosenId)) await garage.saveStockItem(item)
  }
  return { offerFor, needWords, freeFor, noteExchange }
}
