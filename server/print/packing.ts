import { deflateRawSync } from 'node:zlib'
import { dictionary, type CardPacking } from '#core/card/code'

const shared = { dictionary: Buffer.from(dictionary), level: 9 }

/** Compression of cards on this side of the house. */
export const packing: Pick<CardPacking, 'pack'> = {
  pack: (text) => deflateRawSync(text, shared).toString('base64url'),
}
