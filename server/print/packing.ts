import { deflateRawSync, inflateRawSync } from 'node:zlib'
import { dictionary, type CardPacking } from '#core/card/code'

const shared = { dictionary: Buffer.from(dictionary) }

/** Compression of cards on this side of the house. */
export const packing: CardPacking = {
  pack: (text) => deflateRawSync(text, { ...shared, level: 9 }).toString('base64url'),
  unpack: (packed) => inflateRawSync(Buffer.from(packed, 'base64url'), shared).toString('utf8'),
}
