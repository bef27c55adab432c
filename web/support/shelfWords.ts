import type { Bike } from '#contract/bike'
import type { Loan, StockItem } from '#contract/care'
import type { Rider } from '#contract/rider'
import type { SuspensionUnit } from '#contract/unit'
import { freePieces } from '#core/care/pieces'
import { dateWords } from './dates.ts'

/** Of the garage, what words about the shelf need. */
export interface ShelfNames {
  rider: (id: string | null) => Rider | undefined
  bike: (id: string | null) => Bike | undefined
}

const loanWords = (l: Loan) => `on loan to ${l.to} since ${dateWords(l.since)}`
const ofRider = (ownerId: string | null, names: ShelfNames) => names.rider(ownerId)?.name ?? null

/** "Tarek’s yellow spring", or its name alone. */
export function ownedName(item: { name: string; ownerId: string | null }, names: ShelfNames): string {
  const owner = ofRider(item.ownerId, names)
  return owner && !item.name.startsWith(owner) ? `${owner}’s ${item.name}` : item.name
}

/** Where the pieces are: "1 free; on Trail bike, front; on loan to Obi since 3 Nov". */
export function whereWords(item: StockItem, names: ShelfNames): string {
  const free = freePieces(item)
  const out = item.out.map((o) =>
    o.where === 'loan'
      ? loanWords(o)
      : `on ${names.bike(o.bikeId)?.name ?? 'a bike that was removed'}, ${o.end}`,
  )
  const here = free > 0 ? `${item.count === 1 ? '' : `${free} `}free` : item.count === 0 ? 'none left' : ''
  return [here, ...out].filter(Boolean).join('; ')
}

/** What may be had of it: "Tarek’s yellow spring is free", "the yellow spring is on loan to Obi since 3 Nov". */
export function offerWords(item: StockItem, names: ShelfNames): string {
  return `${ownedName(item, names)} is ${freePieces(item) > 0 ? 'free' : whereWords(item, names)}`
}

/** Where a fork or shock is: on its bike, lent, or in the rack. */
export function unitPlaceWords(unit: SuspensionUnit, bikes: readonly Bike[], names: ShelfNames): string {
  const on = bikes.filter((b) => b.frontUnitId === unit.id || b.rearUnitId === unit.id)
  const places = on.map((b) => {
    const rider = ofRider(b.riderId, names)
    return `on ${b.name}${rider ? ` of ${rider}` : ''}`
  })
  const loan = unit.loan ? [loanWords(unit.loan)] : []
  return [...places, ...loan].join(', ') || 'free'
}
