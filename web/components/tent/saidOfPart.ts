import { foundPlace } from '#core/adjusters/foundPlace'
import { toCount } from '#core/adjusters/count'
import { shownByGaugePsi, truePressurePsi } from '#core/spring/gauge'
import type { CheckedPart } from '#core/tent/check'

/**
 * What was said of a part: what the gauge shows or where it was found, or that nobody is sure. Nothing said is nothing
 * known. `found` is canonical; of a pressure it is the number that was seen on the gauge, and stays when another gauge is
 * chosen: it was this one that showed it.
 */
export type Said = 'unsure' | { found: number }

const isAir = (p: CheckedPart) => p.adjuster.kind === 'pressure'

/** Where the part stands by that; null: nobody is sure. */
export function standsAt(p: CheckedPart, said: Said, readsHighPsi: number): number | null {
  if (said === 'unsure') return null
  return isAir(p) ? truePressurePsi(said.found, readsHighPsi) : said.found
}

/** The number that stands in its field: a count, or what the gauge shows. */
export const fieldOf = (p: CheckedPart, said: Said | undefined): number | null =>
  said === undefined || said === 'unsure' ? null : toCount(p.adjuster, said.found)

/** What the gauge shows of a true pressure; all else is as it is. */
export const onGauge = (p: CheckedPart, value: number, readsHighPsi: number): number =>
  isAir(p) ? shownByGaugePsi(value, readsHighPsi) : value

/** It reads as it is kept. Null: nothing is kept. */
export const asKept = (p: CheckedPart, readsHighPsi: number): Said | null =>
  p.stored && { found: onGauge(p, p.stored.value, readsHighPsi) }

/** What was typed into its field. @throws InputError when the part cannot stand there */
export const saidBy = (p: CheckedPart, typed: number): Said => ({ found: foundPlace(p.adjuster, typed) })
