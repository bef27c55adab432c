import { cardVersion, SetupCard } from '#contract/card'
import { openCode, type CardPacking } from '#core/card/code'
import { InputError } from '#core/errors'

/** A card from its file. @throws InputError 'card.not-ours', 'card.newer', 'card.torn' */
export function readCardJson(text: string): SetupCard {
  let held: unknown
  try {
    held = JSON.parse(text)
  } catch {
    throw new InputError('card.not-ours')
  }
  const head = held as { card?: unknown; version?: unknown } | null
  if (head?.card !== 'setup' || typeof head.version !== 'number') throw new InputError('card.not-ours')
  if (head.version > cardVersion)
    throw new InputError('card.newer', { got: head.version, known: cardVersion })
  const read = SetupCard.safeParse(held)
  if (!read.success) throw new InputError('card.torn')
  return read.data
}

/** A card from the text of its code. @throws InputError 'card.not-ours', 'card.newer', 'card.torn' */
export const readCode = (code: string, unpacking: Pick<CardPacking, 'unpack'>): SetupCard =>
  readCardJson(openCode(code, unpacking))
